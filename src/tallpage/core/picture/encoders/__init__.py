"""Pixels out: a module for each format."""
