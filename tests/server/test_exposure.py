"""What a server does that others can reach, and how its keys are kept."""

import os
import subprocess
import sys
from pathlib import Path

import pytest
from django.test import Client

from tallpage.core.errors import StorageError
from tallpage.server.exposure import allows_private, refusal_to_start
from tallpage.server.home import home_folder, own_key


@pytest.mark.parametrize(
    ("told", "loopback", "other_hosts", "allowed"),
    [
        ("", True, [], True),
        ("", True, ["pictures.example"], False),  # a proxy on this machine passes strangers on
        ("", False, [], False),
        ("0", True, [], False),
        ("1", True, ["pictures.example"], True),
        ("1", False, [], True),
        ("yes", False, [], False),
    ],
)
def test_private_pages_are_taken_where_only_this_machine_asks_for_them(
    told: str, loopback: bool, other_hosts: list[str], allowed: bool
) -> None:
    assert allows_private(told, loopback=loopback, other_hosts=other_hosts) == allowed


@pytest.mark.parametrize(
    ("needed", "has_account", "starts"), [(False, False, True), (True, False, False), (True, True, True)]
)
def test_beyond_loopback_it_starts_only_with_an_account(
    needed: bool, has_account: bool, starts: bool
) -> None:
    refused = refusal_to_start("0.0.0.0", accounts_needed=needed, has_account=has_account)  # noqa: S104
    assert (refused == "") == starts
    if not starts:
        assert "tallpage user add NAME" in refused


@pytest.mark.parametrize(
    "told",
    [
        pytest.param({"TALLPAGE_HOST": "0.0.0.0"}, marks=pytest.mark.long),  # noqa: S104
        pytest.param({"TALLPAGE_ALLOWED_HOSTS": "pictures.example"}, marks=pytest.mark.long),
        {"TALLPAGE_HOST": "0.0.0.0", "TALLPAGE_OPEN_TO_NETWORK": "1"},  # noqa: S104 - what opened it once
    ],
)
def test_serve_refuses_in_words_and_starts_nothing(tmp_path: Path, told: dict[str, str]) -> None:
    environment = {**os.environ, "TALLPAGE_HOME": str(tmp_path), **told}
    environment["DJANGO_SETTINGS_MODULE"] = "tallpage.server.settings"
    run = subprocess.run(
        [sys.executable, "-m", "tallpage", "serve"],
        env=environment,
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
    )
    assert run.returncode == 1
    assert "there is no account to sign in with" in run.stderr
    assert not (tmp_path / "run").exists()


@pytest.mark.parametrize("scheme", ["https", "http", ""])
def test_over_tls_cookies_only_go_back_over_tls(db: None, scheme: str) -> None:
    client = Client(enforce_csrf_checks=True)
    told = {"host": "testserver", "x-forwarded-proto": scheme, "origin": f"{scheme or 'http'}://testserver"}
    page = client.get("/shelf", headers=told)
    assert bool(page.cookies["csrftoken"]["secure"]) == (scheme == "https")
    token = {"x-csrftoken": page.cookies["csrftoken"].value}
    answer = client.post(
        "/api/outlets", {"name": "Gazette"}, content_type="application/json", headers={**told, **token}
    )
    assert answer.status_code == 201, "a proxy that speaks TLS is in front of it"


def test_pictures_are_not_embedded_by_other_sites(db: None) -> None:
    assert Client().get("/api/outlets")["Cross-Origin-Resource-Policy"] == "same-origin"


def test_an_empty_key_is_made_anew_and_a_whole_one_stays(tmp_path: Path) -> None:
    (tmp_path / "secret.key").touch()
    made = own_key(tmp_path, "secret.key", lambda: b"first")
    assert made == b"first"
    assert own_key(tmp_path, "secret.key", lambda: b"second") == b"first"
    assert (tmp_path / "secret.key").stat().st_mode & 0o777 == 0o600
    assert [path.name for path in tmp_path.iterdir()] == ["secret.key"]


def test_a_disk_that_is_full_while_a_key_is_written_leaves_none(tmp_path: Path) -> None:
    def full() -> bytes:
        raise OSError(28, "No space left on device")

    with pytest.raises(StorageError, match="full"):
        own_key(tmp_path, "secret.key", full)
    assert list(tmp_path.iterdir()) == []


def test_a_home_that_was_there_before_is_closed_to_others(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    tmp_path.chmod(0o755)
    monkeypatch.setenv("TALLPAGE_HOME", str(tmp_path))
    assert home_folder().stat().st_mode & 0o777 == 0o700
