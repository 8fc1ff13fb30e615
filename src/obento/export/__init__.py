"""Results as tables and feeds in open formats."""
