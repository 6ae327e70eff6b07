"""Use cases of people: invite, join, change a role, remove, a new password by link."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from apps.accounts.own import end_sessions, require_free_username, require_good_password
from apps.accounts.second_step import turn_off
from apps.people.links import make_link, make_password_link, open_link, owns_all_of, take_back_of
from apps.people.models import Link
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import acting

__all__ = [
    "change",
    "invite",
    "join_as",
    "join_new",
    "new_password",
    "remove",
    "require_real",
    "reset_link",
    "withdraw",
]


def _lock(member: Membership) -> None:
    """One change of people at a time, so that two owners cannot remove each other at once."""
    Workshop.objects.select_for_update().get(pk=member.workshop_id)


def _of_workshop(member: Membership, key: int) -> Membership:
    found = Membership.objects.select_related("user").filter(workshop=member.workshop_id, pk=key).first()
    if found is None:
        raise Refused("no_person", "Nobody here is known so any more. Reload the page.", 404)
    return found


def _require_another_owner(but: Membership) -> None:
    owners = Membership.objects.filter(workshop=but.workshop_id, role=Membership.Role.OWNER).exclude(pk=but.pk)
    if but.role == Membership.Role.OWNER and not owners.exists():
        raise Refused("last_owner", "A workshop needs an owner. Make somebody else an owner first.")


def require_real(member: Membership) -> None:
    """
    Raises
    ------
    Refused
        in the demo.
    """
    if member.workshop.demo:
        raise Refused("demo", "The demo’s people are everybody’s and stay as they are. Begin a workshop of your own to invite yours.", 403)  # fmt: skip


def invite(member: Membership, role: str, shown_name: str, email: str) -> tuple[Link, str]:
    """A link into the workshop, and what its address carries."""
    require_real(member)
    return make_link(
        Link.Kind.JOIN, workshop=member.workshop, role=role, shown_name=shown_name, email=email, made_by=member.user, made_by_name=member.shown_name
    )  # fmt: skip


@transaction.atomic
def withdraw(member: Membership, key: int) -> None:
    """Take a link back before somebody uses it."""
    link = Link.objects.select_for_update().filter(workshop=member.workshop_id, pk=key).first()
    if link is None or link.used_at:
        raise Refused("link_used", "That link was used meanwhile. Remove the person instead.", 409)
    link.withdrawn_at = timezone.now()
    link.save(update_fields=["withdrawn_at"])


@transaction.atomic
def change(member: Membership, key: int, role: str, shown_name: str) -> Membership:
    """Somebody’s role and shown name.

    Raises
    ------
    Refused
        where the only owner would be one no more.
    """
    require_real(member)
    _lock(member)
    person = _of_workshop(member, key)
    if role != Membership.Role.OWNER:
        _require_another_owner(person)
        take_back_of(person)
    person.role, person.shown_name = role, shown_name
    person.save(update_fields=["role", "shown_name"])
    return person


@transaction.atomic
def remove(member: Membership, key: int) -> None:
    """Somebody works here no more. What they did keeps their name; their account stays for other workshops."""
    require_real(member)
    _lock(member)
    person = _of_workshop(member, key)
    _require_another_owner(person)
    take_back_of(person)
    Link.objects.filter(workshop=member.workshop_id, user=person.user, used_at=None).update(withdrawn_at=timezone.now())
    person.delete()


@transaction.atomic
def reset_link(member: Membership, key: int) -> tuple[Link, str]:
    """A link with which somebody of the workshop sets a new password; a second step they no longer have is taken off by it.

    Raises
    ------
    Refused
        for somebody who works in a workshop this owner does not own: one workshop’s owner must not get into another.
    """
    require_real(member)
    person = _of_workshop(member, key)
    if not owns_all_of(member.user, person.user):
        raise Refused("also_elsewhere", f"{person.shown_name} also works in another workshop. Only they themselves can set a new password.", 403)  # fmt: skip
    return make_password_link(
        person.user, workshop=member.workshop, shown_name=person.shown_name, made_by=member.user, made_by_name=member.shown_name,
        second_step_off=True,
    )  # fmt: skip


def _use(link: Link, name: str) -> None:
    link.used_at, link.used_by_name = timezone.now(), name
    link.save(update_fields=["used_at", "used_by_name"])


def _enter(link: Link, user: User, shown_name: str) -> Membership:
    assert link.workshop is not None, "an invitation leads into a workshop"
    User.objects.select_for_update().get(
        pk=user.pk
    )  # a way to a new password made meanwhile sees that they work here too
    if Membership.objects.filter(user=user, workshop=link.workshop).exists():
        raise Refused("member_already", f"You work in {link.workshop.name} already.", 409)
    made = Membership.objects.create(user=user, workshop=link.workshop, role=link.role, shown_name=shown_name)
    _use(link, shown_name)
    return made


@transaction.atomic
def join_new(token: str, username: str, shown_name: str, password: str) -> Membership:
    """A new account, in the workshop of an invitation.

    Raises
    ------
    Refused
        for a link that is no good, a name that is taken, a password that is too easy.
    """
    link = open_link(token, Link.Kind.JOIN, lock=True)
    require_free_username(username)
    user = User(username=username, email=link.email)
    require_good_password(password, user, "password")
    user.set_password(password)
    user.save()
    acting(shown_name, user.pk)
    return _enter(link, user, shown_name)


@transaction.atomic
def join_as(token: str, member: Membership) -> Membership:
    """Who is signed in joins one more workshop."""
    if settings.DEMO and member.workshop.demo:
        raise Refused(
            "demo", "You are signed in with an account of the demo. Sign out first, then open the link again.", 403
        )
    link = open_link(token, Link.Kind.JOIN, lock=True)
    return _enter(link, User.objects.get(pk=member.user_id), link.shown_name or member.shown_name)


@transaction.atomic
def new_password(token: str, new: str) -> User:
    """Set a new password by link; whoever was signed in with the old one is signed out."""
    link = open_link(token, Link.Kind.PASSWORD, lock=True)
    assert link.user_id is not None, "a password link is somebody’s"
    user = User.objects.get(pk=link.user_id)
    require_good_password(new, user, "new")
    acting(link.shown_name or user.username, user.pk)
    user.set_password(new)
    user.save(update_fields=["password"])
    if link.second_step_off:
        turn_off(user)
    end_sessions(user)
    _use(link, link.shown_name)
    return user
