"""What is to be handed over: rows of the ledger, captures, or a sweep; and the package that it becomes."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from tallpage.core.errors import HandOverError
from tallpage.core.facts import as_json_beside
from tallpage.core.handover import Item, ManifestRow
from tallpage.core.render import Rendering, RenderRules, save_png
from tallpage.core.sizing import Sizing
from tallpage.server.handover.names import FileNames
from tallpage.server.outlets.models import Output, OutputFile
from tallpage.server.outlets.saving import package_of
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.sweeps.models import Shot

MOST_CAPTURES = 2_000
_READ_BYTES = 256_000


@dataclass(frozen=True, slots=True, kw_only=True)
class Selection:
    """Which outputs, and which captures; of captures either the files made from them or their pictures."""

    outputs: tuple[int, ...] = ()
    captures: tuple[int, ...] = ()
    cut: int | None = None
    """Of this cut the picture itself."""
    sweep: int | None = None
    only_kept: bool = False
    pictures: bool = False
    """Whether captures are given as they are shown, instead of the files that were made of them."""

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Selection:
        """A stored selection."""
        lists = {name: tuple(data.get(name, ())) for name in ("outputs", "captures")}
        return cls(**{**data, **lists})

    def as_json(self) -> dict[str, Any]:
        """To be stored."""
        return {
            "outputs": list(self.outputs),
            "captures": list(self.captures),
            "cut": self.cut,
            "sweep": self.sweep,
            "only_kept": self.only_kept,
            "pictures": self.pictures,
        }

    def rows(self) -> list[Output]:
        """The outputs with their files, in the order in which they were named.

        Raises:
            HandOverError: one of them has gone.
        """
        found = (
            Output.objects.select_related("cut__capture__job", "slot__outlet")
            .prefetch_related("files")
            .in_bulk(self.outputs)
        )
        if len(found) < len(set(self.outputs)):
            raise HandOverError("A file that was chosen is not there any more.", code="not_found")
        return [found[pk] for pk in self.outputs]

    def cuts(self) -> list[Cut]:
        """The cuts whose pictures are shown: those of the rows, the one that was named, each capture's first.

        Raises:
            HandOverError: one has gone, or nothing is left.
        """
        if self.cut is not None:
            found = Cut.objects.select_related("capture").filter(pk=self.cut, capture__deleted_at=None)
        elif self.outputs:
            return list({row.cut_id: row.cut for row in self.rows()}.values())
        else:
            wanted = self._captures()
            found = Cut.objects.select_related("capture").filter(capture__in=[row.pk for row in wanted])
        first: dict[int, Cut] = {}
        for cut in found.order_by("position", "pk"):
            first.setdefault(cut.capture_id, cut)
        if not first:
            raise _nothing_chosen()
        if self.cut is not None:
            return list(first.values())
        return [first[row.pk] for row in self._captures() if row.pk in first]

    def captured(self) -> list[Capture]:
        """The captures that something is handed over of."""
        if self.cut is not None:
            return [cut.capture for cut in self.cuts()]
        if self.outputs:
            return list({row.cut.capture_id: row.cut.capture for row in self.rows()}.values())
        return self._captures()

    def require_captured(self) -> list[Capture]:
        """The same.

        Raises:
            HandOverError: there are none.
        """
        captures = self.captured()
        if not captures:
            raise _nothing_chosen()
        return captures

    def items(self, names: FileNames, *, beside: bool = False) -> Iterator[Item | ManifestRow]:
        """The package: files, and a row for each of which there is no file.

        With ``beside`` a JSON of facts follows each file whose outlet wants that.

        Raises:
            HandOverError, FitError: something that was chosen has gone, or has no file.
        """
        if self.outputs:
            for row in self.rows():
                yield from _made(row, names, beside=beside)
            return
        if self.pictures or self.cut is not None:
            for cut in self.cuts():
                yield _picture(cut, names)
            return
        for capture in self._captures():
            outputs = Output.objects.filter(cut__capture=capture, cut__deleted_at=None, files__isnull=False)
            rows = list(
                outputs.distinct().select_related("cut__capture", "slot__outlet").prefetch_related("files")
            )
            if not rows:
                yield replace(capture.facts(), error="No file was made from it.")
            for row in rows:
                yield from _made(row, names, beside=beside)

    def count(self) -> int:
        """How many files there are."""
        if self.pictures or self.cut is not None:
            return len(self.cuts())
        files = OutputFile.objects.filter(output__cut__deleted_at=None)
        if self.outputs:
            return files.filter(output__in=self.outputs).count()
        return files.filter(output__cut__capture__in=[row.pk for row in self._captures()]).count()

    def subject(self) -> str:
        """What it is, in words."""
        captures = self.captured()
        first = captures[0].name if captures else "nothing"
        return first if len(captures) == 1 else f"{first} and {len(captures) - 1} more"

    def _captures(self) -> list[Capture]:
        if self.sweep is not None:
            shots = Shot.objects.filter(sweep=self.sweep, dropped=False).exclude(capture=None)
            if self.only_kept:
                shots = shots.filter(mark=Shot.Mark.KEEP)
            ids = list(shots.order_by("page__number", "screen_at").values_list("capture", flat=True))
        else:
            ids = list(dict.fromkeys(self.captures))
        if len(ids) > MOST_CAPTURES:
            raise HandOverError(
                f"At most {MOST_CAPTURES:,} captures are handed over at once.", code="too_many"
            )
        found = Capture.objects.on_shelf().exclude(storage_key="").in_bulk(ids)
        return [found[pk] for pk in ids if pk in found]


def _nothing_chosen() -> HandOverError:
    return HandOverError(
        "There is nothing to hand over.", hint="Choose captures that are taken.", code="nothing_chosen"
    )


def picture_rules() -> RenderRules:
    """How a cut is drawn as it is shown: in its own px."""
    return RenderRules(sizing=Sizing(way="share", percent=100))


def rendering_of(cut: Cut, rules: RenderRules | None = None) -> Rendering:
    """A cut's picture, by rules, else in its own px."""
    return Rendering(cut.capture.pixel_source(), cut.as_drawn(), rules or picture_rules())


def _made(row: Output, names: FileNames, *, beside: bool) -> Iterator[Item]:
    outlet = row.slot.outlet if row.slot else None
    files = list(package_of(row))
    for number, item in enumerate(files, start=1):
        name = names.of_file(row, item, part=f"{number} of {len(files)}" if len(files) > 1 else "")
        facts = item.facts and replace(item.facts, file=name)
        yield replace(item, path=name, facts=facts)
        if beside and outlet is not None and outlet.facts_beside and facts is not None:
            said = {"width_px": facts.width_px, "height_px": facts.height_px, "rights": facts.rights}
            path, data = as_json_beside(replace(row.file_facts(), credit=outlet.credit), name, **said)
            yield Item(path=path, data=data, media_type="application/json")


def _picture(cut: Cut, names: FileNames) -> Item:
    rendering = rendering_of(cut)
    size = rendering.size_of(rendering.whole())
    name = names.of_picture(cut, size)
    facts = replace(cut.capture.facts(), width_px=size.width_px, height_px=size.height_px, file=name)
    return Item(path=name, data=_drawn(rendering), media_type="image/png", facts=facts)


def _drawn(rendering: Rendering) -> Iterator[bytes]:
    """A picture as PNG, drawn once it is needed, into a file: a tall one is never held whole."""
    with tempfile.TemporaryDirectory() as scratch:
        file = Path(scratch) / "picture.png"
        save_png(rendering, file)
        with file.open("rb") as stream:
            while piece := stream.read(_READ_BYTES):
                yield piece
