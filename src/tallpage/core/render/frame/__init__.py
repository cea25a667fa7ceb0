"""What a cut does to the frame, on the way to a file."""
