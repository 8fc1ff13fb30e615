-- Roles mean something: readers look, TAs check, comment and mark, lecturers also set terms, specs, people and release.
-- What TAs of a class may do besides is a setting of the class; nobody who is there already loses anything.
ALTER TABLE class_role MODIFY role ENUM('reader', 'ta', 'lecturer') NOT NULL;
ALTER TABLE class
  ADD COLUMN IF NOT EXISTS tas_release TINYINT NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS tas_manage TINYINT NOT NULL DEFAULT 1;
ALTER TABLE class ALTER tas_release SET DEFAULT 0, ALTER tas_manage SET DEFAULT 0;
-- Who made an account sees its link as long as nobody else counts on it; all other links go to the address.
ALTER TABLE person ADD COLUMN IF NOT EXISTS made_by INT NULL;
CREATE TABLE IF NOT EXISTS welcome_mail (
  id INT AUTO_INCREMENT PRIMARY KEY,
  person_id INT NOT NULL,
  class_name VARCHAR(200) NOT NULL,
  token CHAR(43) NULL,
  state ENUM('queued', 'sent', 'failed') NOT NULL,
  tries INT NOT NULL DEFAULT 0,
  trouble VARCHAR(500) NOT NULL DEFAULT '',
  at DATETIME(6) NOT NULL,
  KEY by_state (state, at),
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
