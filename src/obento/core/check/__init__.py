"""Holding hand-ins against a specification."""
