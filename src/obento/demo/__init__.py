"""The demo class: files under demo/ at the root, taken in the way any class is."""
