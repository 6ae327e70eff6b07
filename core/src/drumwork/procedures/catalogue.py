"""Every piece of work the Bench can lead, what it suits, and where it does not, why not."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from importlib import import_module
from pkgutil import walk_packages
from types import ModuleType
from typing import Final

import drumwork.procedures
from drumwork.drums import Side
from drumwork.errors import UnknownWork
from drumwork.work.plan import DrumFacts, Part, Procedure

__all__ = [
    "CATALOGUE",
    "CHECKS",
    "EASES",
    "RETUNES",
    "Offer",
    "check_for",
    "head_change_for",
    "offers_for",
    "work_named",
]


def _found_in(package: ModuleType) -> list[Procedure]:
    """Every procedure that stands in a module of this package or of one inside it: a new file is in the catalogue by being there."""
    here = f"{package.__name__}.catalogue"
    modules = [
        import_module(each.name)
        for each in walk_packages(package.__path__, f"{package.__name__}.")
        if not each.ispkg and each.name != here
    ]
    found = [value for module in modules for value in vars(module).values() if isinstance(value, Procedure)]
    return list({each.id: each for each in found}.values())  # one that another imports stands in both


_ALL: Final = tuple(sorted(_found_in(drumwork.procedures), key=lambda each: (each.rank, each.id)))
CATALOGUE: Final[Mapping[str, Procedure]] = {each.id: each for each in _ALL}
RETUNES: Final = CATALOGUE["another-pitch"]
"""Brings a whole head to another pitch."""
EASES: Final = CATALOGUE["uneven-on-purpose"]
"""Leaves a head uneven, so that it does not sing with another drum."""
CHECKS: Final = tuple(each for each in _ALL if each.answers_checks)
"""Work that answers a check; the first is the one for film."""


@dataclass(frozen=True, slots=True)
class Offer:
    """One piece of work on one part of a drum; `why_not` is empty where it can be done."""

    work: Procedure
    part: Part
    why_not: str

    @property
    def title(self) -> str:
        return self.work.titled(self.part)

    @property
    def words(self) -> str:
        """What a button that starts it says."""
        return self.work.offered(self.part)


def work_named(known: str) -> Procedure:
    """The procedure of this id.

    Raises
    ------
    UnknownWork
        for an id that is not in the catalogue; never taken for another work.
    """
    if known not in CATALOGUE:
        names = ", ".join(CATALOGUE)
        raise UnknownWork(f"There is no work “{known}”. Choose one of: {names}.", work=known)
    return CATALOGUE[known]


def offers_for(drum: DrumFacts) -> tuple[Offer, ...]:
    """Everything in the catalogue for this drum, part by part, with the reason where it does not suit."""
    return tuple(Offer(work, part, work.why_not(drum, part)) for work in _ALL for part in work.parts)


def _first(among: Iterable[Procedure], drum: DrumFacts, side: Side) -> Offer:
    """On this side alone, or where there is no such work, on both heads. There is one for every kind of drum."""
    return next(
        Offer(work, part, "")
        for part in (Part(side.value), Part.HEADS)
        for work in among
        if not work.why_not(drum, part)
    )


def check_for(drum: DrumFacts, side: Side) -> Offer:
    """The work that answers a check that is due on this side: look at the head and bring it back to where it was."""
    return _first(CHECKS, drum, side)


def head_change_for(drum: DrumFacts, side: Side) -> Offer:
    """The work that puts a new head on this side of this drum."""
    return _first([work for work in _ALL if work.changes_heads], drum, side)
