"""HTTP API of accounts and tokens. Who looks after accounts sees all of them, anybody else their own."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import Literal

from django.conf import settings
from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status

from tallpage.core.errors import AccountError
from tallpage.server.people import accounts
from tallpage.server.people.guarding import is_token, role_here
from tallpage.server.people.models import Token
from tallpage.server.people.roles import Role, give_role, role_of

router = Router(tags=["accounts"])
_PASSWORD_BYTES = 15


class TokenOut(Schema):
    """What a script signs in by; it is shown itself only once, when it is made."""

    id: int
    label: str
    scope: Literal["read", "all"]
    created_at: datetime
    used_at: datetime | None


class AccountOut(Schema):
    """An account, with its tokens."""

    id: int
    name: str
    role: Role
    closed: bool
    keeper: bool
    """Whether it looks after the others."""
    last_here_at: datetime | None
    tokens: list[TokenOut]

    @classmethod
    def of(cls, user: User) -> AccountOut:
        """An account as it is told."""
        return cls(
            id=user.pk,
            name=user.username,
            role=role_of(user),
            closed=not user.is_active,
            keeper=user.is_staff,
            last_here_at=user.last_login,
            tokens=[TokenOut.from_orm(row) for row in Token.objects.filter(user=user)],
        )


class AccountsOut(Schema):
    """The accounts that whoever asks may see; ``needed`` where nobody comes in without one."""

    needed: bool
    keeper: bool
    accounts: list[AccountOut]


class NewAccountIn(Schema):
    """A new account; without a password one is made up."""

    name: str = Field(min_length=1, max_length=150)
    role: Role = "producer"
    password: str = Field("", max_length=200)


class SecretOut(Schema):
    """A password or token that was made up: this is the only time that it is shown."""

    secret: str


class ChangeAccountIn(Schema):
    """Another role, or whether it is closed."""

    role: Role | None = None
    closed: bool | None = None
    keeper: bool | None = None


class NewTokenIn(Schema):
    """What a token is for, and whether it only reads."""

    label: str = Field("", max_length=80)
    scope: Literal["read", "all"] = "read"


@router.get("/accounts", response=AccountsOut, operation_id="list_accounts")
def list_accounts(request: HttpRequest) -> AccountsOut:
    """All accounts for who looks after them, else one's own."""
    return AccountsOut(
        needed=settings.ACCOUNTS,
        keeper=_keeps(request),
        accounts=[AccountOut.of(user) for user in _seen(request).order_by("username")],
    )


@router.post("/accounts", response={201: SecretOut}, operation_id="add_account")
def add_account(request: HttpRequest, payload: NewAccountIn) -> Status[SecretOut]:
    """Add an account; its password is told once."""
    _require_keeper(request)
    password = payload.password or secrets.token_urlsafe(_PASSWORD_BYTES)
    accounts.add(payload.name.strip(), password, payload.role)
    return Status(201, SecretOut(secret=password))


@router.patch("/accounts/{int:account_id}", response=AccountsOut, operation_id="change_account")
def change_account(request: HttpRequest, account_id: int, payload: ChangeAccountIn) -> AccountsOut:
    """Give an account another role, close or open it, let it look after the others."""
    _require_keeper(request)
    user = get_object_or_404(User, pk=account_id)
    user.is_active = user.is_active if payload.closed is None else not payload.closed
    user.is_staff = user.is_staff if payload.keeper is None else payload.keeper
    keeps = user.is_staff and user.is_active and (payload.role or role_of(user)) == "producer"
    others = User.objects.exclude(pk=user.pk).filter(is_staff=True, is_active=True)
    if settings.ACCOUNTS and not keeps and all(role_of(other) != "producer" for other in others):
        raise AccountError(
            "Nobody would look after the accounts then.",
            hint="Let another one do so first.",
            code="last_keeper",
        )
    user.save(update_fields=["is_active", "is_staff"])
    if payload.role is not None:
        give_role(user, payload.role)
    return list_accounts(request)


@router.post("/accounts/{int:account_id}/password", response=SecretOut, operation_id="new_password")
def new_password(request: HttpRequest, account_id: int) -> SecretOut:
    """Make up another password; a closed account can sign in again with it."""
    _require_keeper(request)
    user = get_object_or_404(User, pk=account_id)
    password = secrets.token_urlsafe(_PASSWORD_BYTES)
    accounts.set_password(user.username, password)
    return SecretOut(secret=password)


@router.post("/accounts/{int:account_id}/tokens", response={201: SecretOut}, operation_id="add_token")
def add_token(request: HttpRequest, account_id: int, payload: NewTokenIn) -> Status[SecretOut]:
    """A new token of an account; who only reads makes tokens that only read."""
    user = get_object_or_404(_seen(request), pk=account_id)
    if payload.scope == "all" and role_here(request) == "viewer":
        raise AccountError("With this account tokens only read.", hint="Make one that reads.", code="viewer")
    return Status(201, SecretOut(secret=accounts.add_token(user.username, payload.scope, payload.label)))


@router.post("/tokens/{int:token_id}/revoke", response=AccountsOut, operation_id="revoke_token")
def revoke_token(request: HttpRequest, token_id: int) -> AccountsOut:
    """End a token: nobody comes in by it any more."""
    get_object_or_404(Token, pk=token_id, user__in=_seen(request)).delete()
    return list_accounts(request)


def _keeps(request: HttpRequest) -> bool:
    """Whether whoever asks looks after accounts: at a machine of one's own, whoever sits there."""
    if not settings.ACCOUNTS and not is_token(request):
        return True
    return isinstance(request.user, User) and request.user.is_staff and role_here(request) == "producer"


def _require_keeper(request: HttpRequest) -> None:
    if not _keeps(request):
        raise AccountError(
            "With this account you do not look after the others.",
            hint="Ask who does, or on the server: tallpage user keeper NAME.",
            code="not_keeper",
        )


def _seen(request: HttpRequest) -> QuerySet[User]:
    if _keeps(request):
        return User.objects.all()
    return User.objects.filter(pk=request.user.pk) if request.user.pk else User.objects.none()
