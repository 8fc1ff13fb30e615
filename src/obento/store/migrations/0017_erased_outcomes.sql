-- What of somebody who was erased still counts in the sums of a report: for each task one line that names nobody.
CREATE TABLE IF NOT EXISTS erased_outcome (
  student_id INT NOT NULL,
  task_id INT NOT NULL,
  spec_version_id INT NULL,
  kind ENUM('right', 'rules', 'wrong', 'unchecked', 'missing', 'excused', 'team') NOT NULL,
  mark DOUBLE NULL,
  title VARCHAR(500) NOT NULL DEFAULT '',
  failed MEDIUMBLOB NOT NULL,
  PRIMARY KEY (student_id, task_id),
  KEY by_task (task_id),
  FOREIGN KEY (student_id) REFERENCES student (id) ON DELETE CASCADE,
  FOREIGN KEY (task_id) REFERENCES task (id) ON DELETE CASCADE
);
