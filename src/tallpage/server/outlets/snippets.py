"""The files of an output as they go into a page."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box
from tallpage.core.handover import Item
from tallpage.core.page_map import Block
from tallpage.core.render import prepared, without_hidden_words
from tallpage.core.snippet import SnippetImage, SnippetWords, html, markdown, same_shape
from tallpage.server.outlets.models import Output
from tallpage.server.outlets.saving import archive_name, package_of

_MOST_ALT_CHARS = 140


@dataclass(frozen=True, slots=True, kw_only=True)
class Snippet:
    """What a picture is in a page, and the files that it names."""

    html: str
    markdown: str
    alt: str
    files: tuple[Item, ...]


def snippet_of(output: Output, words: SnippetWords, *, prefix: str, every_size: bool) -> Snippet:
    """The snippet of an output, its files called as they are saved, after a prefix.

    With ``every_size``, other rows of the same cut are there to be chosen from, as far as they show the same
    in one file, and the cut as it is now.

    Raises:
        FitError: there is no file yet.
    """
    parts = [[item] for item in package_of(output)]
    if every_size and len(parts) == 1:
        others = output.cut.outputs.exclude(pk=output.pk).select_related("cut__capture")
        parts[0] += [item for other in others if (item := _only_file(other)) is not None]
    # Of rows that made the same, the one that was asked for comes first, and stays.
    named = [{_image(item, prefix): item for item in reversed(part)} for part in parts]
    images = [same_shape([_image(item, prefix) for item in part]) for part in parts]
    return Snippet(
        html=html(images, words),
        markdown=markdown(images, words),
        alt=words.alt,
        files=tuple(part[image] for part, kept in zip(named, images, strict=True) for image in kept),
    )


def package_with_snippet(output: Output, snippet: Snippet) -> tuple[str, Iterator[Item]]:
    """A name for the archive, and what is in it: the files, the HTML and the Markdown."""

    def items() -> Iterator[Item]:
        yield from snippet.files
        yield Item(path="snippet.html", data=snippet.html.encode(), media_type="text/html")
        yield Item(path="snippet.md", data=snippet.markdown.encode(), media_type="text/markdown")

    return archive_name(output), items()


def usual_alt(output: Output) -> str:
    """What the page says of what a cut shows: its uppermost heading, or the text of a picture, or the title.

    What is hidden, folded away, beside the frame or outside the outline is not said.
    """
    cut, capture = output.cut.as_cut(), output.cut.capture
    source = capture.pixel_source()
    shown = [block for block in prepared(source, cut).blocks() if _is_shown(block.box, cut)]
    said = _first(shown, "heading") or next((row.alt for row in shown if row.role == "image" and row.alt), "")
    title = without_hidden_words(capture.title, source, cut)
    text = f"{said}, on the page “{title}”" if said and title else said or title
    return text[:_MOST_ALT_CHARS]


def _is_shown(box: Box, cut: Cut) -> bool:
    """Whether a cut shows all of a box, as far as its upper left corner says of folds."""
    outlined = cut.outline is None or cut.outline.holds(box)
    return outlined and cut.frame.box.overlap(box) == box and cut.frame.shows((box.x_px, box.y_px))


def _first(blocks: list[Block], role: str) -> str:
    rows = [row for row in blocks if row.role == role and row.text]
    return min(rows, key=lambda row: (row.box.y_px, row.box.x_px)).text if rows else ""


def _only_file(output: Output) -> Item | None:
    """The one file of a row that shows the cut as it is now."""
    if output.stale or output.files.count() != 1:
        return None
    return next(package_of(output))


def _image(item: Item, prefix: str) -> SnippetImage:
    facts = item.facts
    assert facts is not None  # noqa: S101 - each file of an output has its facts
    assert facts.width_px is not None  # noqa: S101
    assert facts.height_px is not None  # noqa: S101
    return SnippetImage(
        src=f"{prefix}{item.path}",
        width_px=facts.width_px,
        height_px=facts.height_px,
        media_type=item.media_type,
    )
