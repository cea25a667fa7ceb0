"""What would make a limit work."""
