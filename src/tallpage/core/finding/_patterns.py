"""What e-mail addresses, telephone numbers and amounts look like in running text.

Whoever hides them wants none to be left: what could be one counts. What surely is something else, a date
or a time of day, does not.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Iterator
from typing import Literal

Kind = Literal["words", "email", "telephone", "amount"]
Span = tuple[int, int]

# Every repetition has an end: a page of nothing but digits must not take for ever.
_AT = r"(?:@|\s?[\[(]\s?(?:at|@)\s?[\])]\s?)"
_DOT = r"(?:\.|\s?[\[(]\s?dot\s?[\])]\s?)"
_EMAIL = re.compile(
    rf"[\w.!#$%&'*+/=?^`{{|}}~-]{{1,64}}{_AT}[\w-]{{1,63}}(?:{_DOT}[\w-]{{1,63}}){{0,8}}", re.IGNORECASE
)

_LEAST_DIGITS, _MOST_DIGITS = 7, 15
"""The most is that of ITU-T E.164."""
_NUMBER = re.compile(r"(?<![\w.,:/-])\(?\+?\d(?:[\s./()\u00a0\u2009\u202f\u2010-\u2013-]{0,3}\d){6,40}(?!\w)")
_LABELLED = re.compile(
    r"\b(?:tel|telephone|phone|call|fax|mobile|mob|ring)\b[.:]?\s*(?:no\.?\s*)?(\(?\+?\d[\d\s./()\u00a0-]{0,40}\d)",
    re.IGNORECASE,
)
_NO_TELEPHONE_NUMBERS = (
    re.compile(r"\d{4}[-./]\d{1,2}[-./]\d{1,2}"),
    re.compile(r"\d{1,2}[-./]\d{1,2}[-./]\d{4}"),
    re.compile(r"\d+[.,]\d\d(?:\s+\d+[.,]\d\d)+"),
    re.compile(r"(?:1[89]|20)\d\d(?:\s?[\u2010-\u2013-]\s?|\s)(?:1[89]|20)\d\d"),
)

_LAST_SIGN = 0x20CF
"""End of Unicode's block of currency symbols; few lie beyond it, and none that is in use."""
_SIGNS = "".join(sign for at in range(_LAST_SIGN + 1) if unicodedata.category(sign := chr(at)) == "Sc")
_CODES = (
    "(?:AUD|BRL|CAD|CHF|CNY|CZK|DKK|EUR|GBP|HKD|HUF|INR|ISK|JPY|KRW|"
    "MXN|NOK|NZD|PLN|RON|SEK|SGD|TRY|UAH|USD|ZAR)"
)
_MONEY = rf"(?:[{re.escape(_SIGNS)}]|{_CODES}\b|\b(?:kr|zł|Kč|Fr)\b\.?)"
_FIGURES = r"\d{1,15}(?:[.,'\u2019\s\u00a0\u202f]\d{3}){0,6}(?:[.,](?:\d{1,2}|[-\u2013]))?"
_AMOUNT = re.compile(
    rf"[-\u2212]?{_MONEY}\s?[-\u2212]?{_FIGURES}(?!\d)|(?<![\w.,]){_FIGURES}\s?{_MONEY}", re.IGNORECASE
)


def spans(kind: Kind, text: str, words: Iterable[str] = ()) -> Iterator[Span]:
    """Where a text says what is sought: first character, and the first one after it."""
    match kind:
        case "email":
            yield from (match.span() for match in _EMAIL.finditer(text))
        case "telephone":
            yield from _telephones(text)
        case "amount":
            yield from (match.span() for match in _AMOUNT.finditer(text))
        case "words":
            for said in words:
                if pattern := _said(said):
                    yield from (match.span() for match in pattern.finditer(text))


def _telephones(text: str) -> Iterator[Span]:
    for match in _LABELLED.finditer(text):
        yield match.span(1)
    for match in _NUMBER.finditer(text):
        number = match[0]
        digits = sum(sign.isdigit() for sign in number)
        is_other = any(pattern.fullmatch(number.strip("()")) for pattern in _NO_TELEPHONE_NUMBERS)
        plain = number.isdigit() and not number.startswith("0")
        if _LEAST_DIGITS <= digits <= _MOST_DIGITS and not is_other and not plain:
            yield match.span()


def _said(words: str) -> re.Pattern[str] | None:
    """A pattern for words however they are spaced and written large; whole words only."""
    parts = words.split()
    if not parts:
        return None
    before = r"(?<!\w)" if parts[0][0].isalnum() else ""
    after = r"(?!\w)" if parts[-1][-1].isalnum() else ""
    return re.compile(before + r"\s+".join(map(re.escape, parts)) + after, re.IGNORECASE)
