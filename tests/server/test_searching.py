from collections.abc import Callable

import pytest

from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.sorting.searching import index_capture, saying
from tests.server.conftest import Api


@pytest.fixture
def notice(api: Api, make_capture: Callable[..., Capture]) -> Capture:
    capture = make_capture(title="Notices")
    index_capture(capture, "Fog at the Narrows.\nA brown suitcase with a cello inside was found at Ailsay.")
    return capture


@pytest.mark.parametrize("words", ["cello", "CELLO suitcase", "suitc", "Notices", "skerrin.example", "fóg"])
def test_a_capture_is_found_by_any_of_its_words(notice: Capture, words: str) -> None:
    assert list(Capture.objects.filter(pk__in=saying(words))) == [notice]


@pytest.mark.parametrize("words", ["zebra", "cello zebra", "ello", "", " ", '"', "* OR (", "text:", "--"])
def test_other_words_and_odd_signs_find_nothing_and_break_nothing(notice: Capture, words: str) -> None:
    assert not Capture.objects.filter(pk__in=saying(words)).exists()


def test_the_passage_that_holds_the_words_is_given(notice: Capture, api: Api) -> None:
    found = api.get("/captures?words=cello")
    assert found["total"] == 1
    assert "with a cello inside" in found["captures"][0]["passage"]


def test_a_renamed_capture_is_found_by_its_new_name_and_a_deleted_one_not_at_all(
    notice: Capture, api: Api
) -> None:
    api.send("PATCH", f"/captures/{notice.pk}", {"name": "Lost property"})
    assert api.get("/captures?words=property")["total"] == 1
    api.send("DELETE", f"/captures/{notice.pk}", status=204)
    assert api.get("/captures?words=property")["total"] == 0


def test_what_a_page_says_is_kept_when_it_is_taken(
    api: Api, run_queue: Callable[[], None], site: str
) -> None:
    screen = {"width_px": 390, "height_px": 844, "scale": 2}
    capture_id = api.send(
        "POST", "/captures", {"address": f"{site}/timetable", "screen": screen}, status=202
    )["id"]
    run_queue()
    assert [row["id"] for row in api.get("/captures?words=winter%20timetable")["captures"]] == [capture_id]
    capture = api.get(f"/captures/{capture_id}")
    blocks = api.get(f"/captures/{capture_id}/map")
    assert {"heading", "paragraph", "table", "section"} <= {row["role"] for row in blocks}
    for row in blocks:
        assert 0 <= row["x_px"] < row["x_px"] + row["width_px"] <= capture["width_px"]
        assert 0 <= row["y_px"] < row["y_px"] + row["height_px"] <= capture["height_px"]
