"""Formats, recipes, and the files that are really made."""
