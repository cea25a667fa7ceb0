"""Accounts and tokens."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """Who may come in."""

    name = "tallpage.server.people"
    label = "people"
