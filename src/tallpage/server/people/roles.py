"""The two roles: a producer does everything, a viewer looks, searches and saves files."""

from __future__ import annotations

from typing import Literal

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, Group, User

Role = Literal["producer", "viewer"]

VIEWERS = "viewers"


def role_of(user: AbstractBaseUser | AnonymousUser) -> Role:
    """The role of an account that is signed in."""
    is_viewer = isinstance(user, User) and user.groups.filter(name=VIEWERS).exists()
    return "viewer" if is_viewer else "producer"


def give_role(user: User, role: Role) -> None:
    """Make somebody a producer or a viewer."""
    viewers, _ = Group.objects.get_or_create(name=VIEWERS)
    user.groups.remove(viewers)
    if role == "viewer":
        user.groups.add(viewers)
