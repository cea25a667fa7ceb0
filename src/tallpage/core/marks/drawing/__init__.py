"""From a mark to its shapes: a module for each family of marks."""
