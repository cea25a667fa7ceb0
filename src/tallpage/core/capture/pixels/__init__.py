"""Taking the pixels: in pieces at rest, or screen by screen."""
