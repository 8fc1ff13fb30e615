-- Why a file could not be taken in; empty for those that were.
ALTER TABLE attempt_file ADD COLUMN IF NOT EXISTS refused VARCHAR(300) NOT NULL DEFAULT '';
