-- The spec version that a comment was written under: where another one expects something else it is a proposal. Comments of before hold
-- under every version, as they did.
ALTER TABLE comment ADD COLUMN IF NOT EXISTS spec_version_id INT NULL;
