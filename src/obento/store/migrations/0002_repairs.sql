-- The smallest change found for a wrong outcome; `changes` is a list of file, line and words, empty where none was found.
CREATE TABLE IF NOT EXISTS repair (
  result_id INT PRIMARY KEY,
  changes MEDIUMTEXT NOT NULL,
  tried INT NOT NULL,
  is_whole BOOLEAN NOT NULL,
  at DATETIME(6) NOT NULL,
  FOREIGN KEY (result_id) REFERENCES result (id) ON DELETE CASCADE
);
