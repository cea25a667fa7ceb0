"""What a cut does to the page, before anything is framed."""
