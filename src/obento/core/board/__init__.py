"""Circuits that are stated and tried: lines for a wiring list out of what a person writes, and out of a table."""
