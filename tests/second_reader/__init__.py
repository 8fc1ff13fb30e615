"""A second reader: random designs whose truth is known without the program, and every sentence that is said of them
held against it."""
