"""A server that others can reach, and people who come there."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tallpage.server.people import accounts

PASSWORD = "seven herrings swim"


@pytest.fixture(autouse=True)
def accounts_needed(settings: Any, transactional_db: None) -> None:
    settings.ACCOUNTS = True


@pytest.fixture
def producer() -> User:
    return accounts.add("isa", PASSWORD, "producer")


@pytest.fixture
def viewer() -> User:
    return accounts.add("odd", PASSWORD, "viewer")


def signed_in(user: User | None) -> Client:
    """A browser in which somebody is signed in, or nobody."""
    client = Client()
    if user is not None:
        client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    return client
