"""The browser: started, kept, shared, watched over, kept away from private hosts; what is done on a page."""
