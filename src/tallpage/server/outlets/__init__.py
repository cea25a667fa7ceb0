"""Places with their slots, and the files made for them."""
