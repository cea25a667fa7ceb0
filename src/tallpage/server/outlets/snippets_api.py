"""HTTP API of snippets: an output as HTML and Markdown, alone or with its files."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, Query, Router, Schema

from tallpage.core.handover import FileChannel
from tallpage.core.snippet import SnippetWords
from tallpage.server.outlets.models import Output
from tallpage.server.outlets.saving import answered, name_of
from tallpage.server.outlets.signals import file_saved
from tallpage.server.outlets.snippets import Snippet, package_with_snippet, snippet_of, usual_alt
from tallpage.server.people.guarding import person_of

router = Router(tags=["snippets"])


class SnippetIn(Schema):
    """What is said of the picture, and how its files are called."""

    alt: str | None = Field(None, max_length=1_000)
    """None: what the page says."""
    caption: str = Field("", max_length=1_000)
    credit: str = Field("", max_length=300)
    prefix: str = Field("", max_length=500)
    every_size: bool = True
    shown_px: int | None = Field(None, ge=1, le=20_000)


class SnippetFileOut(Schema):
    """A file that a snippet names."""

    name: str
    width_px: int
    height_px: int
    bytes: int


class SnippetOut(Schema):
    """A snippet with the files that it names."""

    html: str
    markdown: str
    alt: str
    files: list[SnippetFileOut]


@router.post("/outputs/{output_id}/snippet", response=SnippetOut, operation_id="snippet_of_output")
def post_snippet(request: HttpRequest, output_id: int, payload: SnippetIn) -> dict[str, Any]:
    """An output as it goes into a page."""
    snippet = _snippet(_output(output_id), payload)
    files = [
        {"name": row.path, "width_px": fact.width_px, "height_px": fact.height_px, "bytes": fact.bytes}
        for row in snippet.files
        if (fact := row.facts) is not None
    ]
    return {"html": snippet.html, "markdown": snippet.markdown, "alt": snippet.alt, "files": files}


@router.get("/outputs/{output_id}/snippet.zip", operation_id="snippet_archive", include_in_schema=False)
def snippet_archive(request: HttpRequest, output_id: int, asked: Query[SnippetIn]) -> HttpResponse:
    """The files of a snippet with its HTML and Markdown, as a ZIP."""
    output = _output(output_id)
    name, items = package_with_snippet(output, _snippet(output, asked))
    response = answered(FileChannel(name).send(items))
    file_saved.send(sender=Output, output=output, name=name_of(response), person=person_of(request))
    return response


def _snippet(output: Output, asked: SnippetIn) -> Snippet:
    words = SnippetWords(
        alt=usual_alt(output) if asked.alt is None else asked.alt,
        caption=asked.caption,
        credit=asked.credit,
        shown_px=asked.shown_px,
    )
    return snippet_of(output, words, prefix=asked.prefix, every_size=asked.every_size)


def _output(output_id: int) -> Output:
    return get_object_or_404(Output.objects.select_related("cut__capture"), pk=output_id)
