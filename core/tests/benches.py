"""Makes small plans, logs and states for tests of the engine."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta

from drumwork.drums import DrumKind, Side
from drumwork.procedures.catalogue import work_named
from drumwork.quantities import Turns
from drumwork.rods.clearing import Ear, Means
from drumwork.rods.layout import RodLayout
from drumwork.work.fold import fold
from drumwork.work.kinds.clear import ReadingTaken
from drumwork.work.kinds.passes import RodTurn, Turned
from drumwork.work.log import Entry, Logged
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Head, Part, Plan
from drumwork.work.rounds import Partial
from drumwork.work.state import BenchState
from drumwork.work.ways import Ways

START = datetime(2026, 3, 2, 9, 0, tzinfo=UTC)


def facts(kind: DrumKind = DrumKind.RACK_TOM, rods: int = 6, lost: Iterable[int] = (), resonant: int = 0) -> DrumFacts:
    layouts = {Side.BATTER: RodLayout(rods, frozenset(lost)), Side.RESONANT: RodLayout(resonant or rods)}
    return DrumFacts(kind, layouts if kind is not DrumKind.ROPE_BASS else {}, snare_bed="snare" in kind)


def plan(
    work: str = "new-batter-head",
    part: Part = Part.BATTER,
    kind: DrumKind = DrumKind.RACK_TOM,
    rods: int = 6,
    lost: Iterable[int] = (),
    **ways: object,
) -> Plan:
    heads = {side: Head("single 10 coated", "old") for side in Side}
    return make_plan(work_named(work), part, facts(kind, rods, lost), Ways(**ways), heads)  # type: ignore[arg-type]


def log(*entries: Entry, device: str = "tablet") -> list[Logged]:
    return [
        Logged(f"e{n}", n, "Ines", START + timedelta(minutes=n), entry, device) for n, entry in enumerate(entries, 1)
    ]


def after(job: Plan, *entries: Entry) -> BenchState:
    return fold(job, log(*entries))


def turned(step: str, lap: int, rod: int, turns: Turns | None) -> Turned:
    return Turned(step, lap, (RodTurn(rod, None if turns is None else turns.thirtyseconds),))


def read(
    lap: int,
    rod: int,
    typed: str,
    means: Means = Means.PITCH,
    partials: tuple[Partial, ...] = (),
    tap: str = "",
    step: str = "clear",
) -> ReadingTaken:
    return ReadingTaken(step, lap, rod, typed, means, partials, tap).read(440)


def readings(lap: int, *hz: float, step: str = "clear") -> list[Entry]:
    return [read(lap, rod, f"{value:g}", step=step) for rod, value in enumerate(hz, start=1)]


def judged(lap: int, rods: Iterable[int], value: Ear = Ear.LEVEL) -> list[Entry]:
    return [read(lap, rod, value.value, Means.EAR) for rod in rods]
