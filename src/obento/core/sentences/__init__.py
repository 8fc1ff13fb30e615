"""Everything that is said of a hand-in and to a student, as templates: one file a language."""
