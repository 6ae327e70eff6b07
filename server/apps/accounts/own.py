"""What people may do about their own sign-in: change the password, sign out everywhere else."""

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

__all__ = ["change_password", "sign_out_elsewhere"]

_DEMO = {each.username for each in ACCOUNTS}


def _own(request: HttpRequest) -> User:
    assert isinstance(request.user, User), "signed in"
    return User.objects.get(pk=request.user.pk)


def change_password(request: HttpRequest, old: str, new: str) -> None:
    """A new password, by who knows the old one. Every other device is signed out by it.

    A wrong try is written down and must stay so: this is in no transaction of its own that a refusal would undo.

    Raises
    ------
    Refused
        for a wrong old one (guessing is limited as at sign-in), a new one that is too easy, or an account of the demo, which all share.
    """
    user = _own(request)
    if settings.DEMO and user.username in _DEMO:
        raise Refused("demo_account", "The demo’s accounts are shared; their passwords stay.", 403)
    if authenticate(request, username=user.username, password=old) is None:
        if getattr(request, "axes_locked_out", False):
            raise Refused("too_many_tries", TOO_MANY, 429)
        raise Refused("wrong_password", "That is not the password you have now.", 422, old="Not the one you have now.")
    try:
        validate_password(new, user)
    except ValidationError as error:
        said = " ".join(error.messages)
        raise Refused("weak_password", said, 422, new=said) from error
    user.set_password(new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)


@transaction.atomic
def sign_out_elsewhere(request: HttpRequest) -> int:
    """End every other session of this person; how many there were."""
    ended = 0
    rows = Session.objects.filter(expire_date__gt=timezone.now()).exclude(session_key=request.session.session_key)
    for row in rows.iterator():
        if row.get_decoded().get(SESSION_KEY) == str(request.user.pk):
            row.delete()
            ended += 1
    return ended
