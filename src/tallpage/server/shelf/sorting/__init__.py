"""Folders, labels, and finding captures."""
