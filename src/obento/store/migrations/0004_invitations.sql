-- A way in for somebody without a password: what is kept of the link, until when it holds, and when it was used.
CREATE TABLE IF NOT EXISTS invitation (
  token_hash CHAR(64) PRIMARY KEY,
  person_id INT NOT NULL,
  expires_at DATETIME(6) NOT NULL,
  used_at DATETIME(6) NULL,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
