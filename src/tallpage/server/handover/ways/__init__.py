"""The ways out. A further one is a module with a class like these, and a line in :mod:`registry`."""
