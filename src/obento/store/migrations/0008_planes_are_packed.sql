-- What 0007 packed is not kept twice.
ALTER TABLE result
  DROP COLUMN IF EXISTS plane_right, DROP COLUMN IF EXISTS plane_failed, DROP COLUMN IF EXISTS plane_undefined,
  DROP COLUMN IF EXISTS plane_not_compared, DROP COLUMN IF EXISTS plane_stopped;
DROP TABLE IF EXISTS result_output;
ALTER TABLE result
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS result_planes (planes) REFERENCES planes (digest),
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS result_expected (expected) REFERENCES planes (digest);
