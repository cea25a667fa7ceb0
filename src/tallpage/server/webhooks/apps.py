"""Wires the messages to other programmes."""

from django.apps import AppConfig


class WebhooksConfig(AppConfig):
    """Who is told what has finished."""

    name = "tallpage.server.webhooks"
    label = "webhooks"

    def ready(self) -> None:
        """Say how messages are sent, and have what is due looked for again and again."""
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.jobs.ticking import register_periodic
        from tallpage.server.webhooks import noticing, sending

        register_kind(sending.KIND, "files", sending.prepare)
        register_periodic("files", noticing.look_for_news)
