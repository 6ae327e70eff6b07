"""One side of a drum, and the drum as the core's plans need it."""

from __future__ import annotations

from dataclasses import dataclass

from apps.register.models import Drum
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.quantities import Pitch
from drumwork.rods.layout import RodLayout
from drumwork.rope import Pass
from drumwork.work.plan import DrumFacts

__all__ = ["ROPE_PASSES", "SideOf", "facts_of", "kept_words", "sides_of"]

ROPE_PASSES = "rope passes"
"""Under this name a drum's record keeps what pull passes taught of its rope; everything else it keeps is words."""


@dataclass(frozen=True)
class SideOf:
    """What a drum's record says of one of its sides."""

    drum: Drum
    side: Side

    @property
    def rods(self) -> int:
        return self.drum.rods_batter if self.side is Side.BATTER else self.drum.rods_resonant

    @property
    def lost(self) -> list[int]:
        return self.drum.lost_batter if self.side is Side.BATTER else self.drum.lost_resonant

    @property
    def wanted_hz(self) -> float | None:
        return self.drum.wanted_batter_hz if self.side is Side.BATTER else self.drum.wanted_resonant_hz

    @property
    def wanted(self) -> Pitch | None:
        return Pitch(self.wanted_hz) if self.wanted_hz else None

    @property
    def rods_there(self) -> int:
        return self.rods - len(self.lost)

    @property
    def layout(self) -> RodLayout:
        """Rods as they are; those beside the snare bed and a port are the resonant side's.

        Raises
        ------
        BadLayout
            for a side without rods.
        """
        drum, under = self.drum, self.side is Side.RESONANT
        bed, port = (drum.bed_rods, drum.port_rods) if under else ((), ())
        return RodLayout(self.rods, frozenset(self.lost), frozenset(bed), frozenset(port))

    @property
    def other(self) -> SideOf:
        return SideOf(self.drum, self.side.other)

    def set_lost(self, lost: list[int]) -> None:
        setattr(self.drum, f"lost_{self.side.value}", sorted(lost))


def sides_of(drum: Drum) -> tuple[SideOf, SideOf]:
    return SideOf(drum, Side.BATTER), SideOf(drum, Side.RESONANT)


def facts_of(drum: Drum) -> DrumFacts:
    """The drum as the core's plans need it."""
    kind = DrumKind(drum.kind)
    rods = traits_of(kind).rods
    layouts = {each.side: each.layout for each in sides_of(drum)} if rods else {}
    passes = tuple(Pass(**each) for each in drum.kept.get(ROPE_PASSES, ()))
    return DrumFacts(
        kind,
        layouts,
        drum.snare_bed,
        drum.port_m is not None,
        thread=drum.thread,
        rope_passes=passes,
        diameter_m=drum.diameter_m,
        depth_m=drum.depth_m,
    )


def kept_words(drum: Drum) -> dict[str, str]:
    """What the drum's record keeps of how it was left, by name."""
    return {name: drum.kept[name] for name in sorted(drum.kept) if name != ROPE_PASSES}
