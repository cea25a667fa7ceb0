"""Keys that somebody has chosen: kept for each person, checked, gone back to the usual."""

import pytest

from tests.server.conftest import Api


def test_keys_are_kept_and_given_back(api: Api) -> None:
    assert api.get("/me/keys") == {"keys": {}}
    chosen = {"keys": {"drawArrow": ["shift+a"], "fold": []}}
    assert api.send("POST", "/me/keys", chosen) == chosen
    assert api.get("/me/keys") == chosen
    api.send("POST", "/me/keys", {"keys": {}})
    assert api.get("/me/keys") == {"keys": {}}


@pytest.mark.parametrize(
    "keys",
    [
        {"fold": "f"},
        {"fold": ["x" * 41]},
        {"fold": ["f"] * 9},
        {"x" * 41: ["f"]},
        {str(number): ["f"] for number in range(301)},
    ],
)
def test_what_are_no_keys_is_refused(api: Api, keys: object) -> None:
    assert api.refused("POST", "/me/keys", {"keys": keys})["status"] == 422
