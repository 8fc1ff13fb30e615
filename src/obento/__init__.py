"""Obento batch-checks a class's circuit and HDL hand-ins and returns feedback to the class."""

__version__ = "0.1.0"
