"""The front end's logic, run in the real browser without its screens."""
