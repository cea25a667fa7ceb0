"""Facts as XMP, as JPEG, PNG, WebP and AVIF can hold it."""

from __future__ import annotations

from xml.etree import ElementTree as Tree  # written here, never read: nothing comes from outside

from tallpage.core.facts._facts import FileFacts

_NAMES = {
    "rdf": "http://www.w3.org/1999/02/22-rdf-syntax-ns#",
    "dc": "http://purl.org/dc/elements/1.1/",
}
"""Prefixes and namespaces. Source: ISO 16684-1 (XMP), 7.4 and 8.3 (Dublin Core)."""


def as_xmp(facts: FileFacts) -> bytes:
    """The packet, UTF-8, without room for changes: no file is heavier than it has to be.

    The credit is the creator, as IPTC's photo metadata has it too.
    """
    for prefix, namespace in _NAMES.items():
        Tree.register_namespace(prefix, namespace)
    packet = Tree.Element(_named("rdf", "RDF"))
    file = Tree.SubElement(packet, _named("rdf", "Description"), {_named("rdf", "about"): ""})
    if facts.source:
        file.set(_named("dc", "source"), facts.source)
    taken_at = facts.taken_at.isoformat(timespec="seconds") if facts.taken_at else ""
    for name, value in (("creator", facts.credit), ("date", taken_at)):
        if value:
            ordered = Tree.SubElement(Tree.SubElement(file, _named("dc", name)), _named("rdf", "Seq"))
            Tree.SubElement(ordered, _named("rdf", "li")).text = value
    return Tree.tostring(packet, encoding="unicode").encode()


def _named(prefix: str, name: str) -> str:
    return f"{{{_NAMES[prefix]}}}{name}"
