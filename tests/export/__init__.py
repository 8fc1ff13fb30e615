"""Tables and reports for other programs."""
