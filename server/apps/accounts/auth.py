"""Who is asking, in which workshop. Entering the workshop happens here and nowhere else."""

from __future__ import annotations

from typing import cast

from django.conf import settings
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest
from ninja.security import APIKeyCookie

from apps.accounts.signed_in import enter_workshop_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["Request", "member", "owner", "technician"]


class Request(HttpRequest):
    """A request after sign-in."""

    member: Membership


def _require_same_workshop(request: HttpRequest, member: Membership) -> None:
    """A page says which workshop it shows. Where another tab went on elsewhere meanwhile, nothing it sends lands in the wrong one."""
    shown = request.headers.get("X-Workshop", "")
    if shown and shown != str(member.workshop_id):
        said = f"This device went on in {member.workshop.name} meanwhile. Reload this page, or go back to the other workshop first."
        raise Refused("other_workshop", said, 409)


class _Member(APIKeyCookie):
    """Any member of a workshop, by session cookie (with CSRF check)."""

    param_name = settings.SESSION_COOKIE_NAME

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
