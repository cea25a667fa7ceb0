"""Queued work: rows with state, progress and heartbeat."""
