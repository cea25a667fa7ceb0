"""The best file under a limit, and the lightest that looks good enough."""
