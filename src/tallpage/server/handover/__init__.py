"""Ways out: what is given away, how, where to, and what came back."""
