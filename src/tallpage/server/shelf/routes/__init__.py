"""HTTP API of the shelf."""
