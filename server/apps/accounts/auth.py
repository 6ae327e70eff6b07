"""Who is asking, in which workshop. Entering the workshop happens here and nowhere else."""

from __future__ import annotations

from typing import cast

from django.conf import settings
from django.contrib.sessions.backends.db import SessionStore
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, QueryDict
from ninja.security import APIKeyCookie

from apps.accounts.signed_in import enter_workshop_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["FromWithin", "Request", "member", "owner", "technician"]


class Request(HttpRequest):
    """A request after sign-in."""

    member: Membership


def _require_same_workshop(request: HttpRequest, member: Membership) -> None:
    """A page says which workshop it shows. Where another tab went on elsewhere meanwhile, nothing it sends lands in the wrong one."""
    shown = request.headers.get("X-Workshop", "")
    if shown and shown != str(member.workshop_id):
        said = f"This device went on in {member.workshop.name} meanwhile. Reload this page, or go back to the other workshop first."
        raise Refused("other_workshop", said, 409)


class FromWithin(Request):
    """A page this server opens for itself, within a transaction that has entered the workshop of `member`. None comes in by a socket."""

    def __init__(self, address: str, member: Membership) -> None:
        super().__init__()
        self.method, self.member, self.user = "GET", member, member.user
        self.path_info = self.path = address.partition("?")[0]
        self.META |= {"QUERY_STRING": address.partition("?")[2], "SERVER_NAME": "localhost", "SERVER_PORT": "80"}
        self.GET = QueryDict(self.META["QUERY_STRING"])
        self.session = SessionStore()


class _Member(APIKeyCookie):
    """Any member of a workshop, by session cookie (with CSRF check)."""

    param_name = settings.SESSION_COOKIE_NAME

    def __call__(self, request: HttpRequest) -> Membership | None:
        if isinstance(request, FromWithin):
            return request.member
        found: Membership | None = super().__call__(request)
        return found

    def authenticate(self, request: HttpRequest, key: str | None) -> Membership | None:
        found = enter_workshop_of(request, key) if key else None
        if found is not None:
            _require_same_workshop(request, found)
            request.session.accessed = True  # answers differ by cookie, and say so
            cast(Request, request).member = found
        return found


class _Technician(_Member):
    """A member who may change things."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Membership | None:
        found = super().authenticate(request, key)
        if found is not None and not found.may_change:
            raise PermissionDenied
        return found


class _Owner(_Member):
    """An owner: people, and what concerns the whole workshop."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Membership | None:
        found = super().authenticate(request, key)
        if found is not None and found.role != Membership.Role.OWNER:
            raise Refused("owners_only", "Only an owner of the workshop does this. Ask one.", 403)
        return found


member = _Member()
technician = _Technician()
owner = _Owner()
