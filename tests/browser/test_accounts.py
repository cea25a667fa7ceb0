"""A server with accounts: the way in, what a viewer may, what a producer may."""

from __future__ import annotations

import subprocess
import sys
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.browser.person import Person
from tests.browser.stack import Application, open_window, running_application
from tests.server.processes import environment

pytestmark = pytest.mark.browser

PASSWORD = "seven herrings swim"
_ACCOUNTS = f"""
from tallpage.server.people import accounts
accounts.add("isa", {PASSWORD!r}, "producer")
accounts.add("odd", {PASSWORD!r}, "viewer")
"""


@pytest.fixture(scope="module")
def guarded(photographs: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Application]:
    home = tmp_path_factory.mktemp("guarded")
    with running_application(home, photographs, prepared=_ACCOUNTS, TALLPAGE_ACCOUNTS="1") as started:
        yield started


def _sign_in(person: Person, name: str, password: str = PASSWORD) -> None:
    person.see("input[name=username]").clear()
    person.see("input[name=username]").send_keys(name)
    person.see("input[name=password]").send_keys(password)
    person.click("Sign in")


@pytest.mark.long
def test_a_viewer_looks_and_a_producer_works(guarded: Application, tmp_path: Path) -> None:
    with open_window() as window:
        person = Person(window, guarded, tmp_path)
        person.open("/outlets")
        _sign_in(person, "odd", "wrong")
        person.see_text("Name and password do not fit together.")
        _sign_in(person, "odd")
        person.see("section[aria-label='Noticeboard']")
        person.see_text("odd, viewer")
        person.type_into("[aria-label='Name of the new outlet']", "Lighthouse letter")
        person.click("Add outlet")
        person.see_text("With this account you can look, search and save files.")
        person.click("Sign odd out")
        _sign_in(person, "isa")
        person.see_text("isa")
        person.open("/outlets")
        person.type_into("[aria-label='Name of the new outlet']", "Lighthouse letter")
        person.click("Add outlet")
        person.see("section[aria-label='Lighthouse letter']")
        window.delete_all_cookies()
        person.click("Copy Lighthouse letter")
        person.until(
            lambda driver: "/account/sign-in?next=%2Foutlets" in driver.current_url, what="the way in"
        )
        complaints = [row["message"] for row in window.get_log("browser")]
        assert not [text for text in complaints if "Content Security Policy" in text]
        _sign_in(person, "isa")
        person.see("section[aria-label='Lighthouse letter']")


def _night(guarded: Application, folder: Path, *pages: str, scope: str) -> subprocess.CompletedProcess[str]:
    """The example of the API, run with a token of its own."""
    told = environment(guarded.home)
    add = [sys.executable, "-m", "tallpage", "token", "add", "isa", "--scope", scope]
    token = subprocess.run(add, env=told, capture_output=True, text=True, check=True).stdout
    run = [sys.executable, "docs/api-examples/night.py", guarded.address, "Noticeboard", str(folder), *pages]
    return subprocess.run(run, input=token, capture_output=True, text=True, check=False)


@pytest.mark.long
def test_the_example_of_the_api_does_a_nights_work_with_a_token(guarded: Application, tmp_path: Path) -> None:
    folder, pages = tmp_path / "morning", [f"{guarded.site}{path}" for path in ("/offices", "/fleet")]
    refused = _night(guarded, folder, *pages, scope="read")
    assert refused.returncode == 1
    assert "This token is for reading." in refused.stderr
    assert not folder.exists()
    done = _night(guarded, folder, *pages, "http://127.0.0.1:9/", scope="all")
    assert done.returncode == 1, done.stderr
    assert done.stderr.startswith("http://127.0.0.1:9/: ")
    *told, saved = done.stdout.splitlines()
    assert saved == f"Saved: {folder / 'files.zip'}"
    with zipfile.ZipFile(folder / "files.zip") as archive:
        names = [line.partition(":")[0] for line in told]
        assert sorted(archive.namelist()) == sorted([*names, "manifest.json", "manifest.csv"])
