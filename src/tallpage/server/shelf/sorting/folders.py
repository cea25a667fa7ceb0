"""Folders and labels of the shelf, and what is done to many captures at once."""

from __future__ import annotations

from collections.abc import Iterable

from django.db import transaction
from django.db.models import Count, Q, QuerySet

from tallpage.core.errors import ListError
from tallpage.core.rights import Rights
from tallpage.server.shelf.models import Capture, Folder, Label

MOST_AT_ONCE = 20_000
_MOST_FOLDERS, _DEEPEST = 2_000, 12


def folders() -> QuerySet[Folder]:
    """All folders, each with the number of captures that lie in it itself."""
    lying = Count("captures", filter=Q(captures__deleted_at=None))
    return Folder.objects.annotate(count=lying)


def labels() -> QuerySet[Label]:
    """All labels that a capture of the shelf has, with how many have them."""
    counted = Count("captures", filter=Q(captures__deleted_at=None))
    return Label.objects.annotate(count=counted).filter(count__gt=0)


def make_folder(name: str, parent: Folder | None) -> Folder:
    """A new folder.

    Raises:
        ListError: a name that its neighbours have, or too many folders.
    """
    if Folder.objects.count() >= _MOST_FOLDERS:
        raise ListError(f"The shelf holds at most {_MOST_FOLDERS:,} folders.", hint="", code="too_many")
    if parent is not None and len(_above(parent)) >= _DEEPEST:
        raise ListError(f"Folders lie at most {_DEEPEST} deep.", hint="", code="too_deep")
    _require_free(name, parent)
    return Folder.objects.create(name=name.strip(), parent=parent)


def change_folder(folder: Folder, name: str, parent: Folder | None) -> Folder:
    """Give a folder another name or place.

    Raises:
        ListError: it would lie in itself, or a neighbour has the name.
    """
    if parent is not None and folder.pk in [row.pk for row in _above(parent)]:
        raise ListError(
            f"“{folder.name}” cannot lie in itself.", hint="Choose another place.", code="in_itself"
        )
    _require_free(name, parent, besides=folder)
    folder.name, folder.parent = name.strip(), parent
    folder.save()
    return folder


def delete_folder(folder: Folder) -> None:
    """Delete a folder; what lies in it, captures and folders, moves up by one."""
    with transaction.atomic():
        Capture.objects.filter(shelf_folder=folder).update(shelf_folder=folder.parent)
        for child in folder.children.all():
            child.parent = folder.parent
            if (
                Folder.objects.filter(parent=folder.parent, name__iexact=child.name)
                .exclude(pk=folder.pk)
                .exists()
            ):
                child.name = f"{child.name[:70]} ({child.pk})"
            child.save()
        folder.delete()


def move(ids: Iterable[int], folder: Folder | None) -> int:
    """Put captures into a folder, or into none."""
    return Capture.objects.filter(pk__in=list(ids)).update(shelf_folder=folder)


def label(ids: Iterable[int], name: str) -> int:
    """Give captures a label.

    Raises:
        ListError: it has no name.
    """
    name = " ".join(name.split())
    if not name:
        raise ListError("The label has no name.", hint="Type one.", code="no_name")
    found = Label.objects.filter(name__iexact=name).first() or Label.objects.create(name=name[:40])
    rows = list(Capture.objects.filter(pk__in=list(ids)).values_list("pk", flat=True))
    through = Capture.labels.through
    through.objects.bulk_create(
        [through(capture_id=pk, label_id=found.pk) for pk in rows], ignore_conflicts=True
    )
    return len(rows)


def unlabel(ids: Iterable[int], name: str) -> int:
    """Take a label from captures; one that no capture has any more goes."""
    through = Capture.labels.through
    count, _ = through.objects.filter(capture_id__in=list(ids), label__name__iexact=name).delete()
    Label.objects.annotate(uses=Count("captures")).filter(uses=0).delete()
    return count


def sort_like(capture: Capture, earlier: Capture) -> None:
    """Folder, labels and rights of an earlier capture for one of the same page."""
    capture.shelf_folder = earlier.shelf_folder
    capture.rights_state, capture.licensed_until = earlier.rights_state, earlier.licensed_until
    capture.rights_note = earlier.rights_note
    capture.save(update_fields=["shelf_folder", "rights_state", "licensed_until", "rights_note"])
    capture.labels.set(earlier.labels.all())


def say_rights(ids: Iterable[int], rights: Rights) -> int:
    """Note of captures what is known of their rights, instead of what was noted before."""
    return Capture.objects.filter(pk__in=list(ids)).update(
        rights_state=rights.state, licensed_until=rights.until, rights_note=rights.note
    )


def require_some(ids: list[int], *, most: int = MOST_AT_ONCE) -> list[int]:
    """The captures themselves.

    Raises:
        ListError: there are none, or too many at once.
    """
    if not ids:
        raise ListError("No capture is chosen.", hint="Choose some, and try again.", code="nothing_chosen")
    if len(ids) > most:
        raise ListError(
            f"At most {most:,} captures can be done at once.", hint="Choose fewer.", code="too_many"
        )
    return ids


def _above(folder: Folder) -> list[Folder]:
    """A folder and those that it lies in."""
    found, at = [], folder
    while at is not None:
        found.append(at)
        at = at.parent  # type: ignore[assignment]
    return found


def _require_free(name: str, parent: Folder | None, besides: Folder | None = None) -> None:
    if not name.strip():
        raise ListError("The folder has no name.", hint="Type one.", code="no_name")
    same = Folder.objects.filter(parent=parent, name__iexact=name.strip())
    if (same.exclude(pk=besides.pk) if besides else same).exists():
        raise ListError(
            f"There is a folder “{name.strip()}” here already.",
            hint="Choose another name.",
            code="name_taken",
        )
