-- Where a comment was copied from with its lab: until somebody keeps it here it is a proposal.
ALTER TABLE comment ADD COLUMN IF NOT EXISTS from_task_id INT NULL;
