"""Captures and the cuts made from them."""
