"""Every field of every request, with what nobody means: answered in words, never with a 500.

What there is to ask comes from the API's own description, so that a new field is tried as well.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tallpage.server.api import api as described
from tallpage.server.shelf.models import Capture
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
DESCRIPTION: dict[str, Any] = described.get_openapi_schema()
FEW: tuple[int | str, ...] = (10**30, -1, "\ud800", "\0")
ALL = (*FEW, -(10**30), 2**63, 0, 2**31, "", " ", "x" * 100_000, "../../etc/passwd", "<b>")
NO_BODIES: tuple[Any, ...] = (None, [], "x", 1, {"x": 1})
_USUAL = {"integer": 1, "number": 1.0, "string": "x", "boolean": True}


def _resolved(schema: dict[str, Any]) -> dict[str, Any]:
    """A schema without references, and of several ways the first that is not null."""
    if "$ref" in schema:
        return _resolved(DESCRIPTION["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]])
    for ways in ("anyOf", "allOf", "oneOf"):
        if ways in schema:
            return _resolved(next(row for row in schema[ways] if row.get("type") != "null"))
    return schema


def _usual(schema: dict[str, Any]) -> Any:
    """A value that a schema allows."""
    schema = _resolved(schema)
    if "enum" in schema or "const" in schema:
        return schema.get("const", schema.get("enum", [None])[0])
    if schema.get("type") == "object":
        return {name: _usual(row) for name, row in schema.get("properties", {}).items()}
    if schema.get("type") == "array":
        return [_usual(schema["items"])] if "items" in schema else []
    return _USUAL.get(schema.get("type", ""))


def _numbers(absurd: tuple[int | str, ...]) -> Iterator[int]:
    return (value for value in absurd if isinstance(value, int))


def _spoilt(schema: dict[str, Any], absurd: tuple[int | str, ...]) -> Iterator[Any]:
    """Values for a schema with one absurd thing each."""
    schema = _resolved(schema)
    if schema.get("type") in ("integer", "number"):
        yield from _numbers(absurd)
    elif schema.get("type") == "string" and "enum" not in schema:
        yield from (value for value in absurd if isinstance(value, str))
    elif schema.get("type") == "array" and "items" in schema:
        yield from ([value] for value in _spoilt(schema["items"], absurd))
    elif schema.get("type") == "object":
        whole = _usual(schema)
        for name, row in schema.get("properties", {}).items():
            yield from ({**whole, name: value} for value in _spoilt(row, absurd))


def _operations() -> list[tuple[str, str, dict[str, Any]]]:
    return [
        (method.upper(), path, operation)
        for path, row in DESCRIPTION["paths"].items()
        for method, operation in row.items()
        # Sites and pages that are asked for would be waited for.
        if operation["operationId"] not in ("list_site", "sweep_again")
    ]


@pytest.mark.parametrize("absurd", [FEW, pytest.param(ALL, marks=pytest.mark.long)], ids=["few", "all"])
@pytest.mark.parametrize(
    ("method", "path", "operation"), _operations(), ids=lambda row: row if isinstance(row, str) else ""
)
def test_no_absurd_value_is_answered_with_an_error_of_ours(
    api: Api,
    make_capture: MakeCapture,
    method: str,
    path: str,
    operation: dict[str, Any],
    absurd: tuple[int | str, ...],
) -> None:
    make_capture()
    here = path.removeprefix("/api")
    parameters = operation.get("parameters", [])
    in_path = [row["name"] for row in parameters if row["in"] == "path"]
    usual = here
    for name in in_path:
        usual = usual.replace("{" + name + "}", "1")
    asked: list[tuple[str, Any]] = [
        (here.replace("{" + name + "}", str(number)), None) for name in in_path for number in _numbers(absurd)
    ]
    asked += [
        (f"{usual}?{row['name']}={value}", None)
        for row in parameters
        if row["in"] == "query"
        for value in _spoilt(row["schema"], absurd)
        if not (isinstance(value, str) and ("\ud800" in value or len(value) > 1_000))
    ]
    content = operation.get("requestBody", {}).get("content", {})
    if "application/json" in content:
        asked += [(usual, body) for body in _spoilt(content["application/json"]["schema"], absurd)]
        asked += [(usual, body) for body in NO_BODIES]
    for address, body in asked:
        answer = api._sent(method, address, body)
        assert answer.status_code < 500, (address, json.dumps(body)[:300], answer.content)


@pytest.mark.parametrize("column", ["-1", "-1000000", str(10**30), "x", "200"])
def test_a_column_that_is_none_is_refused_in_words(api: Api, column: str) -> None:
    form = {"list_file": SimpleUploadedFile("a.csv", b"a.example/x,b.example/y\n"), "column": column}
    answer = api.client.post("/api/lists/file", form)
    assert answer.status_code == 422
    assert answer["Content-Type"] == "application/problem+json"
