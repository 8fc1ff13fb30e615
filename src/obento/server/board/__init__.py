"""The board: a circuit that is stated, drawn and tried beside a task's table."""
