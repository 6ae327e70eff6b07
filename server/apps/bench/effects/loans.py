"""A part that had been lent is home."""

from __future__ import annotations

from apps.bench.effects.closing import Closing
from apps.stock.loans import give_back_to
from drumwork.work.effects import GiveBack

__all__ = ["give_back"]


def give_back(closing: Closing, effect: GiveBack) -> None:
    give_back_to(closing.job.drum, effect.what, closing.member)
