"""What people may do about their own sign-in: change the password, sign out everywhere else, say where mail reaches them."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth import SESSION_KEY, authenticate, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone

from apps.accounts.demo_accounts import ACCOUNTS
from apps.accounts.guard import TOO_MANY
from apps.workshops.errors import Refused

__all__ = [
    "change_password", "end_sessions", "own_user", "require_free_username", "require_good_password", "require_own_account",
    "require_password", "sign_out_elsewhere", "write_email",
]  # fmt: skip

_DEMO = {each.username for each in ACCOUNTS}


def own_user(request: HttpRequest) -> User:
    """Who is signed in, read anew."""
    assert isinstance(request.user, User), "signed in"
    return User.objects.get(pk=request.user.pk)


def require_own_account(user: User) -> None:
    """
    Raises
    ------
    Refused
        for an account of the demo, which all share.
    """
    if settings.DEMO and user.username in _DEMO:
        raise Refused("demo_account", "The demo’s accounts are shared; how they sign in stays.", 403)


def require_password(request: HttpRequest, user: User, password: str, field: str = "password") -> None:
    """That whoever is at this device knows the password. A wrong try is written down and must stay so: no transaction may undo it.

    Raises
    ------
    Refused
        for a wrong one; guessing is limited as at sign-in.
    """
    if authenticate(request, username=user.username, password=password) is None:
        if getattr(request, "axes_locked_out", False):
            raise Refused("too_many_tries", TOO_MANY, 429)
        raise Refused("wrong_password", "That is not the password you have now.", 422, **{field: "Not the one you have now."})  # fmt: skip


def require_good_password(new: str, user: User, field: str) -> None:
    """
    Raises
    ------
    Refused
        for one that is short or widely known.
    """
    try:
        validate_password(new, user)
    except ValidationError as error:
        said = " ".join(error.messages)
        raise Refused("weak_password", said, 422, **{field: said}) from error


def require_free_username(username: str) -> None:
    """
    Raises
    ------
    Refused
        for a name somebody signs in with, however it is written large or small.
    """
    if User.objects.filter(username__iexact=username).exists():
        raise Refused("name_taken", f"Somebody signs in as “{username}” already. Choose another name.", 422, username="Taken; choose another.")  # fmt: skip


def change_password(request: HttpRequest, old: str, new: str) -> None:
    """A new password, by who knows the old one. Every other device is signed out by it.

    Raises
    ------
    Refused
        for a wrong old one, a new one that is too easy, or an account of the demo.
    """
    user = own_user(request)
    require_own_account(user)
    require_password(request, user, old, "old")
    require_good_password(new, user, "new")
    user.set_password(new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)


def write_email(request: HttpRequest, email: str) -> None:
    """Where mail with a link to a new password goes; empty for nowhere."""
    user = own_user(request)
    require_own_account(user)
    user.email = email
    user.save(update_fields=["email"])


@transaction.atomic
def end_sessions(user: User, but: str | None = None) -> int:
    """End every session of a person, but for one; how many there were."""
    ended = 0
    for row in Session.objects.filter(expire_date__gt=timezone.now()).exclude(session_key=but or "").iterator():
        if row.get_decoded().get(SESSION_KEY) == str(user.pk):
            row.delete()
            ended += 1
    return ended


def sign_out_elsewhere(request: HttpRequest) -> int:
    """End every other session of this person; how many there were."""
    return end_sessions(own_user(request), but=request.session.session_key)
