-- What is taken away can be had back for 30 days; then it is gone for good.
ALTER TABLE class ADD COLUMN IF NOT EXISTS gone_at DATETIME(6) NULL;
ALTER TABLE lab ADD COLUMN IF NOT EXISTS gone_at DATETIME(6) NULL;
ALTER TABLE task ADD COLUMN IF NOT EXISTS gone_at DATETIME(6) NULL;
ALTER TABLE intake_drop ADD COLUMN IF NOT EXISTS gone_at DATETIME(6) NULL;
