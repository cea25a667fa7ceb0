"""Telling other programmes what has finished: signed messages to their addresses."""
