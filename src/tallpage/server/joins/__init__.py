"""Captures joined into one tall one."""
