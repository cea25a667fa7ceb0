"""The Django project: HTTP API, queue, and the page that carries the interface."""
