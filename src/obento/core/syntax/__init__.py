"""What the language front ends share."""
