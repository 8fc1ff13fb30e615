-- People, classes, labs, specs, hand-ins, results, marks, letters.
CREATE TABLE IF NOT EXISTS person (
  id INT AUTO_INCREMENT PRIMARY KEY,
  email VARCHAR(200) NOT NULL UNIQUE,
  name VARCHAR(200) NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  created_at DATETIME(6) NOT NULL
);
CREATE TABLE IF NOT EXISTS sign_in (
  token_hash CHAR(64) PRIMARY KEY,
  person_id INT NOT NULL,
  csrf CHAR(43) NOT NULL,
  expires_at DATETIME(6) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS sign_in_failure (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  email VARCHAR(200) NOT NULL,
  at DATETIME(6) NOT NULL,
  KEY by_email (email, at)
);
CREATE TABLE IF NOT EXISTS class (
  id INT AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(200) NOT NULL,
  school VARCHAR(200) NOT NULL DEFAULT '',
  created_at DATETIME(6) NOT NULL
);
CREATE TABLE IF NOT EXISTS class_role (
  class_id INT NOT NULL,
  person_id INT NOT NULL,
  role ENUM('ta', 'lecturer') NOT NULL,
  PRIMARY KEY (class_id, person_id),
  FOREIGN KEY (class_id) REFERENCES class (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
);
-- A roster row. `given` keeps every column as it stood in the file, `number` the id as given (leading zeros included).
CREATE TABLE IF NOT EXISTS student (
  id INT AUTO_INCREMENT PRIMARY KEY,
  class_id INT NOT NULL,
  number VARCHAR(100) NOT NULL,
  name VARCHAR(200) NOT NULL,
  email VARCHAR(200) NOT NULL DEFAULT '',
  given LONGTEXT NOT NULL,
  position INT NOT NULL DEFAULT 0,
  erased_at DATETIME(6) NULL,
  UNIQUE KEY by_number (class_id, number),
  FOREIGN KEY (class_id) REFERENCES class (id)
);
CREATE TABLE IF NOT EXISTS lab (
  id INT AUTO_INCREMENT PRIMARY KEY,
  class_id INT NOT NULL,
  title VARCHAR(200) NOT NULL,
  due_at DATETIME(6) NULL,
  which_attempt ENUM('last', 'first', 'best') NOT NULL DEFAULT 'last',
  late_share DECIMAL(5, 4) NOT NULL DEFAULT 0,
  position INT NOT NULL DEFAULT 0,
  created_at DATETIME(6) NOT NULL,
  FOREIGN KEY (class_id) REFERENCES class (id)
);
CREATE TABLE IF NOT EXISTS team (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  name VARCHAR(200) NOT NULL,
  UNIQUE KEY by_name (lab_id, name),
  FOREIGN KEY (lab_id) REFERENCES lab (id)
);
CREATE TABLE IF NOT EXISTS team_member (
  team_id INT NOT NULL,
  student_id INT NOT NULL,
  PRIMARY KEY (team_id, student_id),
  FOREIGN KEY (team_id) REFERENCES team (id),
  FOREIGN KEY (student_id) REFERENCES student (id)
);
CREATE TABLE IF NOT EXISTS extension (
  lab_id INT NOT NULL,
  student_id INT NOT NULL,
  due_at DATETIME(6) NOT NULL,
  reason VARCHAR(500) NOT NULL DEFAULT '',
  person_id INT NOT NULL,
  PRIMARY KEY (lab_id, student_id),
  FOREIGN KEY (lab_id) REFERENCES lab (id),
  FOREIGN KEY (student_id) REFERENCES student (id)
);
CREATE TABLE IF NOT EXISTS task (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  position INT NOT NULL,
  title VARCHAR(200) NOT NULL,
  FOREIGN KEY (lab_id) REFERENCES lab (id)
);
-- A spec version. `used_at` is set by the first check; from then on its text never changes.
CREATE TABLE IF NOT EXISTS spec_version (
  id INT AUTO_INCREMENT PRIMARY KEY,
  task_id INT NOT NULL,
  number INT NOT NULL,
  text MEDIUMTEXT NOT NULL,
  digest VARCHAR(80) NOT NULL,
  is_right BOOLEAN NOT NULL DEFAULT FALSE,
  person_id INT NULL,
  created_at DATETIME(6) NOT NULL,
  used_at DATETIME(6) NULL,
  UNIQUE KEY by_number (task_id, number),
  FOREIGN KEY (task_id) REFERENCES task (id)
);
-- Files beside a spec (models, tables: `provided` false) and files that every hand-in may use (`provided` true).
CREATE TABLE IF NOT EXISTS task_file (
  id INT AUTO_INCREMENT PRIMARY KEY,
  task_id INT NOT NULL,
  name VARCHAR(200) NOT NULL,
  provided BOOLEAN NOT NULL DEFAULT FALSE,
  data MEDIUMBLOB NOT NULL,
  UNIQUE KEY by_name (task_id, name, provided),
  FOREIGN KEY (task_id) REFERENCES task (id)
);
-- Who hands in: a student, a team, or nobody yet (then `label` is the name of the folder or file).
CREATE TABLE IF NOT EXISTS handin (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  student_id INT NULL,
  team_id INT NULL,
  label VARCHAR(300) NOT NULL,
  proposal TEXT NULL,
  created_at DATETIME(6) NOT NULL,
  UNIQUE KEY one_a_student (lab_id, student_id),
  UNIQUE KEY one_a_team (lab_id, team_id),
  FOREIGN KEY (lab_id) REFERENCES lab (id),
  FOREIGN KEY (student_id) REFERENCES student (id),
  FOREIGN KEY (team_id) REFERENCES team (id)
);
CREATE TABLE IF NOT EXISTS attempt (
  id INT AUTO_INCREMENT PRIMARY KEY,
  handin_id INT NOT NULL,
  number INT NOT NULL,
  label VARCHAR(300) NOT NULL,
  received_at DATETIME(6) NOT NULL,
  late BOOLEAN NOT NULL DEFAULT FALSE,
  digest CHAR(64) NOT NULL,
  UNIQUE KEY by_number (handin_id, number),
  FOREIGN KEY (handin_id) REFERENCES handin (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS attempt_file (
  attempt_id INT NOT NULL,
  path VARCHAR(300) NOT NULL,
  data MEDIUMBLOB NOT NULL,
  PRIMARY KEY (attempt_id, path),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS intake_drop (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  person_id INT NOT NULL,
  name VARCHAR(300) NOT NULL,
  at DATETIME(6) NOT NULL,
  files INT NOT NULL,
  left_out MEDIUMTEXT NOT NULL,
  FOREIGN KEY (lab_id) REFERENCES lab (id)
);
CREATE TABLE IF NOT EXISTS check_run (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  person_id INT NULL,
  state ENUM('running', 'done', 'cancelled', 'failed') NOT NULL,
  total INT NOT NULL,
  done INT NOT NULL DEFAULT 0,
  started_at DATETIME(6) NOT NULL,
  finished_at DATETIME(6) NULL,
  FOREIGN KEY (lab_id) REFERENCES lab (id)
);
-- One outcome. The planes hold one bit a case, case 0 in the lowest bit of the first byte; a case is known by its inputs,
-- which follow from the spec version.
CREATE TABLE IF NOT EXISTS result (
  id INT AUTO_INCREMENT PRIMARY KEY,
  attempt_id INT NOT NULL,
  task_id INT NOT NULL,
  spec_version_id INT NOT NULL,
  engine VARCHAR(40) NOT NULL,
  choices_digest CHAR(64) NOT NULL,
  status ENUM('checked', 'unreadable', 'no_unit', 'ports', 'stopped', 'empty') NOT NULL,
  language VARCHAR(20) NOT NULL DEFAULT '',
  unit VARCHAR(200) NOT NULL DEFAULT '',
  cluster VARCHAR(80) NOT NULL,
  rules_ok BOOLEAN NOT NULL DEFAULT TRUE,
  passed INT NOT NULL,
  total INT NOT NULL,
  plane_right MEDIUMBLOB NOT NULL,
  plane_failed MEDIUMBLOB NOT NULL,
  plane_undefined MEDIUMBLOB NOT NULL,
  plane_not_compared MEDIUMBLOB NOT NULL,
  plane_stopped MEDIUMBLOB NOT NULL,
  detail MEDIUMTEXT NOT NULL,
  at DATETIME(6) NOT NULL,
  UNIQUE KEY only_once (attempt_id, spec_version_id, engine, choices_digest),
  KEY by_task (task_id, spec_version_id),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id) ON DELETE CASCADE,
  FOREIGN KEY (spec_version_id) REFERENCES spec_version (id)
);
-- One output of one outcome: its verdict planes and the observed value of each of its bits, all packed alike.
CREATE TABLE IF NOT EXISTS result_output (
  result_id INT NOT NULL,
  output VARCHAR(200) NOT NULL,
  plane_failed MEDIUMBLOB NOT NULL,
  plane_undefined MEDIUMBLOB NOT NULL,
  plane_not_compared MEDIUMBLOB NOT NULL,
  plane_stopped MEDIUMBLOB NOT NULL,
  observed LONGBLOB NOT NULL,
  PRIMARY KEY (result_id, output),
  FOREIGN KEY (result_id) REFERENCES result (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS binding (
  result_id INT NOT NULL,
  ours VARCHAR(200) NOT NULL,
  theirs VARCHAR(300) NOT NULL,
  how VARCHAR(20) NOT NULL,
  PRIMARY KEY (result_id, ours),
  FOREIGN KEY (result_id) REFERENCES result (id) ON DELETE CASCADE
);
-- A person agreed that `theirs` is our `ours`; holds for everyone in the same position.
CREATE TABLE IF NOT EXISTS consent (
  task_id INT NOT NULL,
  ours VARCHAR(200) NOT NULL,
  theirs VARCHAR(300) NOT NULL,
  person_id INT NOT NULL,
  at DATETIME(6) NOT NULL,
  PRIMARY KEY (task_id, ours, theirs),
  FOREIGN KEY (task_id) REFERENCES task (id)
);
-- A person chose for one hand-in which name of theirs is meant.
CREATE TABLE IF NOT EXISTS choice (
  handin_id INT NOT NULL,
  task_id INT NOT NULL,
  ours VARCHAR(200) NOT NULL,
  theirs VARCHAR(300) NOT NULL,
  person_id INT NOT NULL,
  at DATETIME(6) NOT NULL,
  PRIMARY KEY (handin_id, task_id, ours),
  FOREIGN KEY (handin_id) REFERENCES handin (id) ON DELETE CASCADE,
  FOREIGN KEY (task_id) REFERENCES task (id)
);
-- A comment belongs to a behaviour (cluster) or, with `handin_id`, to one hand-in.
CREATE TABLE IF NOT EXISTS comment (
  id INT AUTO_INCREMENT PRIMARY KEY,
  task_id INT NOT NULL,
  cluster VARCHAR(80) NOT NULL,
  handin_id INT NOT NULL DEFAULT 0,
  text MEDIUMTEXT NOT NULL,
  version INT NOT NULL DEFAULT 1,
  person_id INT NOT NULL,
  at DATETIME(6) NOT NULL,
  UNIQUE KEY one_each (task_id, cluster, handin_id),
  FOREIGN KEY (task_id) REFERENCES task (id)
);
-- The ledger of marks. Entries are added, never changed; the newest of each kind counts.
CREATE TABLE IF NOT EXISTS mark_entry (
  id INT AUTO_INCREMENT PRIMARY KEY,
  handin_id INT NOT NULL,
  task_id INT NOT NULL,
  student_id INT NULL,
  kind ENUM('computed', 'late', 'manual', 'override', 'held', 'lifted') NOT NULL,
  value DECIMAL(10, 3) NULL,
  reason VARCHAR(500) NOT NULL DEFAULT '',
  result_id INT NULL,
  person_id INT NULL,
  at DATETIME(6) NOT NULL,
  KEY by_handin (handin_id, task_id, id),
  FOREIGN KEY (handin_id) REFERENCES handin (id) ON DELETE CASCADE
);
-- A letter as it was released. `frozen` holds spec versions, engine version, bindings, marks and rows it rests on.
CREATE TABLE IF NOT EXISTS letter (
  id INT AUTO_INCREMENT PRIMARY KEY,
  lab_id INT NOT NULL,
  student_id INT NOT NULL,
  number INT NOT NULL,
  corrects INT NULL,
  frozen LONGTEXT NOT NULL,
  person_id INT NOT NULL,
  released_at DATETIME(6) NOT NULL,
  withdrawn_at DATETIME(6) NULL,
  UNIQUE KEY by_number (lab_id, student_id, number),
  FOREIGN KEY (lab_id) REFERENCES lab (id),
  FOREIGN KEY (student_id) REFERENCES student (id)
);
CREATE TABLE IF NOT EXISTS page_link (
  token_hash CHAR(64) PRIMARY KEY,
  letter_id INT NOT NULL,
  expires_at DATETIME(6) NOT NULL,
  revoked_at DATETIME(6) NULL,
  first_read_at DATETIME(6) NULL,
  FOREIGN KEY (letter_id) REFERENCES letter (id) ON DELETE CASCADE
);
-- An e-mail to be sent. The token stands here only until it is sent.
CREATE TABLE IF NOT EXISTS delivery (
  id INT AUTO_INCREMENT PRIMARY KEY,
  letter_id INT NOT NULL,
  address VARCHAR(200) NOT NULL,
  token CHAR(43) NULL,
  state ENUM('queued', 'sent', 'failed') NOT NULL,
  tries INT NOT NULL DEFAULT 0,
  trouble VARCHAR(500) NOT NULL DEFAULT '',
  at DATETIME(6) NOT NULL,
  FOREIGN KEY (letter_id) REFERENCES letter (id) ON DELETE CASCADE
);
CREATE TABLE IF NOT EXISTS audit (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  at DATETIME(6) NOT NULL,
  person_id INT NULL,
  action VARCHAR(60) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  detail TEXT NOT NULL
);
-- A used spec version keeps its text, whoever asks.
CREATE OR REPLACE TRIGGER spec_version_keeps BEFORE UPDATE ON spec_version FOR EACH ROW
  SET NEW.text = IF(OLD.used_at IS NULL, NEW.text, OLD.text), NEW.digest = IF(OLD.used_at IS NULL, NEW.digest, OLD.digest);
