"""What keeps strangers out and people informed."""

import pytest
from django.conf import settings
from django.core.management import call_command
from django.test import Client

from tests.server.conftest import Api


def test_a_change_without_our_pages_token_is_refused(db: None) -> None:
    client = Client(enforce_csrf_checks=True)
    answer = client.post("/api/captures", "{}", content_type="application/json")
    assert answer.status_code == 403
    assert answer.json()["code"] == "csrf"


def test_a_foreign_host_name_is_refused(db: None) -> None:
    assert Client(headers={"host": "evil.example"}).get("/api/outlets").status_code == 400


def test_the_interface_may_only_run_what_ships_with_it(db: None) -> None:
    answer = Client().get("/shelf")
    policy = answer["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "script-src 'self'" in policy
    assert "unsafe" not in policy
    assert answer["X-Frame-Options"] == "DENY"
    assert answer["X-Content-Type-Options"] == "nosniff"


@pytest.mark.parametrize("path", ["/captures/999", "/cuts/999", "/nonsense/"])
def test_what_is_not_there_is_said_so(api: Api, path: str) -> None:
    assert api.client.get(f"/api{path}").status_code == 404


def test_a_body_that_is_not_json_is_refused_in_words(api: Api) -> None:
    answer = api.client.post("/api/captures", "{oops", content_type="application/json")
    assert 400 <= answer.status_code < 500
    assert answer["Content-Type"] == "application/problem+json"


HUGE = 10**30
STEP = {"kind": "pause", "text": "1"}
FRAME = {"x_px": 0, "y_px": 0, "width_px": 10, "height_px": 10}


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("GET", f"/captures/{HUGE}", None),
        ("POST", "/captures", {"address": "a.example", "settings": {"max_height_px": HUGE}}),
        ("POST", "/captures", {"address": "a.example", "settings": {"from_px": -1}}),
        ("POST", "/captures", {"address": "http://a.example/\ud800"}),
        ("POST", "/captures", {"address": "a.example", "settings": {"from_px": HUGE}}),
        ("POST", "/captures", {"address": "a.example", "screen": {"width_px": HUGE}}),
        ("PATCH", f"/cuts/{HUGE}", {"version": 1, "name": "x"}),
        ("POST", "/outlets", {"name": "\ud800"}),
        ("GET", f"/sweeps/{HUGE}/rows", None),
        ("GET", f"/sweeps/1/rows?offset={HUGE}", None),
        ("POST", "/captures", {"address": "a.example", "settings": {"leave_out": ["#a"] * 100_000}}),
        ("POST", "/captures", {"address": "a.example", "settings": {"leave_out": ["#a"] * 500}}),
        ("POST", "/captures", {"address": "a.example", "settings": {"steps": [STEP] * 100_000}}),
        ("POST", "/captures", {"address": "a.example", "settings": {"steps": [STEP] * 100}}),
    ],
)
def test_absurd_numbers_and_texts_are_refused_in_words(
    api: Api, method: str, path: str, body: object
) -> None:
    answer = api._sent(method, path, body)
    assert 400 <= answer.status_code < 500, answer.content
    assert answer["Content-Type"] == "application/problem+json"


@pytest.mark.parametrize("query", ["limit=-1&before=-5", f"limit={HUGE}", f"before={HUGE}", "before=-1"])
def test_any_stretch_of_the_shelf_can_be_asked_for(api: Api, query: str) -> None:
    assert api.client.get(f"/api/captures?{query}").status_code < 500


def test_a_request_that_is_too_large_is_refused_in_words(api: Api) -> None:
    problem = api.refused("POST", "/outlets", {"name": "x" * (settings.DATA_UPLOAD_MAX_MEMORY_SIZE + 1)})
    assert (problem["status"], problem["code"]) == (413, "too_large")


FORMS = ["/captures", "/pictures", "/archives", "/settings/file", "/routines/file", "/outlets/file",
         "/sign-ins/state", "/lists/file"]  # fmt: skip
_PART = '--x\r\nContent-Disposition: form-data; name="{}"{}\r\n\r\nx\r\n'
_FILES = "".join(_PART.format("picture", f'; filename="{number}.png"') for number in range(300))
_FIELDS = "".join(_PART.format(number, "") for number in range(2_000))
_LONG_NAME = _PART.format("picture", f'; filename="{"n" * 5_000}.png"')


@pytest.mark.parametrize("path", FORMS)
@pytest.mark.parametrize(
    ("edge", "body"),
    [("", "x"), ("; boundary=" + "e" * 300, "x"), ("; boundary=x", _FIELDS), ("; boundary=x", _FILES),
     ("; boundary=x", _LONG_NAME)],
    ids=["no edge", "long edge", "many fields", "many files", "long name"],
)  # fmt: skip
def test_a_form_that_is_malformed_is_refused_in_words(db: None, path: str, edge: str, body: str) -> None:
    client = Client(enforce_csrf_checks=True)
    token = client.get("/shelf").cookies["csrftoken"].value
    end = "--x--\r\n" if edge.endswith("=x") else ""
    answer = client.generic(
        "POST",
        f"/api{path}",
        (body + end).encode(),
        content_type=f"multipart/form-data{edge}",
        headers={"x-csrftoken": token},
    )
    assert 400 <= answer.status_code < 500, answer.content
    assert answer["Content-Type"] == "application/problem+json"


def test_models_and_migrations_agree(db: None) -> None:
    call_command("makemigrations", check=True, dry_run=True, verbosity=0)


def test_the_set_up_has_no_complaints() -> None:
    call_command("check", fail_level="WARNING")
