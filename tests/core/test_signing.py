"""Messages that were signed are believed for a while; what is written down of it does the same."""

from __future__ import annotations

import re
import runpy
import time
from collections.abc import Callable
from pathlib import Path

import pytest

from tallpage.core.signing import KEY_HEADER, MOST_AGE_S, SIGNATURE_HEADER, TIME_HEADER, is_ours, signature_of

_DESCRIPTION = Path(__file__).parents[2] / "docs" / "webhooks.md"
_BODY = b'{"event": "run"}'


def _headers(*, age_s: int = 0) -> dict[str, str]:
    sent_at = int(time.time()) - age_s
    signature = signature_of("harbour", sent_at_s=sent_at, key="a-key", body=_BODY)
    return {TIME_HEADER: str(sent_at), KEY_HEADER: "a-key", SIGNATURE_HEADER: f"sha256={signature}"}


def _ours(secret: str, headers: dict[str, str], body: bytes) -> bool:
    return is_ours(secret, headers, body, now_s=time.time())


def _written_down(folder: Path) -> Callable[[str, dict[str, str], bytes], bool]:
    [code] = re.findall(r"```python\n(.*?)```", _DESCRIPTION.read_text("utf-8"), re.S)
    file = folder / "written_down.py"
    file.write_text(code)
    found: Callable[[str, dict[str, str], bytes], bool] = runpy.run_path(str(file))["is_ours"]
    return found


def test_what_is_signed_is_believed_and_nothing_else(tmp_path: Path) -> None:
    for believed in (_ours, _written_down(tmp_path)):
        assert believed("harbour", _headers(), _BODY)
        assert not believed("another", _headers(), _BODY)
        assert not believed("harbour", _headers(), _BODY + b" ")
        assert not believed("harbour", {**_headers(), KEY_HEADER: "another"}, _BODY)
        assert not believed("harbour", _headers(age_s=MOST_AGE_S + 5), _BODY)


@pytest.mark.parametrize("headers", [{}, {TIME_HEADER: "soon"}, {TIME_HEADER: "1", SIGNATURE_HEADER: "é"}])
def test_what_says_nothing_of_the_kind_is_not_believed(headers: dict[str, str]) -> None:
    assert not _ours("harbour", headers, _BODY)
