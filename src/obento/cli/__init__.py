"""The command line."""

from obento.cli.main import main

__all__ = ["main"]
