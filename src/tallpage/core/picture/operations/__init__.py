"""What is done to pixels."""
