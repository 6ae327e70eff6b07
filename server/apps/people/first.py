"""A new installation: the one-time word in the terminal, and the first workshop it begins."""

from __future__ import annotations

import secrets
from typing import Final

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from apps.accounts.own import require_free_username, require_good_password
from apps.people.links import digest_of
from apps.people.models import Installation
from apps.register.models import Owner, Place
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from apps.workshops.names import make_workshop
from apps.workshops.scope import acting, enter_workshop

__all__ = ["begin_first", "begin_workshop", "demo_removed", "installation", "is_first_run", "new_word"]

_LETTERS: Final = "abcdefghjkmnpqrstuvwxyz23456789"  # none that is read as another
_GROUPS: Final = 4
_MOST_TRIES: Final = 10


def installation(lock: bool = False) -> Installation:
    """The one row; made when first asked for."""
    Installation.objects.get_or_create(pk=1)
    return (Installation.objects.select_for_update() if lock else Installation.objects).get(pk=1)


def is_first_run() -> bool:
    """Whether nobody has made a workshop of their own yet."""
    return not Workshop.objects.filter(demo=False).exists()


def new_word() -> str | None:
    """Another word to begin with, good once; the one before is forgotten. None where there is a workshop already."""
    if not is_first_run():
        return None
    word = "-".join("".join(secrets.choice(_LETTERS) for _ in range(4)) for _ in range(_GROUPS))
    row = installation()
    row.word_digest, row.word_tries = digest_of(_plain(word)), 0
    row.save(update_fields=["word_digest", "word_tries"])
    return word


def _plain(word: str) -> str:
    return "".join(each for each in word.casefold() if each.isalnum())


def _require_word(row: Installation, word: str) -> None:
    if not row.word_digest or row.word_tries >= _MOST_TRIES:
        raise Refused("no_word", "No word is good just now. Start Red Tally again: it prints a new one.", 410)
    if not secrets.compare_digest(digest_of(_plain(word)), row.word_digest):
        row.word_tries += 1
        row.save(update_fields=["word_tries"])
        left = _MOST_TRIES - row.word_tries
        raise Refused(
            "wrong_word", "That is not the word printed in the terminal.", 422,
            word=f"Not the word. {left} more tries." if left else "Not the word. Start Red Tally again for a new one.",
        )  # fmt: skip


def begin_first(word: str, name: str, unit: str, username: str, shown_name: str, password: str) -> Membership:
    """The first workshop and its owner, once, by who has read the terminal.

    A wrong try is counted and must stay so: what a refusal undoes begins after it.

    Raises
    ------
    Refused
        where there is a workshop already, for a wrong or worn-out word, a name that is taken, or a password that is too easy.
    """
    row = installation(lock=True)
    if not is_first_run():
        raise Refused(
            "begun", "This installation has its workshop already. Sign in, or ask its owner to invite you.", 410
        )
    _require_word(row, word)
    with transaction.atomic():
        require_free_username(username)
        user = User(username=username)
        require_good_password(password, user, "password")
        user.set_password(password)
        user.save()
        acting(shown_name, user.pk)
        member = begin_workshop(name, unit, user, shown_name)
        row.word_digest = ""
        row.save(update_fields=["word_digest"])
        return member


@transaction.atomic
def begin_workshop(name: str, unit: str, user: User, shown_name: str) -> Membership:
    """A workshop with a first place and a first owner of drums, and somebody to own it."""
    workshop = make_workshop(name, length_unit=unit)
    enter_workshop(workshop.pk)
    Place.objects.create(workshop=workshop, name="workshop")
    Owner.objects.create(workshop=workshop, name=workshop.name[:80])
    return Membership.objects.create(user=user, workshop=workshop, role=Membership.Role.OWNER, shown_name=shown_name)


def demo_removed() -> None:
    """Remember that the demo was sent away, so that no start brings it back unasked."""
    row = installation()
    row.demo_removed_at = timezone.now()
    row.save(update_fields=["demo_removed_at"])
