"""Draws jobs: any work of the catalogue, on any kind of drum it suits, with any rods, in any ways."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from enum import StrEnum
from typing import Any, get_type_hints

from hypothesis import strategies as st

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import UnknownWork
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.work.fold import advance, begin
from drumwork.work.kinds.common import StepDone
from drumwork.work.log import Logged
from drumwork.work.making import make_plan
from drumwork.work.otherwise import planned_otherwise
from drumwork.work.plan import DrumFacts, Plan
from drumwork.work.schools import SCHOOLS as SCHOOLS_OF_TRADE
from drumwork.work.ways import Ways

NOON = datetime(2026, 3, 2, 12, tzinfo=UTC)
THREADS = ("", "12-24", "M6", "M5", "1/4-28", "M6 x 0.5", "what the label says")
SCHOOLS = {name: of for name, of in get_type_hints(Ways).items() if isinstance(of, type) and issubclass(of, StrEnum)}


def _layout(draw: st.DrawFn, bed: bool, port: bool) -> RodLayout:
    count = draw(st.integers(4, 16))
    rods = st.integers(1, count)
    lost = draw(st.sets(rods, max_size=max(0, min(2, count - 3))))
    beside = draw(st.sets(rods, max_size=4)) if bed else set()
    return RodLayout(
        count, frozenset(lost), frozenset(beside), frozenset(draw(st.sets(rods, max_size=2)) if port else ())
    )


def drum_of(draw: st.DrawFn, kind: DrumKind) -> DrumFacts:
    traits = traits_of(kind)
    if not traits.rods:
        return DrumFacts(kind, {})
    bed = traits.wires and draw(st.booleans())
    port = not traits.wires and draw(st.booleans())
    layouts = {Side.BATTER: _layout(draw, False, False), Side.RESONANT: _layout(draw, bed, port)}
    return DrumFacts(kind, layouts, snare_bed=bed, port=port, thread=draw(st.sampled_from(THREADS)))


@st.composite
def begun_jobs(draw: st.DrawFn) -> Plan:
    """As a job begins."""
    work = draw(st.sampled_from(list(CATALOGUE.values())))
    part = draw(st.sampled_from(work.parts))
    chosen: dict[str, Any] = {name: draw(st.sampled_from(of)) for name, of in SCHOOLS.items()}
    ways = Ways(
        **chosen,
        rest_minutes=draw(st.integers(1, 600)),
        tap_round=draw(st.booleans()),
        step=Turns(draw(st.sampled_from([1, 2, 4]))),
    )
    drum = drum_of(draw, draw(st.sampled_from(DrumKind)))
    try:
        return make_plan(work, part, drum, ways)
    except UnknownWork:
        kinds = (kind for kind in DrumKind if not work.why_not(replace(drum, kind=kind, layouts=drum.layouts), part))
        return make_plan(work, part, drum_of(draw, next(kinds)), ways)


@st.composite
def jobs(draw: st.DrawFn) -> Plan:
    """As a job begins; or one that, some steps on, goes by another school."""
    plan: Plan = draw(begun_jobs())
    if draw(st.integers(0, 2)):
        return plan
    state = begin(plan)
    for number, step in enumerate(state.steps[: draw(st.integers(0, 12))], 1):
        advance(state, Logged(f"e{number}", number, "ines", NOON, StepDone(step.id)))
    work = work_named(plan.work)
    way = draw(st.sampled_from(SCHOOLS_OF_TRADE))
    other = [choice.value for choice in way.choices if choice.value != str(getattr(plan.ways, way.way))]
    changes = planned_otherwise(state, work, way.way, draw(st.sampled_from(other)))
    return plan if changes.too_late else changes.plan
