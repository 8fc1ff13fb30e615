"""Running a Design: on one timeline, or all cases at once in lanes."""
