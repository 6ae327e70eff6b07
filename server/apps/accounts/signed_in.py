"""Who is behind a session, without reading it all again each time: the database says whether anything about them has changed."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Sequence
from copy import copy
from typing import NamedTuple

from django.conf import settings
from django.contrib.auth import get_user, get_user_model
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.db import connection
from django.http import HttpRequest

from apps.workshops.models import Membership, Workshop

__all__ = ["MEMBER", "enter_workshop_of", "member_of", "memberships_of"]

MEMBER = "member"
"""In a session: which of a person's memberships is the one at work."""

_MOST_KNOWN = 500

# PostgreSQL tells every version of a row from every other by xmin and ctid: the same four are the same four rows, unchanged. One statement
# asks that, asks whether the session still runs, and enters the workshop (see workshops.scope).
_ENTER = f"""
    select (s.xmin, s.ctid)::text, (u.xmin, u.ctid)::text, (m.xmin, m.ctid)::text, (w.xmin, w.ctid)::text,
        set_config('app.workshop', w.id::text, true), set_config('app.person', u.id::text, true), set_config('app.person_name', m.shown_name, true)
    from {Session._meta.db_table} s, {get_user_model()._meta.db_table} u
    join {Membership._meta.db_table} m on m.user_id = u.id
    join {Workshop._meta.db_table} w on w.id = m.workshop_id
    where s.session_key = %s and s.expire_date > now() and m.id = %s and (not w.demo or %s)
"""


class _Known(NamedTuple):
    versions: tuple[str, ...]
    member: Membership


_KNOWN: OrderedDict[str, _Known] = OrderedDict()


def _enter(session_key: str, member_id: int) -> tuple[str, ...] | None:
    with connection.cursor() as cursor:
        cursor.execute(_ENTER, [session_key, member_id, settings.DEMO])
        row = cursor.fetchone()
    return row[:4] if row else None


def _known(session_key: str) -> Membership | None:
    """Who this process knows behind the session, their workshop entered; None where they must be read anew.

    Signing out, a changed password, role or setting, in whatever process, changes a row: what was known then no longer counts.
    """
    known = _KNOWN.get(session_key)
    if known is None or _enter(session_key, known.member.pk) != known.versions:
        _KNOWN.pop(session_key, None)
        return None
    member = copy(known.member)
    member.workshop = copy(known.member.workshop)
    return member


def memberships_of(user: User) -> list[Membership]:
    """Where somebody works, in the order they came; the demo only while it is on."""
    rows = Membership.objects.select_related("workshop", "user").filter(user=user).order_by("pk")
    return [each for each in rows if settings.DEMO or not each.workshop.demo]


def member_of(memberships: Sequence[Membership], wanted: object) -> Membership | None:
    """The one at work: the one chosen, or the first."""
    return next((each for each in memberships if each.pk == wanted), memberships[0] if memberships else None)


def _read(request: HttpRequest) -> Membership | None:
    user = get_user(request)
    return member_of(memberships_of(user), request.session.get(MEMBER)) if isinstance(user, User) else None


def _read_and_remember(request: HttpRequest, session_key: str) -> Membership | None:
    found = _read(request)
    versions = _enter(session_key, found.pk) if found else None
    member = _read(request) if versions else None  # read after the versions were: never older than they say
    if versions is None or member is None:
        return None
    _KNOWN[session_key] = _Known(versions, copy(member))
    while len(_KNOWN) > _MOST_KNOWN:
        _KNOWN.popitem(last=False)
    return member


def enter_workshop_of(request: HttpRequest, session_key: str) -> Membership | None:
    """Who is signed in with this session; for the rest of the transaction only their workshop's rows exist. None for nobody."""
    return _known(session_key) or _read_and_remember(request, session_key)
