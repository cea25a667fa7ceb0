import io
import itertools
import zipfile
from collections.abc import Callable

import numpy as np
import pytest

from tallpage.server.jobs.queue import Signals
from tallpage.server.outlets.making import prepare
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture
from tests.pictures import assert_close, decoded, photograph, text_page
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
RunQueue = Callable[[], None]
RULES = {"width_px": 160, "limit_bytes": 30_000, "formats": ["jpeg", "webp"]}


@pytest.fixture
def cut_id(api: Api, make_capture: MakeCapture) -> int:
    page = np.vstack([text_page(320, 900), photograph(320, 300), text_page(320, 800)])
    return int(api.get(f"/captures/{make_capture(page).pk}")["cuts"][0]["id"])


def _made(api: Api, run_queue: RunQueue, cut_id: int, **rules: object) -> dict:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": {**RULES, **rules}}, status=202)
    run_queue()
    return api.get(f"/cuts/{cut_id}/outputs")[-1]


def _in_leaves(api: Api, run_queue: RunQueue, cut_id: int, count: int, **rules: object) -> dict:
    row = _made(api, run_queue, cut_id, **rules)
    api.send("POST", f"/outputs/{row['id']}/leaves", {"leaf_count": count}, status=202)
    run_queue()
    return api.get(f"/cuts/{cut_id}/outputs")[-1]


