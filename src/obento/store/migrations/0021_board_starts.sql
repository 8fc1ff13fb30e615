-- What a student's board begins with, where it is more than the empty unit. A link of before begins with that, as it did.
ALTER TABLE board_link ADD COLUMN IF NOT EXISTS start MEDIUMTEXT NULL;
