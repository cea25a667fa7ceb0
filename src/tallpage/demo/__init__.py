"""The made-up ferry line: its site, its photographs, its outlets."""
