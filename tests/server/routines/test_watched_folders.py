"""Folders in which pictures are waited for: taken in once, whatever happens meanwhile."""

import os
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from tallpage.server.routines import watching
from tallpage.server.routines.models import RunItem
from tallpage.server.routines.watching import folder_of, look_into_folders
from tallpage.server.shelf.arriving.importing import order_received
from tallpage.server.shelf.models import Capture
from tests.pictures import as_png, photograph
from tests.server.conftest import Api
from tests.server.routines.conftest import SLOT

Keep = Callable[..., dict[str, Any]]


@pytest.fixture(autouse=True)
def home(settings: Any, tmp_path: Path) -> Path:
    """A data folder of its own."""
    settings.HOME = tmp_path / "home"
    settings.HOME.mkdir()
    return tmp_path / "home"


@pytest.fixture
def watched(api: Api, keep: Keep) -> Path:
    """A folder that is watched."""
    routine = keep(SLOT)
    told = api.send(
        "POST", "/watched-folders", {"name": "From the desk", "routine_id": routine["id"]}, status=201
    )
    folder = Path(told["path"])
    assert folder == folder_of("From the desk")
    return folder


def _put(folder: Path, name: str, data: bytes, *, age_s: float = 60) -> Path:
    path = folder / name
    path.write_bytes(data)
    os.utime(path, (time.time() - age_s, time.time() - age_s))
    return path


def test_pictures_are_taken_in_once_and_run_over(
    api: Api, watched: Path, carry_on: Callable[..., None]
) -> None:
    for number in range(2):
        _put(watched, f"boat {number}.png", as_png(photograph(150, 100, seed=number)))
    assert look_into_folders()
    assert not look_into_folders()
    carry_on(8)
    run = api.get("/runs")[0]
    assert (run["watched_folder"], run["counts"]["done"], run["finished"]) == ("From the desk", 2, True)
    assert {path.name for path in (watched / "taken").iterdir()} == {"boat 0.png", "boat 1.png"}
    _put(watched, "boat 0.png", as_png(photograph(150, 100, seed=7)))
    look_into_folders()
    assert {path.name for path in (watched / "taken").iterdir()} == {
        "boat 0.png",
        "boat 1.png",
        "boat 0 2.png",
    }
    assert Capture.objects.count() == 3


def test_what_is_still_written_hidden_a_folder_or_a_link_is_left_alone(watched: Path, tmp_path: Path) -> None:
    _put(watched, "growing.png", as_png(photograph(50, 50)), age_s=0)
    _put(watched, ".hidden.png", as_png(photograph(50, 50)))
    (watched / "more").mkdir()
    secret = _put(tmp_path, "secret.png", as_png(photograph(50, 50)))
    (watched / "link.png").symlink_to(secret)
    assert not look_into_folders()
    assert Capture.objects.count() == 0


def test_what_is_no_picture_is_laid_aside_and_told(api: Api, watched: Path) -> None:
    _put(watched, "notes.txt", b"Boats go daily.")
    _put(watched, "empty.png", b"")
    look_into_folders()
    assert {path.name for path in (watched / "refused").iterdir()} == {"notes.txt", "empty.png"}
    assert "notes.txt: " in api.get("/watched-folders")[0]["problem"] or "empty.png: " in str(
        api.get("/watched-folders")
    )
    assert Capture.objects.count() == 0


@pytest.mark.parametrize("was_taken_in", [True, False])
def test_a_kill_while_a_picture_comes_in_neither_loses_nor_doubles_it(
    watched: Path, monkeypatch: pytest.MonkeyPatch, was_taken_in: bool
) -> None:
    picture = _put(watched, "boat.png", as_png(photograph(50, 50)))

    class Killed(BaseException):
        pass

    def killed(*_: object) -> None:
        raise Killed

    where = "_move" if was_taken_in else "order_received"
    with monkeypatch.context() as patched:
        patched.setattr(watching, where, killed)
        with pytest.raises(Killed):
            look_into_folders()
    assert not picture.exists()
    assert Capture.objects.count() == int(was_taken_in)
    assert not look_into_folders(), "another process may still be at it"
    monkeypatch.setattr(watching, "_LONGEST_S", -1.0)
    look_into_folders()
    assert Capture.objects.count() == 1
    assert [path.name for path in (watched / "taken").iterdir()] == ["boat.png"]
    assert RunItem.objects.count() == 1


