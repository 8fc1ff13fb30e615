"""Sending mail, and a small mailbox that stands in for a mail server."""
