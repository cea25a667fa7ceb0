"""Many pages on several screens: planned, paced, told of, taken away."""
