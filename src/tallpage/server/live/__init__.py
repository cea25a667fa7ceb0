"""Pages that people use in the server's browser: the socket, the visits, and what is kept of them."""
