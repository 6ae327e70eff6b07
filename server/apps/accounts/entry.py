"""Coming in: password, second step, passkey; and what a device is told about who is in."""

from __future__ import annotations

import time
from typing import Final

from django.conf import settings
from django.contrib.auth import authenticate, login
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse

from apps.accounts import second_step
from apps.accounts.demo_accounts import ACCOUNTS, PASSWORD
from apps.accounts.guard import TOO_MANY, remember_device, require_no_spraying
from apps.accounts.mail import has_mail
from apps.accounts.schemas import DemoAccount, SessionOut, WorksIn
from apps.accounts.signed_in import MEMBER, member_of, memberships_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from apps.workshops.schemas import shape_workshop

__all__ = ["admit", "by_code", "by_password", "session_of", "signed_out", "switch"]

BACKEND: Final = "apps.accounts.backends.MemberBackend"
_HALF: Final = "half-signed-in"
_HALF_S: Final = 300


def session_of(user: User, wanted: object) -> SessionOut:
    """What is said of somebody signed in; as of somebody signed out where they work nowhere."""
    works = memberships_of(user)
    found = member_of(works, wanted)
    if found is None:
        return signed_out()
    return SessionOut(
        username=user.get_username(),
        kept_for=f"{user.get_username()}@{found.workshop.slug}",
        shown_name=found.shown_name,
        role=found.role,
        email=user.email,
        workshop=shape_workshop(found.workshop),
        workshops=[WorksIn(id=each.workshop_id, name=each.workshop.name, role=each.role) for each in works],
        demo=found.workshop.demo,
        mail=has_mail(),
    )


def signed_out(half: bool = False) -> SessionOut:
    named = [
        DemoAccount(username=a.username, password=PASSWORD, shown_name=a.shown_name, role=a.role) for a in ACCOUNTS
    ]
    workshops = set(Workshop.objects.values_list("demo", flat=True))
    return SessionOut(
        username=None,
        demo_accounts=named if settings.DEMO and True in workshops else [],
        second_step=half,
        first_run=False not in workshops,
        mail=has_mail(),
    )


def admit(request: HttpRequest, user: User, member: Membership | None = None) -> SessionOut:
    """Sign somebody in who has shown who they are.

    Raises
    ------
    Refused
        for somebody who works nowhere any more, or in a demo that is off.
    """
    if not memberships_of(user):
        if Membership.objects.filter(user=user).exists():
            raise Refused("demo_off", "The demo is off here. Ask whoever runs this, or start it with the demo.", 403)
        raise Refused("no_workshop", "You work in no workshop here any more. Ask an owner for an invitation.", 403)
    login(request, user, backend=BACKEND)
    request.session.pop(_HALF, None)
    if member is not None:
        request.session[MEMBER] = member.pk
    return session_of(user, request.session.get(MEMBER))


def as_it_is_kept(username: str) -> str:
    """The name somebody signs in with, however it is written large or small; tries are counted by it."""
    known = User.objects.filter(username__iexact=username).order_by("pk").values_list("username", flat=True)
    return username if username in known else next(iter(known), username.casefold())


def by_password(request: HttpRequest, response: HttpResponse, username: str, password: str) -> SessionOut:
    """Limited for a name at an address, and for many names from one address: then a quarter of an hour's pause."""
    username = as_it_is_kept(username)
    require_no_spraying(request, username)
    user = authenticate(request, username=username, password=password)
    if getattr(request, "axes_locked_out", False):
        raise Refused("too_many_tries", TOO_MANY, status=429)
    if not isinstance(user, User):
        raise Refused("wrong_sign_in", "That name and password do not belong together. Check both.", status=401)
    if second_step.is_on(user):
        request.session[_HALF] = [user.pk, user.get_session_auth_hash(), int(time.time())]
        return signed_out(half=True)
    answer = admit(request, user)
    remember_device(request, response, username)
    return answer


def by_code(request: HttpRequest, response: HttpResponse, code: str) -> SessionOut:
    """The second step, within five minutes of the first."""
    key, was, at = request.session.get(_HALF) or (0, "", 0)
    user = User.objects.filter(pk=key, is_active=True).first()
    if user is None or user.get_session_auth_hash() != was or time.time() - at > _HALF_S:
        raise Refused("half_stale", "That took too long. Begin with name and password again.", 401)
    second_step.take(user, code)
    answer = admit(request, user)
    remember_device(request, response, user.username)
    return answer


def switch(request: HttpRequest, user: User, workshop: int) -> SessionOut:
    """Go on in another of one's workshops, on this device."""
    found = next((each for each in memberships_of(user) if each.workshop_id == workshop), None)
    if found is None:
        raise Refused("no_workshop", "You do not work there. Ask an owner for an invitation.", 404)
    request.session[MEMBER] = found.pk
    return session_of(user, found.pk)
