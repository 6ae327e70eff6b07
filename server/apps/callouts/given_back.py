"""A rod is lent, back, kept for good or lost, or never was lent: the drums' records say so."""

from __future__ import annotations

from typing import Any

from django.utils import timezone

from apps.bench.models import DrumFinding
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.stock.models import Loan
from drumwork.drums import Side
from drumwork.findings import finding
from drumwork.work.state import LOST

__all__ = ["never_lent", "rod_is_away", "rod_is_back"]


def _open(drum: int | None, side: str, rod: int | None) -> Any:
    return DrumFinding.objects.filter(drum=drum, finding=LOST, side=side, rod=rod, put_right_at__isnull=True)


def _set(drum: int, side: str, rod: int, lost: bool) -> None:
    of = SideOf(Drum.objects.select_for_update().get(pk=drum), Side(side))
    of.set_lost(sorted({*of.lost, rod} if lost else set(of.lost) - {rod}))
    of.drum.save(update_fields=[f"lost_{side}"])


def rod_is_away(loan: Loan, **_: object) -> None:
    """Its place on the giver is empty, and its record says in which drum the rod is."""
    if loan.from_rod is None or loan.from_drum_id is None:
        return
    if loan.from_rod > SideOf(Drum.objects.get(pk=loan.from_drum_id), Side(loan.from_side)).rods:
        return  # said of a rod it does not have: the loan itself stands
    where = f"in {loan.to_drum.name} ({loan.to_drum.tag})" if loan.to_drum else f"with {loan.to_words}"
    if not _open(loan.from_drum_id, loan.from_side, loan.from_rod).exists():
        kind = finding(LOST)
        DrumFinding.objects.create(
            workshop_id=loan.workshop_id, drum_id=loan.from_drum_id, finding=LOST, side=loan.from_side, rod=loan.from_rod, degree=2,
            owed=kind.follow.value, part=kind.part, found_at=loan.lent_at, by_name=loan.lent_by_name, note=f"it is {where}"[:300],
        )  # fmt: skip
    _set(loan.from_drum_id, loan.from_side, loan.from_rod, lost=True)


def never_lent(loan: Loan, **_: object) -> None:
    """What was said of it is taken back."""
    if loan.from_rod is not None and loan.from_drum_id is not None:
        _open(loan.from_drum_id, loan.from_side, loan.from_rod).delete()
        _set(loan.from_drum_id, loan.from_side, loan.from_rod, lost=False)


def rod_is_back(loan: Loan, **_: object) -> None:
    """Back: the giver is whole again, and the gap it filled is open again while nobody put another there. Kept: the gap stays with the giver."""
    if loan.from_rod is None or loan.from_drum_id is None:
        return
    if loan.ended == Loan.Ended.BACK:
        _open(loan.from_drum_id, loan.from_side, loan.from_rod).update(put_right_at=timezone.now())
        _set(loan.from_drum_id, loan.from_side, loan.from_rod, lost=False)
        if loan.to_drum_id and loan.to_rod and _open(loan.to_drum_id, loan.to_side, loan.to_rod).exists():
            _set(loan.to_drum_id, loan.to_side, loan.to_rod, lost=True)
    elif loan.ended == Loan.Ended.KEPT and loan.to_drum_id:
        _open(loan.to_drum_id, loan.to_side, loan.to_rod).update(put_right_at=timezone.now())
