"""Looks of marks that somebody gave a name."""

from __future__ import annotations

from collections.abc import Sequence

from django.db import transaction

from tallpage.core.cut.models import MOST_STYLES
from tallpage.core.errors import TallPageError
from tallpage.core.marks import Style
from tallpage.server.shelf.models import KeptStyle


@transaction.atomic
def keep_style(name: str, look: Style, usual_for: Sequence[str]) -> KeptStyle:
    """Keep a look under a name, instead of the one that has it.

    Marks of the kinds in ``usual_for`` begin with it from now on, and with no other.

    Raises:
        TallPageError: it has no name, or there are too many.
    """
    name = " ".join(name.split())
    if not name:
        raise TallPageError("The style has no name.", hint="Type a name for it.", code="style_name")
    if not KeptStyle.objects.filter(name=name).exists() and KeptStyle.objects.count() >= MOST_STYLES:
        raise TallPageError(
            f"There are {MOST_STYLES} styles already.", hint="Remove one of them first.", code="style_count"
        )
    for other in KeptStyle.objects.exclude(name=name):
        left = [kind for kind in other.usual_for if kind not in usual_for]
        if left != other.usual_for:
            other.usual_for = left
            other.save(update_fields=["usual_for"])
    values = {"look": look.model_dump(mode="json"), "usual_for": list(usual_for)}
    return KeptStyle.objects.update_or_create(name=name, defaults=values)[0]
