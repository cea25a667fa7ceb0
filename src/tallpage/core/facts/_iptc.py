"""Facts as IPTC-IIM, which older programs read from JPEG."""

from __future__ import annotations

import struct

from tallpage.core.facts._facts import FileFacts

_ENVELOPE, _APPLICATION = 1, 2
_UTF_8 = b"\x1b%G"
_RESOURCE_OF_IPTC = 0x0404
"""Number of the block of an image resource section that holds IIM data."""


def as_iptc(facts: FileFacts) -> bytes:
    """The facts as data sets in the image resource block that a JPEG keeps them in.

    The source is an address and seldom fits into the 32 bytes of its own data set, so it is the
    instructions' (256 bytes) that say it. Longer values are cut off at a letter.

    Source: IPTC-NAA Information Interchange Model 4.2, 1.5.2 (data sets), 2:40, 2:55, 2:60, 2:110.
    """
    sets = [_data_set(_ENVELOPE, 90, _UTF_8)]
    if facts.source:
        sets.append(_data_set(_APPLICATION, 40, _at_most(facts.source, 256)))
    if facts.taken_at:
        sets.append(_data_set(_APPLICATION, 55, f"{facts.taken_at:%Y%m%d}".encode()))
        sets.append(_data_set(_APPLICATION, 60, f"{facts.taken_at:%H%M%S%z}".encode()[:11]))
    if facts.credit:
        sets.append(_data_set(_APPLICATION, 110, _at_most(facts.credit, 32)))
    data = b"".join(sets)
    even = data + b"\0" * (len(data) % 2)
    return b"Photoshop 3.0\0" + b"8BIM" + struct.pack(">HHI", _RESOURCE_OF_IPTC, 0, len(data)) + even


def _data_set(record: int, number: int, value: bytes) -> bytes:
    return struct.pack(">BBBH", 0x1C, record, number, len(value)) + value


def _at_most(text: str, most_bytes: int) -> bytes:
    return text.encode()[:most_bytes].decode(errors="ignore").encode()
