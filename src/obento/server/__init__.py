"""The web server: accounts, intake, checks, results, letters."""
