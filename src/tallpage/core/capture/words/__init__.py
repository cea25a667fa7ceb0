"""What the page says: its blocks, and whether all of its words are in the picture."""
