-- A letter is read when somebody opens it on its page, by whichever link; asking for the page is not reading. What was opened before
-- counts as read.
ALTER TABLE letter ADD COLUMN IF NOT EXISTS read_at DATETIME(6) NULL;
UPDATE letter l SET l.read_at = (SELECT MIN(k.first_read_at) FROM page_link k WHERE k.letter_id = l.id) WHERE l.read_at IS NULL;
