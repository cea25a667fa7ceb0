"""Pictures over time into a file, and back."""
