-- A class list says more than a name; who left stays, with what they handed in.
ALTER TABLE student
  ADD COLUMN IF NOT EXISTS group_name VARCHAR(100) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS team_name VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS remarks VARCHAR(2000) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS left_at DATETIME(6) NULL;
UPDATE student SET group_name = LEFT(COALESCE(JSON_VALUE(given, '$.group'), JSON_VALUE(given, '$.Group'), ''), 100)
  WHERE group_name = '' AND JSON_VALID(given);
-- What a drop was for (one task, or all whose unit it holds), and when it came: at the upload, by the archive's entry times, or as somebody
-- said. Drops of before were judged by the time of their upload, and stay so.
ALTER TABLE intake_drop
  ADD COLUMN IF NOT EXISTS task_id INT NULL,
  ADD COLUMN IF NOT EXISTS times ENUM('upload', 'archive', 'given') NOT NULL DEFAULT 'upload',
  ADD COLUMN IF NOT EXISTS zone VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS is_confirmed TINYINT NOT NULL DEFAULT 1,
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS drop_task (task_id) REFERENCES task (id);
-- `task_id` is the one task an attempt is for; without it, every task whose unit it holds. `entry_time` is what the archive says, in no
-- zone. Attempts of before have no drop.
ALTER TABLE attempt
  ADD COLUMN IF NOT EXISTS task_id INT NULL,
  ADD COLUMN IF NOT EXISTS drop_id INT NULL,
  ADD COLUMN IF NOT EXISTS entry_time DATETIME(6) NULL,
  ADD COLUMN IF NOT EXISTS is_received_by_hand TINYINT NOT NULL DEFAULT 0,
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS attempt_task (task_id) REFERENCES task (id),
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS attempt_drop (drop_id) REFERENCES intake_drop (id);
-- A hand-in that is put aside counts for nothing and is gone from all lists but the intake; `doubt` says why a person has to say whose it is.
ALTER TABLE handin
  ADD COLUMN IF NOT EXISTS aside_at DATETIME(6) NULL,
  ADD COLUMN IF NOT EXISTS aside_reason VARCHAR(500) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS doubt VARCHAR(300) NOT NULL DEFAULT '';
-- What a person said once of a name or of a platform's number (`#…`): whose it is, for the drops to come.
CREATE TABLE IF NOT EXISTS known_label (
  class_id INT NOT NULL,
  label VARCHAR(300) COLLATE utf8mb4_bin NOT NULL,
  student_ids VARCHAR(500) NOT NULL,
  person_id INT NOT NULL,
  at DATETIME(6) NOT NULL,
  PRIMARY KEY (class_id, label),
  FOREIGN KEY (class_id) REFERENCES class (id)
);
-- Who need not hand in, and why: neither missing nor zero.
CREATE TABLE IF NOT EXISTS excused (
  lab_id INT NOT NULL,
  student_id INT NOT NULL,
  reason VARCHAR(500) NOT NULL DEFAULT '',
  person_id INT NOT NULL,
  at DATETIME(6) NOT NULL,
  PRIMARY KEY (lab_id, student_id),
  FOREIGN KEY (lab_id) REFERENCES lab (id),
  FOREIGN KEY (student_id) REFERENCES student (id)
);
