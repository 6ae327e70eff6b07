"""The note of a bare head, held by its edge and tapped: kept with its line, and what it foretells (C9; common practice, no source)."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Sequence
from statistics import median
from typing import Final

from django.db import transaction
from django.utils import timezone

from apps.heads.models import StockItem
from apps.register.schemas import SAME_SIZE_M
from apps.stock.models import BareNote
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.commands.sound_files import from_pcm
from drumwork.listening import Other, Status, TapContext, Where, listen_to_tap
from drumwork.quantities import cents_of, parse_pitch
from drumwork.shelf import Sort

__all__ = ["beside", "foretells", "hear_bare", "keep_bare"]

_ALIKE_CENTS: Final = 60.0
"""Notes nearer than this foretell the same. Our own, no source."""
_LOWEST_HZ: Final = 5.0
_HIGHEST_HZ: Final = 2000.0


def _head(stock_item: int) -> StockItem:
    item = StockItem.objects.select_related("line").get(pk=stock_item)
    if item.sort != Sort.HEAD:
        raise Refused("no_head", "Only a head has a note of its own.", 422)
    return item


def _keep(item: StockItem, key: uuid.UUID, hz: float, heard: bool, member: Membership) -> None:
    if not _LOWEST_HZ <= hz <= _HIGHEST_HZ:
        raise Refused("bad_pitch", "A bare head sounds between 5 and 2000 Hz.", 422, typed="Between 5 and 2000 Hz.")
    BareNote.objects.get_or_create(
        id=key,
        defaults={
            "workshop": member.workshop, "stock_item": item, "hz": round(hz, 2), "heard": heard, "by_name": member.shown_name, "at": timezone.now(),
        },
    )  # fmt: skip


@transaction.atomic
def keep_bare(stock_item: int, key: uuid.UUID, typed: str, member: Membership) -> None:
    """A note as it was typed: hertz, or a name with cents."""
    _keep(_head(stock_item), key, parse_pitch(typed, member.workshop.a4_hz).hz, False, member)


@transaction.atomic
def hear_bare(stock_item: int, key: uuid.UUID, pcm: bytes, rate: int, member: Membership) -> None:
    """A note by the Bench's ear: 16-bit samples of one channel, one tap in the middle of a head held by its edge.

    Raises
    ------
    Refused
        what could not be heard as a tap, with what to do.
    """
    item = _head(stock_item)
    samples = from_pcm(pcm)
    found = listen_to_tap(samples, rate, TapContext(at=Where.CENTRE, other=Other.NONE))
    if found.status is Status.REFUSE or found.hz is None:
        raise Refused("not_heard", f"{found.reason} Hold it by the edge, free of everything, and tap the middle.", 422)
    _keep(item, key, found.hz, True, member)


def foretells(item: StockItem, notes: Sequence[BareNote], others: Iterable[float]) -> str:
    """What the note says beside those of other heads of its size: lower is darker, higher brighter. '' while there is nothing to compare."""
    beside = list(others)
    if not notes or not beside:
        return ""
    apart = cents_of(median(note.hz for note in notes) / median(beside))
    if abs(apart) < _ALIKE_CENTS:
        return "Sounds like the others of its size."
    return f"{abs(apart):.0f} cents {'lower' if apart < 0 else 'higher'} than others of its size: expect it {'darker' if apart < 0 else 'brighter'} (C9)."


def beside(item: StockItem) -> list[float]:
    """The notes of other lines of the same size."""
    if item.diameter_m is None:
        return []
    near = (item.diameter_m - SAME_SIZE_M, item.diameter_m + SAME_SIZE_M)
    rows = BareNote.objects.filter(stock_item__diameter_m__range=near).exclude(stock_item=item)
    return list(rows.values_list("hz", flat=True)[:200])
