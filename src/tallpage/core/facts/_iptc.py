"""Facts as IPTC-IIM, which older programs read from JPEG."""

from __future__ import annotations

from text_unidecode import unidecode

from tallpage.core.facts._facts import FileFacts

_MOST_CREDIT_BYTES, _MOST_INSTRUCTIONS_BYTES = 32, 256
"""Source: IPTC-NAA Information Interchange Model 4.2, 2:110 and 2:40."""


def as_iptc(facts: FileFacts) -> dict[str, str]:
    """The facts by the names of their fields, in plain letters; what is longer than a field is cut off.

    An address seldom fits into the 32 bytes of the source, so it is the instructions that say it. Letters
    beyond ASCII are spelt out: which ones a file means by others is not told in every program.
    """
    taken_at = facts.taken_at
    said = {
        "credit": unidecode(facts.credit)[:_MOST_CREDIT_BYTES],
        "special instructions": unidecode(facts.source)[:_MOST_INSTRUCTIONS_BYTES],
        "date created": f"{taken_at:%Y%m%d}" if taken_at else "",
        "time created": f"{taken_at:%H%M%S%z}"[:11] if taken_at else "",
    }
    return {name: value for name, value in said.items() if value}
