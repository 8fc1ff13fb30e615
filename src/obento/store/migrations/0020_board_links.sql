-- A task's board for students: a link, and how much it tells of right and wrong. The link is kept as it is: it opens an empty board and
-- nothing of anybody, and who works on the class reads it out again.
CREATE TABLE IF NOT EXISTS board_link (
  task_id INT PRIMARY KEY,
  token VARCHAR(64) NOT NULL UNIQUE,
  tells VARCHAR(16) NOT NULL,
  person_id INT NULL,
  made_at DATETIME(6) NOT NULL,
  FOREIGN KEY (task_id) REFERENCES task (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE SET NULL
);
