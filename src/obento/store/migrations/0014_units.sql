-- The unit that a spec asks for, so that what was handed in for a whole lab is told apart by task. The program fills in those of before.
ALTER TABLE spec_version ADD COLUMN IF NOT EXISTS unit VARCHAR(200) NOT NULL DEFAULT '';
