"""Accounts and tokens as the command line makes them."""

from __future__ import annotations

from collections.abc import Iterator

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError

from tallpage.core.errors import AccountError
from tallpage.server.people.models import Token
from tallpage.server.people.roles import Role, give_role, role_of
from tallpage.server.people.tokens import make_token


def exist() -> bool:
    """Whether there is an account that somebody can sign in with."""
    return User.objects.filter(is_active=True).exists()


def require_free(name: str) -> None:
    """Refuse a name that an account has.

    Raises:
        AccountError: one has.
    """
    if User.objects.filter(username__iexact=name).exists():
        raise AccountError(
            f"There is an account {name} already.",
            hint=f"Give it another password with: user password {name}.",
            code="name_taken",
        )


def add(name: str, password: str, role: Role) -> User:
    """A new account; the first producer looks after the others.

    Raises:
        AccountError: a name that is taken or cannot be one, or a password that is easily guessed.
    """
    require_free(name)
    # Somebody has to look after the others: whoever comes first.
    keeps = role == "producer" and not User.objects.filter(is_staff=True).exists()
    user = User(username=name, is_staff=keeps)
    _set_password(user, password)
    user.save()
    give_role(user, role)
    return user


def set_password(name: str, password: str) -> None:
    """Give an account another password; it can sign in again if it was closed.

    Raises:
        AccountError: there is no such account, or the password is easily guessed.
    """
    user = _named(name)
    user.is_active = True
    _set_password(user, password)
    user.save()


def close(name: str) -> None:
    """Let an account sign in no more; its sessions and tokens end at once.

    Raises:
        AccountError: there is no such account.
    """
    user = _named(name)
    user.is_active = False
    user.save(update_fields=["is_active"])


def keep_accounts(name: str) -> None:
    """Let an account look after the others.

    Raises:
        AccountError: there is no such account.
    """
    user = _named(name)
    user.is_staff = True
    user.save(update_fields=["is_staff"])


def listed() -> Iterator[str]:
    """A line for each account."""
    for user in User.objects.order_by("username"):
        closed = "" if user.is_active else ", closed"
        closed += ", looks after accounts" if user.is_staff else ""
        seen = f", last here {user.last_login:%Y-%m-%d}" if user.last_login else ""
        yield f"{user.username}: {role_of(user)}{closed}{seen}"


def add_token(name: str, scope: str, label: str) -> str:
    """A new token of an account.

    Raises:
        AccountError: there is no such account.
    """
    return make_token(_named(name), scope, label)


def revoke(number: str) -> None:
    """End a token by its number.

    Raises:
        AccountError: there is none.
    """
    deleted, _ = Token.objects.filter(pk=int(number) if number.isdecimal() else 0).delete()
    if not deleted:
        raise AccountError(
            f"There is no token {number}.", hint="token list says which there are.", code="no_token"
        )


def listed_tokens() -> Iterator[str]:
    """A line for each token."""
    for row in Token.objects.select_related("user"):
        used = f"last used {row.used_at:%Y-%m-%d}" if row.used_at else "never used"
        yield f"{row.pk}: {row.user.get_username()}, {row.scope}, {row.label or 'no label'}, {used}"


def _named(name: str) -> User:
    user = User.objects.filter(username__iexact=name).first()
    if user is None:
        raise AccountError(
            f"There is no account {name}.", hint="user list says which there are.", code="no_account"
        )
    return user


def _set_password(user: User, password: str) -> None:
    try:
        User.username_validator(user.username)
        validate_password(password, user)
    except ValidationError as error:
        raise AccountError(" ".join(error.messages), hint="Nothing was changed.", code="password") from error
    user.set_password(password)
