"""Every route, tried by nobody, a viewer and a producer. One without a rule fails here."""

import re
from collections.abc import Iterator
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver
from ninja.operation import PathView

from tallpage.server.api import api
from tallpage.server.people.access import API_PAGES, ASKED, CHANGED, LOOKED_AT, PAGES, need_of
from tests.server.people.conftest import signed_in


def _operations() -> Iterator[tuple[str, str]]:
    """Pattern and method of each operation of the API."""
    for prefix, router in api._routers:
        for path, view in router.path_operations.items():
            assert isinstance(view, PathView)
            pattern = re.sub(
                r"\{(\w+:)?(\w+)\}", lambda match: f"<{match[1] or ''}{match[2]}>", f"{prefix}{path}"
            )
            for operation in view.operations:
                yield from ((pattern.lstrip("/"), method) for method in operation.methods)


OPERATIONS = sorted(set(_operations()))


def _address(pattern: str) -> str:
    """An address that matches; nothing is there."""
    filled = re.sub(r"<(\w+:)?name>", "original", pattern)
    filled = re.sub(r"<(\w+:)?side>", "original", filled)
    return f"/api/{re.sub(r'<[^>]*>', '999999', filled)}"


def _ask(client: Client, pattern: str, method: str) -> Any:
    return client.generic(method, _address(pattern), b"{}", content_type="application/json")


def test_every_operation_has_a_rule_and_every_rule_an_operation() -> None:
    without = [row for row in OPERATIONS if need_of(f"api/{row[0]}", row[1]) is None]
    assert without == []
    ruled = {(path, "GET") for path in LOOKED_AT} | {(path, "POST") for path in ASKED}
    ruled |= {(path, method) for path, methods in CHANGED.items() for method in methods}
    assert ruled == set(OPERATIONS)


def _pages(patterns: Any, before: str = "") -> Iterator[str]:
    for row in patterns:
        if isinstance(row, URLResolver):
            yield from _pages(row.url_patterns, before + str(row.pattern))
        elif isinstance(row, URLPattern):
            yield before + str(row.pattern)


def test_every_page_has_a_rule() -> None:
    routes = [route for route in _pages(get_resolver().url_patterns) if not route.startswith("admin/")]
    pages = {route for route in routes if not route.startswith("api/")}
    assert pages == set(PAGES)
    own = {route.removeprefix("api/") for route in routes if route.startswith("api/")}
    assert own - {path for path, _ in OPERATIONS} == set(API_PAGES)


def test_nobody_gets_anything() -> None:
    stranger = signed_in(None)
    for pattern, method in OPERATIONS:
        answer = _ask(stranger, pattern, method)
        assert (answer.status_code, answer.json()["code"]) == (401, "signed_out"), f"{method} {pattern}"


def test_a_viewer_looks_and_changes_nothing_a_producer_does_both(viewer: User, producer: User) -> None:
    looking, making = signed_in(viewer), signed_in(producer)
    for pattern, method in OPERATIONS:
        need = need_of(f"api/{pattern}", method)
        answer = _ask(looking, pattern, method)
        refused = answer.status_code == 403 and answer.json()["code"] == "viewer"
        assert refused == (need == "producer"), f"{method} {pattern}: {answer.status_code}"
        answer = _ask(making, pattern, method)
        assert answer.status_code not in (401, 403), f"{method} {pattern}: {answer.content[:200]}"


@pytest.mark.parametrize("path", ["/", "/shelf", "/captures/1", "/api/docs"])
def test_pages_of_the_interface_send_to_the_way_in(path: str, viewer: User) -> None:
    answer = signed_in(None).get(path)
    if path.startswith("/api"):
        assert answer.status_code == 401
    else:
        assert answer["Location"] == f"/account/sign-in?next={path.replace('/', '%2F')}"
    assert signed_in(viewer).get(path).status_code == 200


def test_shared_links_and_the_way_in_are_open_to_anybody() -> None:
    stranger = signed_in(None)
    assert stranger.get("/account/sign-in").status_code == 200
    assert stranger.get("/shared/style.css").status_code == 200
    assert stranger.get(f"/shared/{'x' * 32}/").status_code == 404


def test_a_route_without_a_rule_lets_nobody_in(producer: User, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("tallpage.server.people.access.LOOKED_AT", LOOKED_AT - {"outlets"})
    answer = signed_in(producer).get("/api/outlets")
    assert (answer.status_code, answer.json()["code"]) == (403, "no_rule")


def test_a_foreign_host_and_a_foreign_page_are_refused(producer: User) -> None:
    assert signed_in(producer).get("/api/outlets", headers={"host": "evil.example"}).status_code == 400
    client = Client(enforce_csrf_checks=True)
    client.force_login(producer, backend="django.contrib.auth.backends.ModelBackend")
    token = client.get("/").cookies["csrftoken"].value
    own = {"x-csrftoken": token, "origin": "http://testserver"}
    made = client.post("/api/outlets", {"name": "One"}, content_type="application/json", headers=own)
    assert made.status_code == 201
    for headers in ({**own, "origin": "http://evil.example"}, {"origin": "http://testserver"}):
        answer = client.post(
            "/api/outlets", {"name": "Two"}, content_type="application/json", headers=headers
        )
        assert (answer.status_code, answer.json()["code"]) == (403, "csrf")
