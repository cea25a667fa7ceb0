"""Where the words of a page stand in its picture."""

from pathlib import Path

import numpy as np

from tallpage.core.capture import PRESETS, PageRequest
from tallpage.core.finding import Sought, find_places
from tallpage.core.geometry import Box
from tallpage.core.page_words import PageWords
from tallpage.core.picture import encode_png
from tallpage.core.render import CaptureSource
from tests.conftest import Take
from tests.pictures import decoded


def test_every_address_is_found_where_the_picture_shows_it(take: Take, site: str, tmp_path: Path) -> None:
    take(PageRequest(address=f"{site}/offices", screen=PRESETS["desk"]), tmp_path / "page")
    words = PageWords.load(tmp_path / "page")
    assert words is not None
    mails = find_places(words, Sought(kind="email"))
    assert [place.text for place in mails] == [
        "hello@skerrin-ferries.example",
        "isa.marwick@skerrin-ferries.example",
        "odd.tenby@skerrin-ferries.example",
        "petra.foule@skerrin-ferries.example",
        "fethray@skerrin-ferries.example",
        "lost@skerrin-ferries.example",
        "you@home.example",
    ]
    assert len(find_places(words, Sought(kind="telephone"))) == 4
    assert [row.text for row in find_places(words, Sought(kind="amount"))] == ["£4.50", "£18"]
    assert len(find_places(words, Sought(kind="words", words="Isa Marwick"))) == 3
    assert words.language == "en"
    assert f"{site}/timetable" in [link.address for link in words.links]
    (mail,) = [link for link in words.links if link.address.startswith("mailto:")]
    (said,) = [place for place in mails if place.text in mail.address]
    assert mail.boxes[0].overlap(said.boxes[0]) is not None, "a link is pressed where its words are"
    source = CaptureSource(tmp_path / "page")
    for place in mails:
        for box in place.boxes:
            inside = decoded(
                encode_png(source.region(box.overlap(Box.whole(source.size)) or box), compression=1)
            )
            assert np.ptp(inside) > 60, f"there are letters where {place.text} is said to be"
