"""Faults put into a copy of the repository, to see whether the tests notice them."""
