"""Use cases of walks: begin one, take in what was seen, add a drum, end it."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Sequence
from datetime import datetime
from typing import Final

from django.db import transaction
from django.utils import timezone

from apps.bench.clocks import by_clock, said_of_clocks
from apps.bench.flows import singly
from apps.bench.schemas import Receipt
from apps.inspecting.models import Walk, WalkDrum, WalkEvent
from apps.inspecting.record import layouts_of, records_of
from apps.inspecting.schemas import WalkEventIn, WalkIn
from apps.inspecting.standing import Stands, drum_of_walk, stands_of, store
from apps.inspecting.stored import ENTRY_VERSION, entry_from
from apps.inspecting.verdicts import carry_look
from apps.register.lookup import drums_by_tag
from apps.register.models import Drum
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.once import asked_alone
from apps.workshops.wired import UnknownBody
from drumwork.drums import DrumKind, Side
from drumwork.errors import DrumworkError
from drumwork.inspecting import require_fits

__all__ = ["MOST_DRUMS", "add_drum", "finish", "go_on", "start_walk", "take_in", "take_in_singly"]

MOST_DRUMS: Final = 400
"""Of one walk; a shelf, or a store's whole afternoon."""


def _chosen(asked: WalkIn) -> list[Drum]:
    """The drums of a walk, in its order.

    Raises
    ------
    Refused
        for a tag nobody has, for no drum at all, or for too many.
    """
    drums = Drum.objects.select_related("place").exclude(state=Drum.State.RETIRED)
    if asked.tags:
        by_tag = drums_by_tag(asked.tags, drums)
        if missing := next((tag for tag in asked.tags if tag not in by_tag), None):
            raise _unknown(missing)
        return list({by_tag[tag].pk: by_tag[tag] for tag in asked.tags}.values())
    narrowed = {"kind": asked.kind, "place__name": asked.place, "kits__name": asked.kit}
    found = list(
        drums.filter(**{name: value for name, value in narrowed.items() if value}).order_by("tag")[: MOST_DRUMS + 1]
    )
    if not found:
        raise Refused("no_drums", "No drum fits this. Choose another place or kind, or name a tag.", 422)
    if len(found) > MOST_DRUMS:
        raise Refused("too_many", f"A walk has up to {MOST_DRUMS} drums. Narrow it to a place or a kind.", 422)
    return found


def _unknown(tag: str) -> Refused:
    return Refused("unknown_tag", f"No drum here has the tag {tag}. Look at its label, or add the drum first.", 404)


def _named(asked: WalkIn, drums: Sequence[Drum]) -> str:
    if asked.name:
        return asked.name
    return (
        drums[0].name
        if len(drums) == 1
        else (asked.kit or asked.place or asked.kind.replace("-", " ") or f"{len(drums)} drums")
    )


def _add(walk: Walk, drums: Sequence[Drum], first: int) -> None:
    records = records_of(drums)
    WalkDrum.objects.bulk_create(
        WalkDrum(workshop_id=walk.workshop_id, walk=walk, drum=drum, place=first + n, record=records[drum.pk])
        for n, drum in enumerate(drums)
    )


@transaction.atomic
def start_walk(asked: WalkIn, member: Membership) -> Walk:
    """Begin a walk; asked again with the same id, the same walk."""
    asked_alone(asked.id)
    if found := Walk.objects.filter(pk=asked.id).first():
        return found
    drums, now = _chosen(asked), timezone.now()
    walk = Walk(
        id=asked.id,
        workshop=member.workshop,
        name=_named(asked, drums)[:80],
        going_out=asked.going_out,
        started_by_name=member.shown_name,
        started_at=now,
        touched_at=now,
    )
    walk.save(force_insert=True)
    _add(walk, drums, 1)
    return walk


@transaction.atomic
def add_drum(walk_id: uuid.UUID, tag: str, member: Membership) -> str:
    """One more drum for a walk, next to last; the tag as it is on record. A drum that is there stays where it is.

    Raises
    ------
    Refused
        for a tag nobody has.
    """
    walk = Walk.objects.select_for_update().get(pk=walk_id)
    drum = Drum.objects.filter(tag__iexact=tag.strip()).first()
    if drum is None:
        raise _unknown(tag)
    if not WalkDrum.objects.filter(walk=walk, drum=drum).exists():
        last = WalkDrum.objects.filter(walk=walk).order_by("-place").values_list("place", flat=True).first() or 0
        _add(walk, [drum], last + 1)
        _touch(walk)
    return drum.tag