def _slot_row(api: Api, run_queue: RunQueue, cut_id: int, greatest_px: int, **more: object) -> dict:
    outlet = api.send("POST", "/outlets", {"name": "Quayside listings"}, status=201)
    slot = {**RULES, "name": "Listing", "greatest_height_px": greatest_px, **more}
    slot_id = api.send("POST", f"/outlets/{outlet['id']}/slots", slot, status=201)["id"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    return api.get(f"/cuts/{cut_id}/outputs")[-1]


def test_a_cut_too_high_for_its_slot_is_divided_and_saved_as_a_zip(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    row = _slot_row(api, run_queue, cut_id, 400)
    leaves = row["leaves"]
    assert 3 <= len(leaves) <= 4
    assert row["met"]
    assert next(leaf["top_px"] for leaf in leaves) == 0
    for upper, lower in itertools.pairwise(leaves):
        assert upper["top_px"] + upper["page_height_px"] == lower["top_px"]
    assert leaves[-1]["top_px"] + leaves[-1]["page_height_px"] == 2_000
    saved = api.get(f"/outputs/{row['id']}/file")
    assert saved["Content-Disposition"].endswith('.zip"')
    with zipfile.ZipFile(io.BytesIO(saved.content)) as archive:
        names = archive.namelist()
        for number, name in enumerate(names, start=1):
            assert f"-{number}-of-{len(leaves)}-" in name
        for name, leaf in zip(names, leaves, strict=True):
            data = archive.read(name)
            assert len(data) == leaf["bytes"] <= 30_000
            assert decoded(data).shape == (leaf["height_px"], 160, 3)
            assert leaf["height_px"] <= 400
    one = api.get(f"/outputs/{row['id']}/leaves/2/file")
    assert len(one.content) == leaves[1]["bytes"]
    assert api.refused("GET", f"/outputs/{row['id']}/leaves/9/file")["status"] == 404


@pytest.mark.long
def test_leaves_are_asked_for_by_number_or_set_by_hand_and_taken_back(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    row = _in_leaves(api, run_queue, cut_id, 3)
    assert len(row["leaves"]) == 3
    api.send("POST", f"/outputs/{row['id']}/leaves", {"breaks": [1_500, 400]}, status=202)
    run_queue()
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert [leaf["top_px"] for leaf in row["leaves"]] == [0, 400, 1_500]
    assert row["breaks"] == [400, 1_500]
    before = Output.objects.get().paths
    api.send("POST", f"/outputs/{row['id']}/leaves", {}, status=202)
    run_queue()
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert (row["leaves"], row["breaks"], row["leaf_count"]) == ([], [], None)
    assert not any(path.exists() for path in before)


@pytest.mark.long
def test_breaks_of_another_frame_go_when_a_file_is_fitted_again(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    row = _made(api, run_queue, cut_id)
    api.send("POST", f"/outputs/{row['id']}/leaves", {"breaks": [1_500]}, status=202)
    frame = {"x_px": 0, "y_px": 0, "width_px": 320, "height_px": 900}
    api.send("PATCH", f"/cuts/{cut_id}", {"version": 1, "document": {"frame": frame}})
    api.send("POST", f"/outputs/{row['id']}/fit", {"choice": None}, status=202)
    run_queue()
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert (row["job"]["state"], row["leaves"], row["breaks"]) == ("done", [], [])


@pytest.mark.long
def test_leaves_overlap_and_are_numbered_where_the_slot_says_so(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    row = _slot_row(api, run_queue, cut_id, 400, overlap_px=20, numbered=True)
    leaves = row["leaves"]
    for upper, lower in itertools.pairwise(leaves):
        # 20 px of the file, which is half as wide as the page.
        assert upper["top_px"] + upper["page_height_px"] - lower["top_px"] == 40
    assert leaves[-1]["top_px"] + leaves[-1]["page_height_px"] == 2_000
    for number, leaf in enumerate(leaves, start=1):
        assert leaf["height_px"] <= 400
        file = decoded(api.get(f"/outputs/{row['id']}/leaves/{number}/file").content)
        line, above = file[-28:], round(leaf["page_height_px"] / 2)
        assert abs(file.shape[0] - above - 28) <= 1
        assert line[:, :60].min() > 240
        assert line[:, 100:].min() < 120
    original = decoded(api.get(f"/outputs/{row['id']}/original/0").content)
    result = decoded(api.get(f"/outputs/{row['id']}/result/0").content)
    assert_close(original, result, mean=12)


@pytest.mark.long
def test_fewer_leaves_than_a_slot_allows_are_not_made(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    row = _slot_row(api, run_queue, cut_id, 400)
    api.send("POST", f"/outputs/{row['id']}/leaves", {"leaf_count": 1}, status=202)
    run_queue()
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert len(row["leaves"]) >= 3
    assert all(leaf["height_px"] <= 400 for leaf in row["leaves"])


@pytest.mark.parametrize("body", [{"breaks": [0]}, {"breaks": [5_000]}, {"breaks": [300, 301]}])
def test_breaks_that_cannot_be_made_are_refused(
    api: Api, run_queue: RunQueue, cut_id: int, body: dict
) -> None:
    row = _made(api, run_queue, cut_id)
    assert api.refused("POST", f"/outputs/{row['id']}/leaves", body)["code"] == "breaks_impossible"


@pytest.mark.long
def test_leaves_are_compared_as_one_page(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    row = _in_leaves(api, run_queue, cut_id, 3, limit_bytes=90_000)
    assert row["made_height_px"] == sum(leaf["height_px"] for leaf in row["leaves"])
    original, result = (
        decoded(api.get(f"/outputs/{row['id']}/{side}/0").content) for side in ("original", "result")
    )
    assert original.shape == result.shape == (min(1_024, row["made_height_px"]), 160, 3)
    assert_close(result, original, mean=8)


def test_a_changed_frame_makes_the_files_anew_once(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    row = _made(api, run_queue, cut_id)
    assert api.send("POST", f"/cuts/{cut_id}/outputs/fit", status=202) == []
    frame = {"x_px": 0, "y_px": 0, "width_px": 320, "height_px": 500}
    api.send("PATCH", f"/cuts/{cut_id}", {"version": 1, "document": {"frame": frame}})
    again = api.send("POST", f"/cuts/{cut_id}/outputs/fit", status=202)
    assert [one["id"] for one in again] == [row["id"]]
    assert api.send("POST", f"/cuts/{cut_id}/outputs/fit", status=202) == []  # on its way already
    run_queue()
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert (row["stale"], row["made_height_px"]) == (False, 250)


@pytest.mark.long
def test_the_worst_place_is_shown_in_every_format(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    row = _made(api, run_queue, cut_id, limit_bytes=20_000)
    assert row["why"]
    assert sum(band["bytes"] for band in row["weights"]) == pytest.approx(row["bytes"], rel=0.05)
    assert row["weights"][0]["top_px"] == 0
    assert row["weights"][-1]["top_px"] + row["weights"][-1]["height_px"] == pytest.approx(2_000, abs=1)
    worst = row["worst"][0]
    for name in ["original", *map(str, range(len(row["candidates"])))]:
        piece = decoded(api.get(f"/outputs/{row['id']}/swatches/{name}").content)
        assert piece.shape == (worst["height_px"], worst["width_px"], 3)
    assert api.refused("GET", f"/outputs/{row['id']}/swatches/7")["status"] == 404


def test_a_first_file_is_there_before_the_best_and_gives_way_to_it(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": RULES}, status=202)
    job = Output.objects.get().job
    work = prepare(job)
    signals = Signals()
    best = work.run(signals)
    early = signals.take_early()
    assert early is not None
    work.commit_early(early[0])
    (early,) = api.get(f"/cuts/{cut_id}/outputs")
    assert early["job"]["state"] == "queued"
    assert early["bytes"] <= RULES["limit_bytes"]
    first_file = Output.objects.get().paths[0]
    assert len(api.get(f"/outputs/{early['id']}/file").content) == early["bytes"]
    work.commit(best)
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert row["fidelity"] >= early["fidelity"]
    assert not first_file.exists()
    assert Output.objects.get().paths[0].exists()


def test_work_that_is_not_wanted_any_more_leaves_no_file_behind(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    row = _made(api, run_queue, cut_id)
    files = set(Output.objects.get().paths[0].parent.iterdir())
    api.send("POST", f"/outputs/{row['id']}/fit", {"choice": None}, status=202)
    late = prepare(Output.objects.get().job)
    made = late.run(Signals())
    api.send("POST", f"/outputs/{row['id']}/fit", {"choice": None}, status=202)
    late.commit(made)
    assert set(Output.objects.get().paths[0].parent.iterdir()) == files