@pytest.mark.parametrize(
    ("raw", "shown"),
    [(b"bad\xff\xfename.png", "bad��name.png"), (("大" * 80 + ".png").encode(), "大" * 80 + ".png")],
    ids=["no UTF-8", "long"],
)
def test_whatever_a_picture_is_called_it_is_taken_in(watched: Path, raw: bytes, shown: str) -> None:
    _put(watched, os.fsdecode(raw), as_png(photograph(50, 50)))
    assert look_into_folders()
    assert not look_into_folders()
    assert [path.name for path in (watched / "taken").iterdir()] == [shown]
    assert RunItem.objects.get().name == shown


def test_what_an_earlier_version_could_not_take_in_is_taken_in(
    watched: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(watching, "_LONGEST_S", -1.0)
    _put(watched, os.fsdecode(b".arriving-0a-bad\xff.png"), as_png(photograph(50, 50)))
    look_into_folders()
    assert [path.name for path in (watched / "taken").iterdir()] == ["bad�.png"]


def test_a_newer_picture_of_the_same_name_is_not_lost_after_a_kill(
    watched: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(watching, "_LONGEST_S", -1.0)
    _put(watched, ".arriving-0a-boat.png", as_png(photograph(50, 50, seed=1)))
    _put(watched, "boat.png", as_png(photograph(50, 50, seed=2)))
    look_into_folders()
    assert {path.name for path in (watched / "taken").iterdir()} == {"boat.png", "boat 2.png"}


def test_one_picture_that_breaks_the_work_does_not_keep_others_from_coming_in(
    api: Api, watched: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def order(path: Path, name: str) -> Capture:
        if name == "a.png":
            raise ZeroDivisionError
        return order_received(path, name)

    monkeypatch.setattr(watching, "order_received", order)
    for name in ("a.png", "b.png"):
        _put(watched, name, as_png(photograph(50, 50)))
    look_into_folders()
    assert [path.name for path in (watched / "refused").iterdir()] == ["a.png"]
    assert [path.name for path in (watched / "taken").iterdir()] == ["b.png"]
    assert "a.png: Something went wrong" in api.get("/watched-folders")[0]["problem"]


def test_a_picture_that_may_not_be_read_does_not_keep_others_from_coming_in(
    watched: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for name in ("a.png", "b.png"):
        _put(watched, name, as_png(photograph(50, 50)))
    monkeypatch.setattr(os, "access", lambda path, _mode: not Path(path).name.endswith("a.png"))
    look_into_folders()
    assert [path.name for path in (watched / "refused").iterdir()] == ["a.png"]
    assert [path.name for path in (watched / "taken").iterdir()] == ["b.png"]


def test_a_folder_that_is_left_alone_stays_and_is_not_looked_into(api: Api, watched: Path) -> None:
    api.send("DELETE", f"/watched-folders/{api.get('/watched-folders')[0]['id']}", status=204)
    _put(watched, "boat.png", as_png(photograph(50, 50)))
    assert not look_into_folders()
    assert (watched / "boat.png").exists()


def test_a_loop_and_names_that_cannot_be_are_refused(
    api: Api, keep: Keep, watched: Path, settings: Any, home: Path
) -> None:
    routine = keep(SLOT)

    def refusal(name: str) -> str:
        return str(
            api.refused("POST", "/watched-folders", {"name": name, "routine_id": routine["id"]})["title"]
        )

    assert "watched already" in refusal("from the DESK")
    for name in ("../elsewhere", "a/b", "CON", " . ", "x" * 80):
        assert "cannot be the name" in refusal(name)
    for out in (home / "watched", home / "watched" / "out", home):
        settings.OUT = out
        assert "into a watched folder again" in refusal("Other")
