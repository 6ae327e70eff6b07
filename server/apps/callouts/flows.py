"""Use cases of call-outs: begin one, take in its log."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from datetime import datetime

from django.db import transaction
from django.utils import timezone

from apps.bench.clocks import by_clock, said_of_clocks
from apps.bench.flows import singly
from apps.bench.schemas import Receipt
from apps.callouts.books import book_of
from apps.callouts.carrying import carry
from apps.callouts.models import CallOut, CallOutEvent
from apps.callouts.schemas import CallOutEventIn, CallOutIn
from apps.callouts.stored import ENTRY_VERSION, entry_of
from apps.register.models import Kit
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.once import asked_alone
from apps.workshops.wired import UnknownBody
from drumwork.callout import Book, BookDrum
from drumwork.callout.entries import DidStep, NotSo, SoundsFine, Ticked, WordToOwner
from drumwork.drums import Side
from drumwork.errors import DrumworkError
from drumwork.findings import finding

__all__ = ["start_callout", "take_in", "take_in_singly"]


@transaction.atomic
def start_callout(asked: CallOutIn, member: Membership) -> CallOut:
    """A call-out to a kit; asked again with the same id, the same.

    Raises
    ------
    Refused
        for a kit that is not there, or has no drums.
    """
    asked_alone(asked.id)
    if found := CallOut.objects.filter(pk=asked.id).first():
        return found
    kit = Kit.objects.filter(pk=asked.kit).first()
    if kit is None:
        raise Refused("no_kit", "There is no such kit any more. Choose another.", 404, kit="Choose another kit.")
    if not kit.drums.exists():
        raise Refused("no_drums", f"{kit.name} has no drums. Put them together first.", 422, kit="It has no drums.")
    now = timezone.now()
    return CallOut.objects.create(
        id=asked.id,
        workshop=member.workshop,
        kit=kit,
        name=kit.name,
        at=asked.at or kit.at,
        show_at=asked.show_at,
        minutes=asked.minutes,
        started_by_name=member.shown_name,
        made_at=now,
        touched_at=now,
    )


def _require(book: Book, event: CallOutEventIn) -> None:
    """Raise for an entry about what is not in this call-out's book.

    Raises
    ------
    Refused, BadFinding
    """
    if isinstance(event.body, UnknownBody):
        raise Refused(
            "unknown_entry",
            f"This server does not know “{event.body.kind}” entries yet; a newer device made it. It stays on that device. "
            "Update this server, then send it again.",
            422,
        )
    entry = entry_of(event.body.model_dump(mode="json"))
    if isinstance(entry, Ticked | NotSo | SoundsFine | WordToOwner):
        drum = next((each for each in book.drums if each.tag == entry.drum), None)
        if drum is None:
            raise Refused("not_in_callout", f"{entry.drum} is not in this call-out.", 422)
    if isinstance(entry, Ticked | NotSo) and drum is not None:
        _require_tick(drum, entry)
        rods = drum.rods_resonant if entry.side is Side.RESONANT else drum.rods_batter
        if entry.rod is not None and not 1 <= entry.rod <= rods:
            raise Refused("no_rod", f"{drum.name} has {rods} rods there, and no rod {entry.rod}.", 422)
    if isinstance(entry, DidStep) and all(step.id != entry.step for step in book.steps):
        raise Refused("no_step", "That step is not in this call-out's book.", 422)


def _require_tick(drum: BookDrum, entry: Ticked | NotSo) -> None:
    """Raise for what cannot be found there, or is told without the rod it needs.

    Raises
    ------
    Refused, BadFinding
    """
    row, side = finding(entry.finding), entry.side.value if entry.side else ""
    tick = next((each for each in drum.ticks if (each.finding, each.side) == (row.id, side)), None)
    if tick is None:
        raise Refused("no_such_place", f"{drum.name}: {row.words} cannot be said there.", 422)
    if tick.rod and entry.rod is None:
        raise Refused("which_rod", f"{drum.name}: say at which rod: {row.words}.", 422)


def _receipts(
    callout: CallOut, book: Book, events: Iterable[CallOutEventIn], member: Membership
) -> tuple[list[Receipt], list[CallOutEvent]]:
    events = list(events)
    known = {row.pk: row for row in CallOutEvent.objects.filter(pk__in=[each.id for each in events])}
    receipts, made, now = list[Receipt](), list[CallOutEvent](), timezone.now()
    for event in events:
        try:
            if event.id not in known:
                _require(book, event)
                callout.last_seq += 1
                row = CallOutEvent(
                    id=event.id, workshop_id=callout.workshop_id, callout=callout, seq=callout.last_seq, kind=event.body.kind,
                    version=ENTRY_VERSION, body=event.body.model_dump(mode="json"), by=member.user, by_name=member.shown_name,
                    device=event.device, made_at=event.made_at, received_at=now,
                )  # fmt: skip
                made.append(row)
                known[event.id] = row
            row = known[event.id]
            if row.callout_id != callout.pk:
                raise Refused("bad_event", "That entry belongs to another call-out.", 422)
            receipts.append(Receipt(id=event.id, standing="applied", seq=row.seq))
        except (DrumworkError, Refused) as error:
            receipts.append(Receipt(id=event.id, standing="refused", code=error.code, message=error.message))
    return receipts, made


@transaction.atomic
def take_in(
    key: uuid.UUID, events: list[CallOutEventIn], member: Membership, sent_at: datetime | None = None
) -> tuple[int, list[Receipt]]:
    """Take in entries in order; each is stored once, however often it is sent, and what they come to goes into the record.

    The call-out's row is locked meanwhile, so that two people's entries are numbered one after the other.
    """
    callout = CallOut.objects.select_for_update().get(pk=key)
    book = book_of(callout, member.workshop)
    events, off = by_clock(events, sent_at)
    receipts, made = _receipts(callout, book, events, member)
    if made:
        CallOutEvent.objects.bulk_create(made)
        carry(callout, book, member)
    return callout.last_seq, said_of_clocks(receipts, off)


def take_in_singly(
    key: uuid.UUID, events: list[CallOutEventIn], member: Membership, sent_at: datetime | None
) -> tuple[int, list[Receipt]]:
    return singly(lambda event: take_in(key, [event], member, sent_at), events)
