"""How a page is taken when not everything is said: as the person's settings have it for its host."""

from __future__ import annotations

from tallpage.core.errors import AddressError
from tallpage.server.preferences.values import value_of
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.signins.keeping import host_key


def as_set(said: TakeSettings, person: str) -> TakeSettings:
    """What was said, and where nothing was, how the person takes pages."""
    return _together(value_of("take.usual", person), said)


def by_host(said: TakeSettings, person: str) -> dict[str, TakeSettings]:
    """The same for the hosts whose pages the person takes otherwise, by host with its port."""
    usual = value_of("take.usual", person)
    hosts = value_of("take.hosts", person)
    return {host: _together({**usual, **otherwise}, said) for host, otherwise in hosts.items()}


def for_address(said: TakeSettings, address: str, person: str) -> TakeSettings:
    """The same for the page of one address."""
    hosts = by_host(said, person)
    if hosts:
        try:
            return hosts.get(host_key(address)) or as_set(said, person)
        except AddressError:
            pass  # refused in the same words where the page is ordered
    return as_set(said, person)


def _together(usual: dict[str, object], said: TakeSettings) -> TakeSettings:
    return TakeSettings.model_validate({**usual, **said.model_dump(exclude_unset=True)})
