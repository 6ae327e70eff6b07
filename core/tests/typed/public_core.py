"""What the core promises to a type checker: run by mypy in `./test --lint`, never executed."""

from collections.abc import Mapping
from typing import assert_type

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.drums.traits import Traits
from drumwork.findings import FindingKind, finding, findings_for
from drumwork.procedures.catalogue import CATALOGUE, Offer, offers_for, work_named
from drumwork.quantities import Pitch, Turns, parse_pitch
from drumwork.rods.clearing import ClearingTask
from drumwork.work.clearing import clearing_task
from drumwork.work.conditions import Condition, Found, Has
from drumwork.work.fold import fold, standing_of, where
from drumwork.work.kinds.steps import StepKind
from drumwork.work.log import Entry, Logged, Standing
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Part, Plan, Procedure, StepPlan
from drumwork.work.rounds import Lap
from drumwork.work.state import BenchState
from drumwork.work.ways import Cadence, Ways


def promises(drum: DrumFacts, log: list[Logged], entry: Entry) -> None:
    assert_type(traits_of("snare"), Traits)
    assert_type(finding("dents"), FindingKind)
    assert_type(findings_for(DrumKind.SNARE), tuple[FindingKind, ...])
    assert_type(CATALOGUE, Mapping[str, Procedure])
    assert_type(offers_for(drum), tuple[Offer, ...])
    plan = make_plan(work_named("settling-check"), Part.BATTER, drum, Ways())
    assert_type(plan, Plan)
    assert_type(plan.steps, tuple[StepPlan, ...])
    assert_type(plan.steps[0].kind, StepKind)
    state = fold(plan, log)
    assert_type(state, BenchState)
    assert_type(state.now, StepPlan | None)
    assert_type(state.laps, dict[str, list[Lap]])
    assert_type(state.target(Side.BATTER), Pitch | None)
    assert_type(state.tally(Side.BATTER), Mapping[int, Turns] | None)
    assert_type(state.cadence(down=True), Cadence)
    assert_type(standing_of(state, entry, 0, "tablet"), tuple[Standing, str | None])
    assert_type(entry.read(440.0), Entry)
    assert_type(where(state), str)
    assert_type(clearing_task(state, "clear", 0), ClearingTask)
    assert_type(Has("wires") & ~Found("dents", 2), Condition)
    assert_type(parse_pitch("A3"), Pitch)
