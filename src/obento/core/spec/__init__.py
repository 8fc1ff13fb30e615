"""What is right: the specification file, its cases and what is expected in each."""
