"""The parts of wiring lists beyond gates: what each takes and gives, and what it becomes."""
