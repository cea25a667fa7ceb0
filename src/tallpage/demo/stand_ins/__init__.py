"""Small simulated places that files are handed over to: a publishing site, and a mail server."""
