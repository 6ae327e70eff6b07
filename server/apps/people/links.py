"""Links that are good once: made, looked up, used."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta
from typing import Final

from django.utils import timezone

from apps.people.models import Link
from apps.workshops.errors import Refused

__all__ = ["DAYS", "digest_of", "make_link", "open_link", "state_of"]

DAYS: Final = {Link.Kind.JOIN: 7, Link.Kind.PASSWORD: 2}
"""For how many days a link is good."""
_GONE: Final = {
    "used": "This link was used already. Each is good once; ask for another.",
    "withdrawn": "This link was taken back. Ask whoever sent it.",
    "late": "This link is too old. Ask for another.",
}


def digest_of(secret: str) -> str:
    """SHA-256 in hexadecimal: what a link or word is known by here."""
    return hashlib.sha256(secret.encode()).hexdigest()


def make_link(kind: Link.Kind, **facts: object) -> tuple[Link, str]:
    """A new link and what its address carries, which is nowhere kept (192 random bits)."""
    token = secrets.token_urlsafe(24)
    now = timezone.now()
    until = now + timedelta(days=DAYS[kind])
    return Link.objects.create(kind=kind, digest=digest_of(token), made_at=now, until=until, **facts), token


def state_of(link: Link) -> str:
    """open, used, withdrawn or late."""
    if link.used_at:
        return "used"
    if link.withdrawn_at:
        return "withdrawn"
    return "open" if timezone.now() < link.until else "late"


def open_link(token: str, kind: Link.Kind | None = None, lock: bool = False) -> Link:
    """The link of an address, as long as it is good.

    Raises
    ------
    Refused
        404 for none such, 410 for one that was used, taken back, or is too old.
    """
    links = Link.objects.select_for_update(of=("self",)) if lock else Link.objects.all()
    found = links.select_related("workshop", "user").filter(digest=digest_of(token)).first()
    if found is None or (kind is not None and found.kind != kind):
        raise Refused("no_link", "There is no such link. Open it as it was sent, whole.", 404)
    if (state := state_of(found)) != "open":
        raise Refused(f"link_{state}", _GONE[state], 410)
    return found
