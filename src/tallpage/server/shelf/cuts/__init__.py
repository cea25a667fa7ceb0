"""Cuts of captures: changed, carried over, and what their marks look like."""