def _touch(walk: Walk) -> None:
    walk.touched_at = timezone.now()
    walk.save(update_fields=["touched_at", "last_seq", "state"])


@transaction.atomic
def finish(walk_id: uuid.UUID) -> None:
    """The walk is over; what was not looked at stays so."""
    walk = Walk.objects.select_for_update().get(pk=walk_id)
    walk.state = Walk.State.DONE
    _touch(walk)


@transaction.atomic
def go_on(walk_id: uuid.UUID) -> None:
    walk = Walk.objects.select_for_update().get(pk=walk_id)
    walk.state = Walk.State.OPEN
    _touch(walk)


def _take_one(stands: Stands, event: WalkEventIn, member: Membership) -> WalkEvent:
    """The row of one entry, as the core and the walk have nothing against it."""
    if isinstance(event.body, UnknownBody):
        raise Refused(
            "unknown_entry",
            f"This server does not know “{event.body.kind}” entries yet; a newer device made it. It stays on that device. "
            "Update this server, then send it again.",
            422,
        )
    body = event.body.model_dump(mode="json")
    walk, drum = stands.walk, stands.drums.get(event.body.drum)
    if drum is None:
        raise Refused("not_in_walk", f"{event.body.drum} is not in this walk. Add it, then enter this again.", 422)
    layouts = layouts_of(drum)
    require_fits(entry_from(body), DrumKind(drum.kind), {side.value: layouts.get(side) for side in Side})
    walk.last_seq += 1
    return WalkEvent(
        id=event.id,
        workshop_id=walk.workshop_id,
        walk=walk,
        seq=walk.last_seq,
        tag=drum.tag,
        kind=event.body.kind,
        version=ENTRY_VERSION,
        body=body,
        by=member.user,
        by_name=member.shown_name,
        device=event.device,
        made_at=event.made_at,
        received_at=timezone.now(),
    )


def _receipts(
    stands: Stands, events: Iterable[WalkEventIn], member: Membership
) -> tuple[list[Receipt], list[WalkEvent]]:
    rows, receipts = list[WalkEvent](), list[Receipt]()
    known = dict(stands.known)
    for event in events:
        try:
            if event.id not in known:
                rows.append(_take_one(stands, event, member))
                known[event.id] = (stands.walk.pk, rows[-1].seq)
            walk, seq = known[event.id]
            if walk != stands.walk.pk:
                raise Refused("bad_event", "That entry belongs to another walk.", 422)
            receipts.append(Receipt(id=event.id, standing="applied", seq=seq))
        except (DrumworkError, Refused) as error:
            receipts.append(Receipt(id=event.id, standing="refused", code=error.code, message=error.message))
    return receipts, rows


@transaction.atomic(savepoint=False)
def take_in(
    walk_id: uuid.UUID, events: list[WalkEventIn], member: Membership, sent_at: datetime | None = None
) -> tuple[int, list[Receipt]]:
    """Take in entries in order; each is stored once, however often it is sent. Looks that are done go into the record.

    The walk's row is locked meanwhile, so that two people's entries are numbered one after the other.
    """
    tags = {event.body.drum for event in events if not isinstance(event.body, UnknownBody)}
    stands = stands_of(walk_id, member.workshop_id, tags, [event.id for event in events])
    walk = stands.walk
    events, off = by_clock(events, sent_at)
    receipts, made = _receipts(stands, events, member)
    receipts = said_of_clocks(receipts, off)
    if not made:
        return walk.last_seq, receipts
    store(walk, made)
    touched = {row.tag for row in made}
    looked = {row.tag for row in made if row.kind == "looked"} | (stands.looked & touched)
    for tag in sorted(looked):
        carry_look(walk, drum_of_walk(walk, tag), member)
    return walk.last_seq, receipts


def take_in_singly(
    walk_id: uuid.UUID, events: list[WalkEventIn], member: Membership, sent_at: datetime | None
) -> tuple[int, list[Receipt]]:
    return singly(lambda event: take_in(walk_id, [event], member, sent_at), events)
