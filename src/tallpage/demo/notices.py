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


def notices_from(start: int, count: int) -> str:
    """HTML of ``count`` notices from number ``start`` on; 0 is the newest."""
    return "".join(_notice(number) for number in range(max(0, start), max(0, start) + count))


def _notice(number: int) -> str:
    title, text = _CAUSES[(number * 5 + number // 7) % len(_CAUSES)]
    place, ship = _PLACES[(number * 3 + 1) % 4], _SHIPS[(number + number // 4) % 4]
    day = _NEWEST - timedelta(days=2 * number)
    words = text.format(place=place, ship=ship, minutes=10 + number * 7 % 50)
    return (
        f'<article class="notice"><time datetime="{day}">{day:%-d %B %Y}</time>'
        f"<h3>{title}: {place}</h3><p>{words} We are sorry for the trouble, "
        "and glad of your patience.</p></article>"
    )
