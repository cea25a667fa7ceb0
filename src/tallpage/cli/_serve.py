"""``tallpage serve``: the whole application."""

from __future__ import annotations


def serve() -> None:
    """Run the application: web, workers, all in one. Settings come from TALLPAGE_* variables."""
    from tallpage.server.serve import serve_all

    serve_all()
