"""Who is behind a session, without reading it all again each time: the database says whether anything about them has changed."""

from __future__ import annotations

from collections import OrderedDict
from copy import copy
from typing import NamedTuple

from django.contrib.auth import get_user, get_user_model
from django.contrib.sessions.models import Session
from django.db import connection
from django.http import HttpRequest

from apps.workshops.models import Membership, Workshop

__all__ = ["enter_workshop_of"]

_MOST_KNOWN = 500

# PostgreSQL tells every version of a row from every other by xmin and ctid: the same four are the same four rows, unchanged. One statement
# asks that, asks whether the session still runs, and enters the workshop (see workshops.scope).
_ENTER = f"""
    select (s.xmin, s.ctid)::text, (u.xmin, u.ctid)::text, (m.xmin, m.ctid)::text, (w.xmin, w.ctid)::text,
        set_config('app.workshop', w.id::text, true)
    from {Session._meta.db_table} s, {get_user_model()._meta.db_table} u
    join {Membership._meta.db_table} m on m.user_id = u.id
    join {Workshop._meta.db_table} w on w.id = m.workshop_id
    where s.session_key = %s and s.expire_date > now() and m.id = %s
"""


class _Known(NamedTuple):
    versions: tuple[str, ...]
    member: Membership


_KNOWN: OrderedDict[str, _Known] = OrderedDict()


def _enter(session_key: str, member_id: int) -> tuple[str, ...] | None:
    with connection.cursor() as cursor:
        cursor.execute(_ENTER, [session_key, member_id])
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


def _read(request: HttpRequest) -> Membership | None:
    user = get_user(request)
    return getattr(user, "membership", None) if user.is_authenticated else None


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
