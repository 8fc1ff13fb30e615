"""Taking in what a class hands in."""
