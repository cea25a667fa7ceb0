"""Who may come in: accounts, roles, tokens for scripts, and what each may do."""
