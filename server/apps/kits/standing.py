"""A kit's drums as the core plans them: what is fitted, where it stands, how it answers, what its school is."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final

from apps.bench.answers import expected_answer, learned_of
from apps.bench.models import Job, KeptAnswer
from apps.heads.limits import fitted_head, fitted_name, usual_head
from apps.heads.models import Fitting
from apps.history.models import PitchRecord
from apps.register.models import Drum, Kit, KitDrum
from apps.register.sides import SideOf
from apps.workshops.models import Workshop
from drumwork.drums import Side, traits_of
from drumwork.kits import KitDrum as CoreDrum
from drumwork.kits import Role, rank, usual_roles
from drumwork.membrane import Head
from drumwork.quantities import Length, Pitch, cents_of
from drumwork.quantities.intervals import parse_interval
from drumwork.quantities.pitch import ratio_of
from drumwork.rods.clearing import at_pitch
from drumwork.work.ways import ResonantPitch

__all__ = ["Standing", "standing_drums"]

CENTS_IN_A_NATURAL: Final = 1200 / 0.6931471805599453
SCHOOLS: Final = {ResonantPitch.EQUAL: 0.0, ResonantPitch.HIGHER: 300.0, ResonantPitch.LOWER: -300.0}
"""Cents the resonant stands over the batter by the workshop's school: about a minor third either way (F7, common practice, no source)."""

SAME_CENTS: Final = 2.0
"""Two wanted pitches nearer than this are the same wish; our own figure."""


@dataclass
class Standing:
    """One drum of a kit as its record has it."""

    drum: Drum
    role: Role
    workshop: Workshop
    way: str = ""
    """How far its resonant is to stand above its batter, as typed for this kit; empty for the drum's own way."""

    def _head(self, side: Side) -> Head | None:
        return fitted_head(self.drum, side.value) or usual_head(self.drum, side.value)

    @cached_property
    def heads(self) -> dict[Side, Head | None]:
        return {side: self._head(side) for side in Side}

    @cached_property
    def now(self) -> dict[Side, Pitch | None]:
        return {side: self._read(side) for side in Side}

    def _read(self, side: Side) -> Pitch | None:
        last = self.last[side]
        return Pitch(last.mean_hz) if last else None

    @cached_property
    def last(self) -> dict[Side, PitchRecord | None]:
        """What was read last, since the head on it was fitted."""
        return {side: self._last(side) for side in Side}

    def is_where(self, side: Side, wanted: Pitch) -> bool:
        """Whether a job brought this head to that very pitch: as near as the Bench asks for, or left so by a person."""
        last = self.last[side]
        if last is None or not last.wanted_hz or abs(cents_of(last.wanted_hz / wanted.hz)) > SAME_CENTS:
            return False
        return last.left_so or at_pitch(last.mean_hz, last.wanted_hz)

    def _last(self, side: Side) -> PitchRecord | None:
        fitted = Fitting.objects.filter(drum=self.drum, side=side.value, retired_at__isnull=True).first()
        rows = PitchRecord.objects.filter(drum=self.drum, side=side.value)
        if fitted and fitted.since is not None:
            rows = rows.filter(at__gte=fitted.fitted_at)
        return rows.order_by("-at").first()

    @cached_property
    def above(self) -> float:
        """Cents from batter to resonant: as said for this kit, else as the drum's usual targets have it, else by the workshop's school."""
        if self.way.strip():
            return float(parse_interval(self.way).cents)
        batter, resonant = self.drum.wanted_batter_hz, self.drum.wanted_resonant_hz
        if batter and resonant:
            return float(cents_of(resonant / batter))
        return SCHOOLS[ResonantPitch(self.workshop.resonant)]

    @property
    def left_out(self) -> str:
        """Why no plan can take it; empty where one can."""
        drum, traits = self.drum, traits_of(self.drum.kind)
        if drum.state == Drum.State.RETIRED:
            return "retired"
        if not traits.rods:
            return "on a rope: set it by ear, last"
        if not traits.film:
            return "mesh: no film to reckon with"
        if drum.state == Drum.State.REPAIR:
            return "in repair: plan it when it is back"
        if self.heads[Side.BATTER] is None:
            return "its batter is no film this reckons with, or lacks rods"
        return ""

    @cached_property
    def notes(self) -> list[str]:
        """What to know of it before anything is turned."""
        drum, said = self.drum, []
        if Job.objects.filter(drum=drum, state="open").exists():
            said.append("on the bench now: what its job leaves may be another pitch")
        for side in Side:
            lost = SideOf(drum, side).lost
            if lost:
                said.append(f"rod {', '.join(map(str, lost))} of its {side.value} is missing: fetch it first")
        if drum.state == Drum.State.OUT:
            said.append("out: its jobs wait until it is back")
        others = [kit.name for kit in drum.kits.all()]
        if len(others) > 1:
            said.append(f"plays in {', '.join(sorted(others))} too, which this retunes as well")
        return said

    def turns_a_cent(self, side: Side) -> float:
        """Turns of every rod a cent takes, near where the head is."""
        head = self.heads[side]
        if head is None:
            return 0.001
        kept = KeptAnswer.objects.filter(
            drum=self.drum, side=side.value, head=fitted_name(self.drum, side.value)
        ).first()
        at = self.now[side] or SideOf(self.drum, side).wanted or Pitch((head.highest_safe().hz * 60) ** 0.5)
        answer = expected_answer(head, self.drum, learned_of(kept) if kept else None)
        return at.hz / CENTS_IN_A_NATURAL / answer.hz_per_turn(at)

    @cached_property
    def core(self) -> CoreDrum:
        """Only of a drum that is not left out."""
        batter, drum = self.heads[Side.BATTER], self.drum
        assert batter is not None
        return CoreDrum(
            drum.tag,
            batter,
            self.heads[Side.RESONANT],
            Length(drum.depth_m),
            (self.now[Side.BATTER], self.now[Side.RESONANT]),
            self.above,
            (self.turns_a_cent(Side.BATTER), self.turns_a_cent(Side.RESONANT)),
            traits_of(drum.kind).wires and self.heads[Side.RESONANT] is not None,
            self.role.in_steps,
            self.role.section,
            SideOf(drum, Side.BATTER).wanted,
        )

    def range_hz(self, side: Side) -> tuple[float, float]:
        """What this head may be brought to while the other goes with it."""
        grid, ratio = self.core.grid, ratio_of(self.above) if side is Side.RESONANT else 1.0
        return 20.0 * ratio_of(grid.start) * ratio, 20.0 * ratio_of(max(grid.start, grid.stop - 1)) * ratio


def standing_drums(kit: Kit, workshop: Workshop, ways: dict[str, str]) -> list[Standing]:
    """The kit's drums in their row: as a person put them, else by role, the smaller first."""
    rows = list(KitDrum.objects.filter(kit=kit).select_related("drum").prefetch_related("drum__kits"))
    usual = usual_roles([row.drum.kind for row in rows])
    found = [
        (row.row, Standing(row.drum, Role(row.role) if row.role else role, workshop, ways.get(row.drum.tag, "")))
        for row, role in zip(rows, usual, strict=True)
    ]
    placed = all(row is not None for row, _ in found)

    def key(each: tuple[int | None, Standing]) -> tuple[float, ...]:
        row, drum = each
        by_size = rank(drum.role, drum.drum.diameter_m, drum.drum.depth_m)
        return (float(row or 0), *by_size) if placed else by_size

    return [drum for _, drum in sorted(found, key=key)]
