"""How captures come onto the shelf: taken, or taken in."""
