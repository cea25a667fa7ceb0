"""Bringing a page to the state in which it is taken: walked through, laid out at full length, at rest."""
