"""Uploads: what a place says, in our words; nothing written over; trying again where that helps."""

import socket
from pathlib import Path

import pytest

from tallpage.core.errors import HandOverError
from tallpage.core.uploads import Answer, FolderTarget, FormTarget, UploadFile, WebDavTarget, upload
from tallpage.demo.stand_ins.publishing import PASSWORD, TOKEN, USER, PublishingSite
from tests.pictures import as_png, gradient, noise

FILE = UploadFile(name="fares-320x200.png", data=as_png(gradient(320, 200)), media_type="image/png")
WIDE = UploadFile(name="wide.png", data=as_png(gradient(900, 20)), media_type="image/png")
HEAVY = UploadFile(name="heavy.png", data=as_png(noise(700, 200)), media_type="image/png")
ODD = UploadFile(name="fares.txt", data=b"Fares", media_type="text/plain")


def _form(site: PublishingSite, token: str = TOKEN) -> FormTarget:
    return FormTarget(address=f"http://127.0.0.1:{site.server_port}/media", token=token)


def _dav(site: PublishingSite, folder: str = "files", password: str = PASSWORD) -> WebDavTarget:
    address = f"http://127.0.0.1:{site.server_port}/{folder}"
    return WebDavTarget(address=address, user=USER, password=password)


def test_a_form_publishes_once_and_says_where(publishing: PublishingSite) -> None:
    first, second = _form(publishing).put(FILE), _form(publishing).put(FILE)
    assert first.outcome == "accepted"
    assert first.address.endswith("/media/fares-320x200.png")
    assert (second.address, first.was_there, second.was_there) == (first.address, False, True)
    assert [path.read_bytes() for path in publishing.published] == [FILE.data]


@pytest.mark.parametrize(
    ("file", "outcome", "said"),
    [
        (WIDE, "too_wide", "900 px wide"),
        (HEAVY, "too_heavy", "at most 150.0 kB"),
        (ODD, "wrong_format", "JPEG, PNG"),
    ],
)
def test_each_refusal_is_told_apart(
    publishing: PublishingSite, file: UploadFile, outcome: str, said: str
) -> None:
    answer = _form(publishing).put(file)
    assert answer.outcome == outcome
    assert said in answer.sentence
    assert answer.hint
    assert _dav(publishing).put(file).outcome == ("refused" if outcome == "too_wide" else outcome)
    assert publishing.published == []


def test_another_file_of_the_name_is_left_alone(publishing: PublishingSite, tmp_path: Path) -> None:
    other = UploadFile(name=FILE.name, data=as_png(gradient(300, 10)), media_type="image/png")
    for target in (_form(publishing), _dav(publishing), FolderTarget(folder=tmp_path / "watched")):
        assert target.put(FILE).outcome == "accepted"
        assert target.put(other).outcome == "name_taken"
        assert target.put(FILE).was_there
    assert (tmp_path / "watched" / FILE.name).read_bytes() == FILE.data


def test_a_sign_in_that_is_not_known_is_said(publishing: PublishingSite) -> None:
    assert _form(publishing, "old").put(FILE).outcome == "signed_out"
    assert _dav(publishing, password="old").put(FILE).outcome == "signed_out"
    assert _dav(publishing, folder="elsewhere").put(FILE).outcome == "refused"


def test_a_slow_and_a_dead_place_are_tried_three_times(publishing: PublishingSite, free_port: int) -> None:
    waits: list[float] = []
    dead = FormTarget(address=f"http://127.0.0.1:{free_port}/media")
    assert upload(dead, FILE, wait=waits.append).outcome == "broken_off"
    assert len(waits) == 2
    with socket.create_server(("127.0.0.1", 0)) as silent:
        slow = FormTarget(address=f"http://127.0.0.1:{silent.getsockname()[1]}/", timeout_s=0.2)
        assert upload(slow, FILE, wait=waits.append).outcome == "slow"
    publishing.mood = "busy"

    def recovers(_seconds: float) -> None:
        publishing.mood = "well"

    assert upload(_form(publishing), FILE, wait=recovers).outcome == "accepted"


def test_what_the_place_refuses_is_not_tried_again(publishing: PublishingSite) -> None:
    def never(_seconds: float) -> None:
        raise AssertionError

    assert upload(_form(publishing), WIDE, wait=never).outcome == "too_wide"


@pytest.mark.parametrize(
    "address", ["", "ftp://pier.example/", "pier.example/media", "http://a:b@pier.example/"]
)
def test_only_addresses_of_the_web_are_sent_to(address: str) -> None:
    with pytest.raises(HandOverError) as refused:
        FormTarget(address=address)
    assert refused.value.code == "upload_address"
    with pytest.raises(HandOverError):
        WebDavTarget(address=address)


def test_a_name_with_folders_stays_in_the_folder(tmp_path: Path) -> None:
    file = UploadFile(name="../../etc/passwd", data=b"x", media_type="text/plain")
    answer = FolderTarget(folder=tmp_path / "watched").put(file)
    assert answer == Answer(outcome="accepted", address=str(tmp_path / "watched" / "passwd"))
