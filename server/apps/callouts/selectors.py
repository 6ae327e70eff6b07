"""Named reads of call-outs."""

from __future__ import annotations

import uuid
from typing import Any, Final, Literal

from cattrs import unstructure
from django.utils import timezone

from apps.callouts.books import bag_of, book_of
from apps.callouts.models import CallOut, CallOutEvent
from apps.callouts.schemas import CallOutLine, CallOutOut
from apps.callouts.stored import as_stored, entered
from apps.workshops.models import Membership
from drumwork.callout import Book, Letter, LetterForm, fold_callout, letter_form, letter_of

__all__ = ["callout_by_id", "callout_of", "callouts", "letter"]

RECENT: Final = 30


def callout_by_id(key: uuid.UUID) -> CallOut:
    """The call-out, or CallOut.DoesNotExist."""
    return CallOut.objects.select_related("kit").get(pk=key)


def _state(row: CallOut) -> Literal["coming", "going-on", "over", "reported", "answered"]:
    if row.answered_at:
        return "answered"
    if row.reported_at:
        return "reported"
    if row.over_at:
        return "over"
    return "going-on" if row.began_at else "coming"


def callouts() -> list[CallOutLine]:
    """Those to come and going on first, the nearest show first; then the last that were."""
    rows = CallOut.objects.defer("book", "asked", "carried")
    ahead = rows.filter(over_at__isnull=True).order_by("show_at", "-made_at")[:RECENT]
    return [
        CallOutLine(
            id=str(row.pk), name=row.name, at=row.at, show_at=row.show_at, minutes=row.minutes, state=_state(row), touched_at=row.touched_at,
            owing=row.owing, by=row.started_by_name,
        )
        for row in (*ahead, *rows.filter(over_at__isnull=False).order_by("-over_at")[:RECENT])
    ]  # fmt: skip


def _event(row: CallOutEvent) -> dict[str, Any]:
    return {
        "id": str(row.pk), "seq": row.seq, "by": row.by_name, "at": row.made_at, "device": row.device,
        "body": row.body,
    }  # fmt: skip


def _form(callout: CallOut, book: Book, member: Membership) -> LetterForm:
    return letter_form(book, callout.name, callout.at, member.shown_name, member.workshop.name)


def callout_of(callout: CallOut, member: Membership, since: int) -> CallOutOut:
    """A call-out with its log after `since`; the book, the bag and the form of the note only where it is asked for from the start."""
    fresh = since < 0
    book = book_of(callout, member.workshop) if fresh else None
    rows = CallOutEvent.objects.filter(callout=callout, seq__gt=max(0, since))
    return CallOutOut.model_validate(
        {
            "id": str(callout.pk), "kit": callout.kit_id, "name": callout.name, "at": callout.at, "show_at": callout.show_at,
            "minutes": callout.minutes, "last_seq": callout.last_seq, "owing": callout.owing, "events": [_event(row) for row in rows],
            "book": as_stored(book) if book else None,
            "bag": [unstructure(each) for each in bag_of(callout, book)] if book else [],
            "form": unstructure(_form(callout, book, member)) if book else None,
        }
    )  # fmt: skip


def letter(callout: CallOut, member: Membership) -> Letter:
    """The note to the owner as the log has it now."""
    book = book_of(callout, member.workshop)
    stands = fold_callout(book, entered(CallOutEvent.objects.filter(callout=callout)))
    on = timezone.localdate(callout.began_at or callout.show_at or timezone.now())
    return letter_of(_form(callout, book, member), book, stands, on)
