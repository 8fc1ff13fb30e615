-- What lateness costs: once, or for every hour or day that has begun, after so many minutes of grace, up to a cap. As it was: once.
ALTER TABLE lab
  ADD COLUMN IF NOT EXISTS late_step ENUM('once', 'hour', 'day') NOT NULL DEFAULT 'once',
  ADD COLUMN IF NOT EXISTS late_grace INT NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS late_cap DECIMAL(5, 4) NOT NULL DEFAULT 1;
