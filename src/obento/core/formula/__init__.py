"""The expression language of specifications: Boolean and word-level, in the notations people type."""
