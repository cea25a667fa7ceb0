"""Service notices without end, made from their number, so that the feed is always the same."""

from __future__ import annotations

from datetime import date, timedelta

_SHIPS = ("Auklet", "Sea Thrift", "Little Tern", "Kittiwake")
_PLACES = ("Skerrin Town", "Dunmorra", "Ailsay", "Fethray")
_CAUSES = (
    ("Fog at the Narrows", "Sailings ran up to {minutes} minutes late between {place} and the next pier."),
    ("Swell at the pier", "The {ship} did not call at {place}; passengers were landed by the next boat."),
    ("Engine check", "The {ship} was replaced for one day. Bookings were carried over, and so was the soup."),
    ("Spring tide", "Boarding at {place} was by the lower ramp for {minutes} minutes around high water."),
    ("Lost and found", "A brown suitcase with a cello inside was found at {place}. Ask at the pier office."),
    ("Extra sailing", "The {ship} made one more crossing from {place} for the regatta."),
    ("Pier works", "The waiting room at {place} was painted. It is now the colour of the {ship}."),
)
_NEWEST = date(2026, 11, 20)
NOTICE_PAGES = 112
"""How many of the newest notices have a page of their own in the site's first edition."""
_WITHDRAWN = 7
_AMENDED_EVERY, _AMENDED_FIRST = 9, 4


def notice_numbers(edition: int) -> list[int]:
    """Notices with a page of their own: with each edition after the first one more, one of them without."""
    numbers = range(NOTICE_PAGES + edition - 1)
    return [number for number in numbers if edition == 1 or number != _WITHDRAWN]


def amendment(number: int, edition: int) -> str:
    """HTML of what an edition adds to some notices."""
    if edition == 1 or number % _AMENDED_EVERY != _AMENDED_FIRST:
        return ""
    return f"<p>Since we wrote this, all is well again. The kettle is on. (Edition {edition})</p>"


def notices_from(start: int, count: int) -> str:
    """HTML of ``count`` notices from number ``start`` on; 0 is the newest."""
    return "".join(_notice(number) for number in range(max(0, start), max(0, start) + count))


def notice_day(number: int) -> date:
    """When a notice was written."""
    return _NEWEST - timedelta(days=2 * number)


def notice_title(number: int) -> str:
    """What a notice is about. Some titles come again: the Narrows are often foggy."""
    title, _ = _CAUSES[(number * 5 + number // 7) % len(_CAUSES)]
    return f"{title}: {_PLACES[(number * 3 + 1) % 4]}"


def _notice(number: int) -> str:
    _, text = _CAUSES[(number * 5 + number // 7) % len(_CAUSES)]
    place, ship = _PLACES[(number * 3 + 1) % 4], _SHIPS[(number + number // 4) % 4]
    day = notice_day(number)
    words = text.format(place=place, ship=ship, minutes=10 + number * 7 % 50)
    return (
        f'<article class="notice"><time datetime="{day}">{day:%-d %B %Y}</time>'
        f"<h3>{notice_title(number)}</h3><p>{words} We are sorry for the trouble, "
        "and glad of your patience.</p></article>"
    )
