"""Saved sign-ins: one per host, kept sealed, shown never."""
