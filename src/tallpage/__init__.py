"""Tall Page: full-length pictures of web pages, cut, sized and fitted under a byte limit."""
