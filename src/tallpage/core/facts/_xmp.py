"""Facts as XMP, as JPEG, PNG, WebP and AVIF can hold it."""

from __future__ import annotations

from xml.etree import ElementTree as Tree  # written here, never read: nothing comes from outside

from tallpage.core.facts._facts import FileFacts

_NAMES = {
    "x": "adobe:ns:meta/",
    "rdf": "http://www.w3.org/1999/02/22-rdf-syntax-ns#",
    "photoshop": "http://ns.adobe.com/photoshop/1.0/",
}
"""Prefixes and namespaces. Source: ISO 16684-1 (XMP), 7.4 and 8; IPTC Photo Metadata Standard, 2023.1."""


def as_xmp(facts: FileFacts) -> bytes:
    """The packet, UTF-8, without room for changes: no file is heavier than it has to be."""
    said = {
        "Credit": facts.credit,
        "Source": facts.source,
        "DateCreated": facts.taken_at.isoformat(timespec="seconds") if facts.taken_at else "",
    }
    for prefix, namespace in _NAMES.items():
        Tree.register_namespace(prefix, namespace)
    packet = Tree.Element(_named("x", "xmpmeta"))
    resources = Tree.SubElement(packet, _named("rdf", "RDF"))
    file = Tree.SubElement(resources, _named("rdf", "Description"), {_named("rdf", "about"): ""})
    for name, value in said.items():
        if value:
            file.set(_named("photoshop", name), value)
    return Tree.tostring(packet, encoding="unicode").encode()


def _named(prefix: str, name: str) -> str:
    return f"{{{_NAMES[prefix]}}}{name}"
