"""The second step of signing in: a code of an app, new every half minute (RFC 6238), or one of eight on paper, each good once.

A person's wrong codes are counted over all their tries, however many sessions those come from: six, then a quarter of an hour's pause.
"""

from __future__ import annotations

import hashlib
import secrets
import time
import unicodedata
from datetime import timedelta
from typing import Final

import pyotp
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from apps.accounts.guard import TOO_MANY
from apps.accounts.models import OneTimeCodes
from apps.workshops.errors import Refused

__all__ = ["ISSUER", "begin", "is_on", "spare_left", "take", "turn_off", "turn_on"]

ISSUER: Final = "Red Tally"
STEP_S: Final = 30
_SPARE: Final = 8
_MOST_WRONG: Final = 6
_PAUSE: Final = timedelta(minutes=15)
_WRONG: Final = "Not the code, or no longer. Codes change every half minute; is the device’s clock right?"


def _digest(code: str) -> str:
    return hashlib.sha256("".join(each for each in code.casefold() if each.isalnum()).encode()).hexdigest()


def is_on(user: User) -> bool:
    return OneTimeCodes.objects.filter(user=user, on_since__isnull=False).exists()


def spare_left(user: User) -> int:
    row = OneTimeCodes.objects.filter(user=user, on_since__isnull=False).first()
    return len(row.spare_digests) if row else 0


def begin(user: User) -> tuple[str, str]:
    """A fresh secret for an app, and its `otpauth:` address; it counts only once a code of it was given."""
    if is_on(user):
        raise Refused("codes_on", "Codes are on already. Turn them off first to move to another app.", 409)
    secret = pyotp.random_base32()
    OneTimeCodes.objects.update_or_create(
        user=user, defaults={"secret": secret, "on_since": None, "last_step": 0, "wrong": 0}
    )
    return secret, pyotp.TOTP(secret).provisioning_uri(name=user.username, issuer_name=ISSUER)


def in_plain_digits(code: str) -> str:
    """A code as it is typed, in whatever digits a keyboard has, without its blanks; what is no digit stays out of it."""
    return "".join(str(unicodedata.decimal(each)) for each in code if each.isdecimal())


def _step_of(secret: str, code: str, after: int) -> int | None:
    """The time step a code belongs to, one before or after now at most, and later than the last one taken."""
    now = int(time.time()) // STEP_S
    totp = pyotp.TOTP(secret, interval=STEP_S)
    given = in_plain_digits(code)
    return next(
        (
            step
            for step in (now, now - 1, now + 1)
            if step > after and secrets.compare_digest(totp.at(step * STEP_S), given)
        ),
        None,
    )


def _count_wrong(row: OneTimeCodes) -> Refused:
    row.wrong, row.wrong_at = row.wrong + 1, timezone.now()
    row.save(update_fields=["wrong", "wrong_at"])
    return Refused("wrong_code", _WRONG, 422)


def _row(user: User) -> OneTimeCodes:
    """Held until the transaction ends: of two that give the same code at once, one gets in."""
    row = OneTimeCodes.objects.select_for_update().filter(user=user).first()
    if row is None:
        raise Refused("no_codes", "Codes were not begun. Begin again.", 409)
    if row.wrong >= _MOST_WRONG and row.wrong_at and timezone.now() - row.wrong_at < _PAUSE:
        raise Refused("too_many_tries", TOO_MANY, 429)
    return row


def turn_on(user: User, code: str) -> list[str]:
    """From now on a code is asked for; the spare ones, said this once.

    Raises
    ------
    Refused
        for a wrong code, which is counted, or after too many.
    """
    row = _row(user)
    step = _step_of(row.secret, code, 0)
    if step is None:
        raise _count_wrong(row)
    spare = [f"{secrets.token_hex(2)}-{secrets.token_hex(2)}-{secrets.token_hex(2)}" for _ in range(_SPARE)]
    row.on_since, row.last_step, row.wrong, row.spare_digests = (
        timezone.now(),
        step,
        0,
        [_digest(each) for each in spare],
    )
    row.save()
    return spare


def take(user: User, code: str) -> None:
    """Take a code of the app, or a spare one; neither is good a second time.

    Raises
    ------
    Refused
        for a wrong one, which is counted and stays counted, or after too many.
    """
    row = _row(user)
    step = _step_of(row.secret, code, row.last_step)
    spare = _digest(code)
    if step is None and spare not in row.spare_digests:
        raise _count_wrong(row)
    with transaction.atomic():
        if step is not None:
            row.last_step = step
        else:
            row.spare_digests = [each for each in row.spare_digests if each != spare]
        row.wrong = 0
        row.save()


def turn_off(user: User) -> None:
    """No second step any more."""
    OneTimeCodes.objects.filter(user=user).delete()
