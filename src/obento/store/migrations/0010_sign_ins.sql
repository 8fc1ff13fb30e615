-- Which browser a session is of, since when; and the browsers in which somebody has signed in before.
ALTER TABLE sign_in
  ADD COLUMN IF NOT EXISTS started_at DATETIME(6) NULL,
  ADD COLUMN IF NOT EXISTS browser VARCHAR(200) NOT NULL DEFAULT '';
CREATE TABLE IF NOT EXISTS known_browser (
  token_hash CHAR(64) PRIMARY KEY,
  person_id INT NOT NULL,
  seen_at DATETIME(6) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
-- Tries count by account, by client and by browser: `email` is any of these keys.
ALTER TABLE sign_in_failure MODIFY email VARCHAR(280) NOT NULL;
