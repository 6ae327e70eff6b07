"""Jobs of the version before the engine, brought along by a migration: their plan is made once more, and their entries read for the last
time with the workshop's reference A.

What such a job was made from lay in `frozen`. The words of its two procedures have not changed since; the test that restores a database of
that version says so. Whoever changes them keeps the old words here first.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from apps.bench.stored import entry_from, upcast_entry
from drumwork.drums import DrumKind, Side
from drumwork.procedures.catalogue import CATALOGUE, CHECKS
from drumwork.quantities import Turns
from drumwork.rods.clearing import EvenRule
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern
from drumwork.work.log import Entry
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Head, Part, Plan
from drumwork.work.ways import Grease, LogoPlace, Stretch, Ways

__all__ = ["entry_of_before", "plan_of_before"]

_SINCE = ("ring-out", "ring-in")
"""Steps the two procedures have got since; a job begun without them goes on without them."""


def plan_of_before(
    frozen: Mapping[str, Any], procedure: str, side: str, head: Head, other_rods: int, a4_hz: float, even_spread_hz: float
) -> Plan:  # fmt: skip
    """The plan of a job, made from what was frozen and from the workshop's settings as they are. Whatever was no known procedure was led
    as a settling check, and is kept as what it was led as."""
    ways = Ways(
        pattern=Pattern(frozen["pattern"]),
        step=Turns(frozen["step_32"]),
        stretch=Stretch(frozen["stretch"]),
        logo=LogoPlace(frozen["logo"]),
        grease=Grease.DRY if frozen["grease"] else Grease.NEVER,
        rest_minutes=frozen["rest_minutes"],
        tap_round=frozen.get("tap_round", True),
        a4_hz=a4_hz,
        even=EvenRule(spread_hz=even_spread_hz),
    )
    marked = (frozenset(frozen.get(name, ())) for name in ("lost", "bed", "port"))
    mine, kind = Side(side), DrumKind(frozen["kind"])
    layout = RodLayout(frozen["rods"], *marked)
    other = RodLayout(other_rods) if other_rods else layout
    drum = DrumFacts(
        kind, {mine: layout, mine.other: other}, snare_bed=kind is DrumKind.SNARE, wires=kind is DrumKind.SNARE
    )
    known = CATALOGUE.get(procedure, CHECKS[0])
    work = replace(known, suits=lambda _: "", parts=(*known.parts, Part(side)))
    plan = make_plan(work, Part(side), drum, ways, {mine: head})
    return replace(
        plan,
        steps=tuple(step for step in plan.steps if step.id not in _SINCE and not {"turn", "lever"} & set(step.does)),
    )


def entry_of_before(body: Mapping[str, Any], a4_hz: float) -> Entry:
    """An entry as it was stored: read with this reference A."""
    now = upcast_entry(body)
    found = now.pop("found", None)
    entry = entry_from(now, 2).read(a4_hz)
    if found is None:
        return entry
    whole: Any = entry_from({**now, "found": found}, 2)
    return replace(entry, found=whole.found)  # type: ignore[call-arg]
