"""A rod that was lent is back, kept for good or lost: both drums' records say so."""

from __future__ import annotations

from typing import Any

from django.utils import timezone

from apps.bench.models import DrumFinding
from apps.register.models import Drum
from apps.register.sides import SideOf
from apps.stock.models import Loan
from drumwork.drums import Side
from drumwork.work.state import LOST

__all__ = ["rod_is_back"]


def _open(drum: int | None, side: str, rod: int | None) -> Any:
    return DrumFinding.objects.filter(drum=drum, finding=LOST, side=side, rod=rod, put_right_at__isnull=True)


def _set(drum: int, side: str, rod: int, lost: bool) -> None:
    of = SideOf(Drum.objects.select_for_update().get(pk=drum), Side(side))
    of.set_lost(sorted({*of.lost, rod} if lost else set(of.lost) - {rod}))
    of.drum.save(update_fields=[f"lost_{side}"])


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
