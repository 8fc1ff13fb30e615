"""Records on a real MariaDB."""
