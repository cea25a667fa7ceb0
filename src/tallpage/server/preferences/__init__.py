"""Settings: what each person, or the whole server, wants otherwise than usual."""
