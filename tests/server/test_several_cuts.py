"""Several cuts of one capture: duplicated, called, put in order, deleted and put back."""

from collections.abc import Callable
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone

from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.purge import CUTS_KEPT_FOR, clear_due
from tests.pictures import photograph
from tests.server.conftest import Api


@pytest.fixture
def capture(make_capture: Callable[..., Capture]) -> Capture:
    return make_capture(photograph(200, 300))


def _cuts(api: Api, capture: Capture) -> list[dict[str, Any]]:
    return list(api.get(f"/captures/{capture.pk}")["cuts"])


def _names(api: Api, capture: Capture) -> list[str]:
    return [row["name"] for row in _cuts(api, capture)]


def test_a_cut_is_duplicated_with_what_it_shows(api: Api, capture: Capture) -> None:
    first = _cuts(api, capture)[0]
    frame = {"x_px": 5, "y_px": 6, "width_px": 70, "height_px": 80, "folds": []}
    document = {"version": 1, "frame": frame, "tone": {"grey": True}}
    api.send("PATCH", f"/cuts/{first['id']}", {"version": first["version"], "document": document})
    made = api.send("POST", f"/cuts/{first['id']}/duplicate", status=201)
    assert made["name"] == "Cut 1 again"
    assert made["document"]["frame"] == frame
    assert made["document"]["tone"] == {"grey": True}
    assert api.send("POST", f"/cuts/{first['id']}/duplicate", status=201)["name"] == "Cut 2"
    assert _names(api, capture) == ["Cut 1", "Cut 1 again", "Cut 2"]


def test_a_name_does_not_stand_in_the_way_of_what_is_drawn_meanwhile(api: Api, capture: Capture) -> None:
    first = _cuts(api, capture)[0]
    assert api.send("PUT", f"/cuts/{first['id']}/name", {"name": " Header "})["name"] == "Header"
    change = {"version": first["version"], "document": first["document"]}
    assert api.send("PATCH", f"/cuts/{first['id']}", change)["name"] == "Header"


def test_cuts_keep_the_order_that_they_are_put_in(api: Api, capture: Capture) -> None:
    for _ in range(2):
        api.send("POST", f"/captures/{capture.pk}/cuts", status=201)
    ids = [row["id"] for row in _cuts(api, capture)]
    api.send("PUT", f"/captures/{capture.pk}/cuts/order", {"cut_ids": [ids[2], ids[0]]}, status=204)
    assert [row["id"] for row in _cuts(api, capture)] == [ids[2], ids[0], ids[1]]
    for wrong in ([ids[0], ids[0]], [10**9]):
        said = api.refused("PUT", f"/captures/{capture.pk}/cuts/order", {"cut_ids": wrong})
        assert "no order" in said["title"]


def test_a_deleted_cut_comes_back_where_it_was_until_it_is_cleared(api: Api, capture: Capture) -> None:
    second = api.send("POST", f"/captures/{capture.pk}/cuts", status=201)["id"]
    api.send("POST", f"/captures/{capture.pk}/cuts", status=201)
    api.send("DELETE", f"/cuts/{second}", status=204)
    assert _names(api, capture) == ["Cut 1", "Cut 3"]
    assert api.client.get(f"/api/cuts/{second}").status_code == 404
    api.send("POST", f"/cuts/{second}/restore")
    assert _names(api, capture) == ["Cut 1", "Cut 2", "Cut 3"]
    api.send("DELETE", f"/cuts/{second}", status=204)
    clear_due()
    assert Cut.with_deleted.filter(pk=second).exists()
    Cut.with_deleted.filter(pk=second).update(
        deleted_at=timezone.now() - CUTS_KEPT_FOR - timedelta(minutes=1)
    )
    clear_due()
    assert not Cut.with_deleted.filter(pk=second).exists()


def test_a_page_keeps_its_last_cut(api: Api, capture: Capture) -> None:
    only = _cuts(api, capture)[0]["id"]
    assert "at least one cut" in api.refused("DELETE", f"/cuts/{only}")["title"]
