-- What a spec version rests on besides its text. `edition` says by which rules the text is read: what was written before there were
-- editions keeps the first. `files_digest` is of the frozen files; `is_frozen_late` marks versions that were used before files were frozen
-- and got those of the day when this was introduced.
ALTER TABLE spec_version
  ADD COLUMN IF NOT EXISTS edition INT NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS files_digest CHAR(64) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS frozen_at DATETIME(6) NULL,
  ADD COLUMN IF NOT EXISTS is_frozen_late BOOLEAN NOT NULL DEFAULT FALSE;
-- The files of a used spec version, as they were when it was first used; never changed.
CREATE TABLE IF NOT EXISTS spec_file (
  spec_version_id INT NOT NULL,
  name VARCHAR(200) NOT NULL,
  provided BOOLEAN NOT NULL DEFAULT FALSE,
  data MEDIUMBLOB NOT NULL,
  PRIMARY KEY (spec_version_id, name, provided),
  FOREIGN KEY (spec_version_id) REFERENCES spec_version (id)
);
INSERT IGNORE INTO spec_file (spec_version_id, name, provided, data)
  SELECT v.id, f.name, f.provided, f.data FROM spec_version v JOIN task_file f ON f.task_id = v.task_id
  WHERE v.used_at IS NOT NULL AND v.frozen_at IS NULL;
UPDATE spec_version v SET
  v.files_digest = SHA2(COALESCE((
    SELECT GROUP_CONCAT(CONCAT(f.provided, ' ', SHA2(f.data, 256), ' ', f.name) ORDER BY f.provided, HEX(f.name) SEPARATOR '\n')
    FROM spec_file f WHERE f.spec_version_id = v.id), ''), 256),
  v.is_frozen_late = TRUE, v.frozen_at = UTC_TIMESTAMP(6)
  WHERE v.used_at IS NOT NULL AND v.frozen_at IS NULL;
-- An outcome rests on the files too.
ALTER TABLE result ADD COLUMN IF NOT EXISTS files_digest CHAR(64) NOT NULL DEFAULT '';
UPDATE result r JOIN spec_version v ON v.id = r.spec_version_id SET r.files_digest = v.files_digest WHERE r.files_digest = '';
ALTER TABLE result
  ADD UNIQUE KEY IF NOT EXISTS only_once_each (attempt_id, spec_version_id, files_digest, engine, choices_digest),
  DROP KEY IF EXISTS only_once;
CREATE OR REPLACE TRIGGER spec_version_keeps BEFORE UPDATE ON spec_version FOR EACH ROW
  SET NEW.text = IF(OLD.used_at IS NULL, NEW.text, OLD.text), NEW.digest = IF(OLD.used_at IS NULL, NEW.digest, OLD.digest),
    NEW.edition = IF(OLD.used_at IS NULL, NEW.edition, OLD.edition),
    NEW.files_digest = IF(OLD.frozen_at IS NULL, NEW.files_digest, OLD.files_digest),
    NEW.frozen_at = IF(OLD.frozen_at IS NULL, NEW.frozen_at, OLD.frozen_at);
CREATE OR REPLACE TRIGGER spec_file_keeps BEFORE UPDATE ON spec_file FOR EACH ROW
  SET NEW.data = OLD.data, NEW.name = OLD.name, NEW.provided = OLD.provided;
