-- The language of a class's letters and pages: the name of a file of core/sentences.
ALTER TABLE class ADD COLUMN IF NOT EXISTS language VARCHAR(8) NOT NULL DEFAULT 'en';
