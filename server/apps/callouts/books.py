"""The book of a call-out from the record: drums of its kit as they stand, who may give a rod, what was wanted before."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from django.db import transaction

from apps.bench.models import Job
from apps.callouts.models import CallOut, CallOutDrum
from apps.callouts.stored import as_stored, book_from
from apps.inspecting.record import open_findings
from apps.kits.donors import batter_of
from apps.kits.standing import Standing, standing_drums
from apps.register.models import Drum
from apps.register.schemas import length_words
from apps.register.sides import SideOf
from apps.workshops.models import Workshop
from drumwork.callout import (
    BagLine,
    Book,
    Donor,
    DrumThere,
    HeadThere,
    PastCallout,
    Weights,
    bag_for,
    make_book,
    tick_key,
)
from drumwork.drums import DrumKind, Side, traits_of

__all__ = ["bag_of", "book_of", "weights_of"]

BESIDE = 40
"""Other drums at the place that may give a rod."""
PAST = 20
_AWAY = {Drum.State.OUT: "marked as out", Drum.State.REPAIR: "in repair", Drum.State.RETIRED: "retired"}


def weights_of(workshop: Workshop) -> Weights:
    """What this workshop thinks each kind of trouble is worth."""
    return Weights(
        workshop.callout_plays,
        workshop.callout_stands,
        workshop.callout_rods,
        workshop.callout_sounds,
        workshop.callout_noise,
        workshop.callout_beside,
    )


def _heads(each: Standing) -> dict[Side, HeadThere]:
    drum = each.drum
    if not traits_of(drum.kind).rods:
        return {}
    found = {}
    for side in Side:
        of = SideOf(drum, side)
        lug = each.now[side] or of.wanted
        # Lost rods too: a lost one can be seen to be missing.
        layout = SideOf(Drum(**{name: getattr(drum, name) for name in _LAYOUT}), side).layout
        film = each.heads[side] if lug else None
        found[side] = HeadThere(layout, film, lug, each.turns_a_cent(side) if film else 0.001)
    return found


_LAYOUT = ("rods_batter", "rods_resonant", "bed_rods", "port_rods")


def _note(drum: Drum, busy: set[int]) -> str:
    if drum.pk in busy:
        return "a job on it is open on the bench"
    return _AWAY.get(Drum.State(drum.state), "")


def _there(each: Standing, known: Sequence[str], note: str) -> DrumThere:
    drum, unit = each.drum, each.workshop.length_unit
    size = f"{length_words(drum.diameter_m, unit)} {unit}"
    return DrumThere(
        drum.tag, drum.name, DrumKind(drum.kind), each.role, size, _heads(each), drum.thread, drum.hoops, tuple(known), note
    )  # fmt: skip


def _donors(callout: CallOut, drums: Sequence[Standing], workshop: Workshop) -> tuple[list[Donor], dict[str, str]]:
    """Drums of the kit, which play tonight, and others that are there and rest: at the call-out's place where it has one, else beside the kit."""
    tonight = {each.drum.pk for each in drums}
    others = Drum.objects.filter(state=Drum.State.IN).exclude(pk__in=tonight).exclude(jobs__state=Job.State.OPEN)
    if callout.at:
        others = others.filter(place__name__iexact=callout.at)
    else:
        others = others.filter(place__in={each.drum.place_id for each in drums})
    beside = others.order_by("tag")[:BESIDE]
    every = [each.drum for each in drums] + list(beside)
    found = [donor for drum in every if (donor := batter_of(drum, workshop, tonight))]
    return found, {drum.tag: drum.name for drum in every}


def _made(callout: CallOut, workshop: Workshop) -> tuple[Book, list[Drum]]:
    drums = standing_drums(callout.kit, workshop, {}) if callout.kit else []
    records = open_findings([each.drum for each in drums])
    rows = [each.drum for each in drums]
    busy = set(Job.objects.filter(drum__in=rows, state=Job.State.OPEN).values_list("drum_id", flat=True))
    there = [
        _there(
            each,
            [tick_key(each.drum.tag, one.finding, one.side.value if one.side else "", one.rod) for one in records[each.drum.pk]],
            _note(each.drum, busy),
        )
        for each in drums
    ]  # fmt: skip
    donors, names = _donors(callout, drums, workshop)
    return make_book(there, donors, names, weights_of(workshop)), rows


@transaction.atomic
def book_of(callout: CallOut, workshop: Workshop) -> Book:
    """As it stands until the first entry is made, and from then on as it was."""
    if callout.last_seq and callout.book:
        return book_from(callout)
    locked = CallOut.objects.select_for_update().get(pk=callout.pk)  # somebody may make the first entry just now
    if locked.last_seq and locked.book:
        callout.book, callout.last_seq = locked.book, locked.last_seq
        return book_from(locked)
    book, drums = _made(callout, workshop)
    callout.book = as_stored(book)
    callout.save(update_fields=["book"])
    CallOutDrum.objects.filter(callout=callout).delete()
    CallOutDrum.objects.bulk_create(
        CallOutDrum(workshop_id=callout.workshop_id, callout=callout, drum=drum, tag=drum.tag) for drum in drums
    )
    return book


def _past(besides: CallOut) -> Iterable[PastCallout]:
    rows = CallOut.objects.filter(over_at__isnull=False).exclude(pk=besides.pk).order_by("-over_at")[:PAST]
    for asked in rows.values_list("asked", flat=True):
        yield PastCallout(frozenset(asked.get("wanted", ())), tuple(asked.get("used", ())))


def bag_of(callout: CallOut, book: Book) -> list[BagLine]:
    """What to bring."""
    return bag_for(book, list(_past(callout)))
