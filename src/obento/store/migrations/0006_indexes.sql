-- What is looked up when a letter is asked about and when a student is erased.
CREATE INDEX IF NOT EXISTS by_subject ON audit (subject);
CREATE INDEX IF NOT EXISTS by_student ON mark_entry (student_id);
CREATE INDEX IF NOT EXISTS by_handin ON comment (handin_id);
