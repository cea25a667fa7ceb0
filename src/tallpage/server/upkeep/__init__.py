"""Keeping the data folder in order: what nothing refers to any more goes."""
