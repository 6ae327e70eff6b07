"""Links that are good once: made, looked up, used."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta
from typing import Final

from django.contrib.auth.models import User
from django.utils import timezone

from apps.people.models import Link
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop

__all__ = [
    "DAYS",
    "digest_of",
    "make_link",
    "make_password_link",
    "open_link",
    "owns_all_of",
    "state_of",
    "take_back_of",
]

DAYS: Final = {Link.Kind.JOIN: 7, Link.Kind.PASSWORD: 2}
"""For how many days a link is good."""
_GONE: Final = {
    "used": "This link was used already. Each is good once; ask for another.",
    "withdrawn": "This link was taken back. Ask whoever sent it.",
    "late": "This link is too old. Ask for another.",
    "overtaken": "What this link was made for is no longer so. Ask for another.",
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


def make_password_link(user: User, **facts: object) -> tuple[Link, str]:
    """A way to a new password for somebody as they sign in now: with another password or another address it is good for nothing.

    Earlier ones of the same door (any owner’s, who runs the machine, asked for by mail) are taken back by it.
    """
    before = Link.objects.filter(kind=Link.Kind.PASSWORD, user=user, used_at=None, withdrawn_at=None)
    owners = facts.get("workshop") is not None
    door = {"workshop__isnull": False} if owners else {"workshop": None, "made_by_name": facts.get("made_by_name", "")}
    before.filter(**door).update(withdrawn_at=timezone.now())
    return make_link(Link.Kind.PASSWORD, user=user, password_digest=digest_of(user.password), **facts)


def take_back_of(maker: Membership) -> None:
    """Whoever owns a workshop no longer leaves no open door into it."""
    made = Link.objects.filter(workshop=maker.workshop_id, made_by=maker.user_id, used_at=None, withdrawn_at=None)
    made.update(withdrawn_at=timezone.now())


def owns_all_of(maker: User | int, user: User | int) -> bool:
    """Whether somebody owns every workshop somebody works in: nobody else may set a password for them."""
    owned = Membership.objects.filter(user=maker, role=Membership.Role.OWNER).values("workshop")
    return not Membership.objects.filter(user=user).exclude(workshop__in=owned).exists()


def _overtaken(link: Link) -> bool:
    """Whether what was true when the link was made is so no longer."""
    if link.workshop_id is not None:  # made by an owner
        if link.made_by_id is None:
            return True
        owners = Membership.objects.filter(workshop=link.workshop_id, role=Membership.Role.OWNER)
        if not owners.filter(user=link.made_by_id).exists():
            return True
    if link.kind == Link.Kind.JOIN:
        return False
    assert link.user is not None, "a password link is somebody’s"
    if not link.user.is_active or link.password_digest != digest_of(link.user.password):
        return True
    if link.email and link.email != link.user.email:
        return True
    if link.workshop_id is None:
        return False
    assert link.made_by_id is not None, "asked above"
    here = Membership.objects.filter(user=link.user, workshop=link.workshop_id).exists()
    return not here or not owns_all_of(link.made_by_id, link.user)


def state_of(link: Link) -> str:
    """open, used, withdrawn or late."""
    if link.used_at:
        return "used"
    if link.withdrawn_at:
        return "withdrawn"
    return "open" if timezone.now() < link.until else "late"


def open_link(token: str, kind: Link.Kind | None = None, lock: bool = False) -> Link:
    """The link of an address, as long as it is good: asked whenever it is used, against what was so when it was made.

    With `lock` its workshop and its person stay as they are meanwhile: nobody joins elsewhere or is made less beside it.

    Raises
    ------
    Refused
        404 for none such, 410 for one that was used, taken back, or is too old.
    """
    known = Link.objects.filter(digest=digest_of(token)).first()
    if known is None or (kind is not None and known.kind != kind):
        raise Refused("no_link", "There is no such link. Open it as it was sent, whole.", 404)
    links = Link.objects.all()
    if lock:  # the workshop first, then people, as everywhere
        if known.workshop_id is not None:
            Workshop.objects.select_for_update().get(pk=known.workshop_id)
        if known.user_id is not None:
            User.objects.select_for_update().get(pk=known.user_id)
        links = links.select_for_update(of=("self",))
    found = links.select_related("workshop", "user").get(pk=known.pk)
    state = state_of(found)
    if state == "open" and _overtaken(found):
        state = "overtaken"
    if state != "open":
        raise Refused(f"link_{state}", _GONE[state], 410)
    return found
