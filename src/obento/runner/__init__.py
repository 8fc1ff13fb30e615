"""Checks in worker processes, so that one hand-in can never take the others down."""
