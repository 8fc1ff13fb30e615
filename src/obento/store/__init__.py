"""Records in MariaDB, through plain SQL."""
