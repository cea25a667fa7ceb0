"""Names of files from a pattern: safe on every operating system, never too long, never the same twice."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from pathvalidate import sanitize_filename

from tallpage.core.errors import ListError

DEFAULT_PATTERN = "{host}/{path}-{width}"
FIELDS = ("host", "path", "section", "title", "screen", "width", "date", "time", "number", "slot")
_FIELD = re.compile(r"\{([^{}]*)\}")
_MOST_PATTERN_CHARS = 300
_MOST_FOLDERS = 6
# NTFS and ext4 take 255 of their units a name; ext4 counts bytes. Room is left for a number and an
# extension, and for a folder that all of it is unpacked into: Windows takes 260 characters in all.
_MOST_PART_BYTES = 100
_MOST_PATH_CHARS = 180
_BARE = " .-_"


@dataclass(frozen=True, slots=True)
class Pattern:
    """Text with fields like ``{title}``, and folders divided by ``/``."""

    text: str

    def __post_init__(self) -> None:
        if not self.text.strip():
            raise _wrong("The pattern for names is empty.")
        if len(self.text) > _MOST_PATTERN_CHARS:
            raise _wrong(f"The pattern for names is over {_MOST_PATTERN_CHARS} characters long.")
        unknown = [name for name in _FIELD.findall(self.text) if name not in FIELDS]
        if unknown or re.search(r"[{}]", _FIELD.sub("", self.text)):
            what = f"{{{unknown[0]}}} is no field" if unknown else "There is a lone brace in the pattern"
            raise _wrong(f"{what} of a name.")
        if self.text.count("/") > _MOST_FOLDERS:
            raise _wrong(f"The pattern makes more than {_MOST_FOLDERS} folders.")

    @property
    def fields(self) -> frozenset[str]:
        """The fields that it uses."""
        return frozenset(_FIELD.findall(self.text))

    def filled(self, values: Mapping[str, str]) -> str:
        """The path without extension; a missing field is empty, and so are folders that come out empty.

        >>> Pattern("{section}/{title}").filled({"section": "news", "title": 'Storm: "all" boats ../in'})
        'news/Storm all boats ..-in'
        """
        parts = [
            safe_part(_FIELD.sub(lambda field: _within_a_part(values.get(field[1], "")), part))
            for part in self.text.split("/")
        ]
        folders, name = [part for part in parts[:-1] if part], parts[-1] or "page"
        while folders and len("/".join([*folders, name])) > _MOST_PATH_CHARS:
            longest = max(range(len(folders)), key=lambda at: len(folders[at]))
            room = len(folders[longest]) // 2
            folders[longest] = safe_part(folders[longest][:room])
            folders = [folder for folder in folders if folder]
        return "/".join([*folders, name])


class Namer:
    """Gives every file a path of its own; the second of a name is told apart by its number."""

    def __init__(self, pattern: Pattern, *, given: Iterable[str] = ()) -> None:
        self._pattern = pattern
        self._given = {_folded(path) for path in given}
        self._last: dict[str, int] = {}
        """The last number that a path was told apart by: thousands of equal names are no search each."""

    def name(self, values: Mapping[str, str], extension: str, *, part: str = "") -> str:
        """A path with extension that was not given before, whatever the case of its letters.

        ``part`` says which of several files it is, like ``2-of-5``.
        """
        path = self._pattern.filled(values) + (f"-{part}" if part else "")
        candidate = f"{path}.{extension}"
        key = _folded(candidate)
        count = self._last.get(key, 1)
        while _folded(candidate) in self._given:
            count += 1
            candidate = f"{path}-{count}.{extension}"
        self._last[key] = count
        self._given.add(_folded(candidate))
        return candidate


def safe_part(text: str) -> str:
    """A name of a file or folder that every operating system takes; empty when nothing is left.

    >>> safe_part("CON"), safe_part("..")
    ('CON_', '')
    """
    calm = " ".join(unicodedata.normalize("NFC", text).split())
    spaced = sanitize_filename(calm, platform="universal", replacement_text=" ")
    safe = " ".join(spaced.split()).strip(_BARE)
    cut = safe.encode()[:_MOST_PART_BYTES].decode(errors="ignore").rstrip(_BARE)
    # What was cut off, or stripped, may leave a reserved name behind.
    return sanitize_filename(cut, platform="universal")


def _within_a_part(value: str) -> str:
    """A value that makes no folders of its own."""
    return re.sub(r"\s*[/\\]+\s*", "-", value.strip("/\\ "))


def _folded(path: str) -> str:
    return unicodedata.normalize("NFKC", path).casefold()


def _wrong(sentence: str) -> ListError:
    names = " ".join(f"{{{name}}}" for name in FIELDS)
    return ListError(sentence, hint=f"Use text, / for folders, and {names}.", code="pattern_malformed")
