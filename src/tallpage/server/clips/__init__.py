"""A few seconds of pages: their frames, what is seen of them, and files under a limit."""
