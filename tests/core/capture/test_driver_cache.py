"""Where the driver's compiled scripts are kept."""

import os
from pathlib import Path

import pytest

from tallpage.core.capture.browser._driver_cache import keep_compiled_driver

VARIABLE = "NODE_COMPILE_CACHE"


@pytest.fixture
def cache(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv(VARIABLE, "")  # whatever is set below goes again afterwards
    monkeypatch.delenv(VARIABLE)
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))
    return tmp_path / "tallpage" / "driver"


def test_it_is_a_folder_of_the_users_own(cache: Path) -> None:
    keep_compiled_driver()
    assert os.environ[VARIABLE] == str(cache)
    assert cache.stat().st_mode & 0o077 == 0


def test_what_somebody_else_could_put_scripts_into_is_not_used(cache: Path) -> None:
    cache.mkdir(parents=True)
    cache.chmod(0o777)
    keep_compiled_driver()
    assert VARIABLE not in os.environ


def test_without_a_folder_drivers_start_all_the_same(cache: Path) -> None:
    cache.parent.write_text("in the way")
    keep_compiled_driver()
    assert VARIABLE not in os.environ


def test_who_has_said_where_is_not_overruled(cache: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv(VARIABLE, "/somewhere")
    keep_compiled_driver()
    assert os.environ[VARIABLE] == "/somewhere"
    assert not cache.exists()
