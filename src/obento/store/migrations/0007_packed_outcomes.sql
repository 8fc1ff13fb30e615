-- Planes of outcomes, packed (see `packing`) and kept once however many hand-ins behave alike. `expected` is what an outcome was held
-- against and is kept as the difference from; older outcomes have none and are kept as they were seen. `summary` is what a class's pages
-- show of an outcome. Outcomes of before are packed by the program, then the columns they were in go.
CREATE TABLE IF NOT EXISTS planes (
  digest CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  data LONGBLOB NOT NULL
);
ALTER TABLE result
  ADD COLUMN IF NOT EXISTS planes CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS expected CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS summary MEDIUMTEXT NULL;
CREATE INDEX IF NOT EXISTS by_planes ON result (planes);
CREATE INDEX IF NOT EXISTS by_expected ON result (expected);
