"""Captures with their cuts, taken to another Tall Page and brought in from one."""
