"""Logs of bench jobs, made by Hypothesis, with where the core says each job stands: the device's fold is held against them.

Writes one JSON file: plans as devices get them, and cases of {plan, log, stands}. Many undo everything, have two devices, conflicts decided
either way, and refused entries, which are not in a log.
"""

from __future__ import annotations

import json
import os
import sys
import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT / "core" / "src"), str(ROOT / "server")]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
os.environ.setdefault("RT_SECRET_KEY", "golden-logs")
os.environ.setdefault("RT_DATABASE_URL", "postgresql://nobody@127.0.0.1:5432/none")  # none is asked

import django  # noqa: E402

django.setup()

from hypothesis import HealthCheck, Phase, given, seed, settings  # noqa: E402
from hypothesis import strategies as st  # noqa: E402

from apps.bench.figures import figures_of  # noqa: E402
from apps.bench.shapes import shape_anew, shape_plan_head, shape_step  # noqa: E402
from apps.bench.stored import entry_to  # noqa: E402
from apps.bench.wire import body_of  # noqa: E402
from drumwork.drums import DrumKind, Side, traits_of  # noqa: E402
from drumwork.errors import BadEvent, DrumworkError  # noqa: E402
from drumwork.findings import findings_for  # noqa: E402
from drumwork.procedures.catalogue import CATALOGUE, work_named  # noqa: E402
from drumwork.rods.clearing import Ear, Means, propose  # noqa: E402
from drumwork.rods.layout import RodLayout  # noqa: E402
from drumwork.work.clearing import clearing_task, left_after  # noqa: E402
from drumwork.work.fold import fold, require_fits, standing_of  # noqa: E402
from drumwork.work.kinds import ask, clear, common, finding, once_more, passes, rest, school  # noqa: E402
from drumwork.work.log import Entry, Logged, Standing  # noqa: E402
from drumwork.work.making import make_plan  # noqa: E402
from drumwork.work.otherwise import planned_otherwise  # noqa: E402
from drumwork.work.plan import DrumFacts, Plan  # noqa: E402
from drumwork.work.rounds import round_plan  # noqa: E402
from drumwork.work.schools import SCHOOLS  # noqa: E402
from drumwork.work.state import BenchState  # noqa: E402
from drumwork.work.ways import Cadence, Ways  # noqa: E402

CASES = 560
LONGEST = 40
START = datetime(2026, 4, 1, 8, 0, tzinfo=UTC)
DEVICES = ("tablet", "phone")


def _plans() -> list[Plan]:
    made = []
    for work in CATALOGUE.values():
        for kind, rods, resonant in (
            (DrumKind.RACK_TOM, 6, 6),
            (DrumKind.FLOOR_TOM, 8, 6),
            (DrumKind.SNARE, 10, 10),
            (DrumKind.ROPE_BASS, 8, 8),
        ):
            layouts = {
                Side.BATTER: RodLayout(rods, frozenset({2} if rods == 10 else ())),
                Side.RESONANT: RodLayout(resonant),
            }
            drum = DrumFacts(kind, layouts, snare_bed=kind is DrumKind.SNARE)
            if not traits_of(kind).rods:
                drum = DrumFacts(kind, {})
            made += [make_plan(work, part, drum, Ways()) for part in work.parts if not work.why_not(drum, part)]
    return made  # fmt: skip


PLANS = _plans()


@st.composite
def entries(draw: st.DrawFn, state: BenchState) -> Entry | None:
    """Any entry that could be made now, likely ones more often."""
    plan = state.plan
    step = state.now or plan.steps[-1]
    if draw(st.integers(0, 9)) == 0:
        step = draw(st.sampled_from(plan.steps))
    kinds = [
        "step_done",
        "undo",
        "note",
        "found",
        "target",
        "cadence",
        "step_size",
        "put_right",
        "means",
        "school",
        "close",
        "once_more",
    ]
    kinds += ["turned"] * 8 + ["pass_added"] if step.kind == "passes" else []
    kinds += (
        ["reading"] * 5
        + [
            "round",
            "round",
            "plan",
            "turned",
            "turned",
            "tapped",
            "tapped",
            "tapped",
            "centre",
            "whole",
            "order",
            "uneven",
        ]
        if step.kind == "clear"
        else []
    )
    kinds += ["answer"] * 5 if step.asks else []
    kinds += ["rest", "rest"] if step.kind == "rest" else []
    kinds += ["step_done"] * 4 if step.kind in ("tick", "passes") else []
    kind = draw(st.sampled_from(kinds))
    side = step.side or (plan.sides[0] if plan.sides else None)
    laps = state.laps.get(step.id, [])
    number = max(0, len(laps) - 1 if step.kind == "clear" else next((n for n, lap in enumerate(laps) if lap.owed()), 0))
    rods = plan.layout(side).rods if side in plan.drum.layouts else (1,)
    match kind:
        case "step_done":
            return common.StepDone(step.id)
        case "undo":
            return common.Undone(draw(st.sampled_from(state.live)).id) if state.live else None
        case "note":
            return common.Noted("tide out")
        case "turned":
            owed = list(laps[number].owed()) if laps else []
            group = tuple(owed[: draw(st.sampled_from([1, 1, 2, 16]))]) or (draw(st.sampled_from(rods)),)
            amount = draw(st.sampled_from([None, -64, 16, 8, 2, 1]))
            return passes.Turned(step.id, number, tuple(passes.RodTurn(rod, amount) for rod in group))
        case "once_more":
            cleared = [each.id for each in plan.steps if each.kind == "clear" and each.id in state.done]
            return once_more.OnceMore(cleared[-1]) if cleared else None
        case "pass_added":
            return passes.PassAdded(step.id, draw(st.sampled_from([-64, 8])))
        case "cadence":
            return passes.CadenceChosen(draw(st.sampled_from(Cadence)), draw(st.booleans()))
        case "reading" | "round":
            means = draw(st.sampled_from([state.means, Means.PITCH, Means.GAUGE]))
            typed = (
                draw(st.sampled_from([e.value for e in Ear]))
                if means is Means.EAR
                else f"{draw(st.integers(1900, 2100)) / 10}"
            )
            rod = draw(st.sampled_from(rods))
            return clear.ReadingTaken(
                step.id,
                number,
                rod,
                typed + ("?" if means is Means.PITCH and draw(st.integers(0, 8)) == 0 else ""),
                means,
            ).read(440)
        case "tapped":
            owed = list(laps[number].owed()) if laps else []
            rod = owed[0] if owed and draw(st.booleans()) else draw(st.sampled_from(rods))
            typed = f"{draw(st.integers(1900, 2100)) / 10}"
            means = draw(st.sampled_from([state.means, Means.PITCH]))
            amount = draw(st.sampled_from([None, -2, 2, 4]))
            if means is Means.EAR:
                return None
            return clear.RodTapped(step.id, number, rod, typed, amount, means).read(440)
        case "plan":
            return clear.RoundPlanned(step.id, number)
        case "centre":
            return clear.CentreRead(step.id, number, "114.2").read(440)
        case "whole":
            return clear.WholeJudged(step.id, number, draw(st.sampled_from(Ear)))
        case "order":
            read = list(laps[number].readings) if laps else []
            moves = tuple(clear.Move(rod, draw(st.sampled_from(rods))) for rod in read)
            return clear.ReadingsMoved(step.id, number, moves) if moves else None
        case "means":
            return clear.MeansChosen(draw(st.sampled_from(Means)), draw(st.sampled_from([None, *rods])))
        case "uneven":
            return clear.LeftUneven(draw(st.sampled_from(["", "rod-down"])), draw(st.sampled_from(rods)), side)
        case "target":
            return clear.TargetChosen(
                draw(st.sampled_from(["", "204.5", "180"])), draw(st.sampled_from([None, side]))
            ).read(440)
        case "step_size":
            return clear.StepSizeChosen(draw(st.sampled_from([1, 2, 4])))
        case "rest":
            return rest.RestStarted(step.id, draw(st.integers(1, 90)))
        case "found":
            known = draw(st.sampled_from(findings_for(plan.drum.kind)))
            rod = draw(st.sampled_from(rods)) if known.where == "rod" else None
            return finding.FindingMade(step.id, known.id, side, rod, draw(st.sampled_from([1, 2, 3])))
        case "answer":
            question = draw(st.sampled_from(step.asks))
            if question.unit:
                typed = {"pitch": ["98", "G2 +5"], "length": ["12 mm", "8"], "count": ["10", "12"]}[question.unit]
                return ask.Answered(step.id, question.name, (draw(st.sampled_from(typed)),), question.unit).read(440)
            of = [each.value for each in question.options] or ["as it was"]
            values = draw(st.lists(st.sampled_from(of), max_size=2, unique=True))
            return ask.Answered(step.id, question.name, tuple(values))
        case "school":
            quarrel = draw(st.sampled_from(SCHOOLS))
            return school.SchoolChosen(quarrel.way, draw(st.sampled_from(quarrel.choices)).value)
        case "put_right":
            return finding.PutRight(draw(st.sampled_from(list(state.found)))) if state.found else None
        case _:
            return common.Closed() if draw(st.integers(0, 6)) == 0 else None


def _worked_out(state: BenchState, entry: Entry) -> Entry:
    if isinstance(entry, school.SchoolChosen):
        changes = planned_otherwise(state, work_named(state.plan.work), entry.way, entry.value)
        if changes.too_late:
            raise BadEvent(changes.too_late)
        return replace(entry, plan=changes.plan)
    if isinstance(entry, clear.RodTapped):
        return replace(entry, found=left_after(state, entry))
    if not isinstance(entry, clear.RoundPlanned):
        return entry
    task = clearing_task(state, entry.step, entry.lap)
    return replace(entry, found=round_plan(task, propose(task)))


class Log:
    """A log as a server would keep it: refused entries are not in it."""

    def __init__(self, plan: Plan) -> None:
        self.plan, self.rows = plan, list[Logged]()
        self.state = fold(plan, [])
        self.seen = dict.fromkeys(DEVICES, 0)

    def offer(self, entry: Entry, device: str) -> bool:
        try:
            require_fits(self.state, entry)
            standing, against = standing_of(self.state, entry, self.seen[device], device)
            if standing is Standing.APPLIED or isinstance(entry, school.SchoolChosen):
                entry = _worked_out(self.state, entry)
        except DrumworkError:
            return False
        seq = len(self.rows) + 1
        name = str(uuid.uuid5(uuid.NAMESPACE_OID, f"golden {seq}"))
        self.rows.append(Logged(name, seq, "Ines", START + timedelta(minutes=seq), entry, device, standing, against))
        self.state = fold(self.plan, self.rows)
        return True

    def read_round(self, rods: tuple[int, ...], step: str, lap: int, device: str, spread: list[int]) -> None:
        for rod, tenth in zip(rods, spread, strict=False):
            self.offer(clear.ReadingTaken(step, lap, rod, f"{200 + tenth / 10}").read(440), device)


@st.composite
def logs(draw: st.DrawFn) -> Log:
    log = Log(draw(st.sampled_from(PLANS)))
    at = draw(st.sampled_from([step for step in log.plan.steps if step.kind != "close"]))
    for step in log.plan.steps:  # begin anywhere in the work
        if step is at:
            break
        log.offer(common.StepDone(step.id), DEVICES[0])
    two = draw(st.booleans())
    for _ in range(draw(st.integers(1, LONGEST))):
        device = draw(st.sampled_from(DEVICES)) if two else DEVICES[0]
        if draw(st.booleans()):
            log.seen[device] = len(log.rows)
        entry = draw(entries(log.state))
        if isinstance(entry, clear.ReadingTaken) and draw(st.integers(0, 2)) == 0:
            side = log.plan.side_of(entry.step)
            rods = log.state.layout(side).rods
            spread = draw(st.lists(st.integers(-40, 40), min_size=len(rods), max_size=len(rods)))
            log.read_round(rods, entry.step, entry.lap, device, spread)
            log.offer(clear.RoundPlanned(entry.step, entry.lap), device)
        elif entry is not None:
            log.offer(entry, device)
        conflict = next((row for row in log.rows if row.standing is Standing.CONFLICT), None)
        if conflict and draw(st.integers(0, 3)) == 0 and not log.state.closed:
            log.offer(common.Settled(conflict.id, draw(st.sampled_from(["first", "second"]))), device)
    if draw(st.integers(0, 3)) == 0:  # all of it taken back, the latest first
        for row in reversed([row for row in log.state.live if row.entry.kind != "close"]):
            log.offer(common.Undone(row.id), DEVICES[0])
    return log


def _lap(state: BenchState, step: str, number: int) -> dict[str, Any]:
    lap = state.laps[step][number]
    return {
        "order": list(lap.rods),
        "each": lap.each.thirtyseconds if lap.each else None,
        "owed": list(lap.owed()),
        "turned": {str(rod): mark.value.thirtyseconds if mark.value is not None else None for rod, mark in lap.turned.items()},
        "readings": {str(rod): [mark.event_id, lap.typed[rod]] for rod, mark in lap.readings.items()},
        "ear": {str(rod): mark.event_id for rod, mark in lap.ear.items()},
        "numbers": {str(rod): mark.event_id for rod, mark in lap.numbers.items()},
        "whole": lap.whole.value.value if lap.whole else "",
        "centre": lap.centre_typed if lap.centre else "",
        "plan": lap.plan.event_id if lap.plan else None,
        "left": lap.left.event_id if lap.left else None,
        "between": [[tap.rod, tap.event_id] for tap in lap.between],
    }  # fmt: skip


def _stands(state: BenchState) -> dict[str, Any]:
    return {
        "shown": [step.id for step in state.steps],
        "points": {step.id: list(step.said(state.facts)) for step in state.steps},
        "tools": {step.id: list(step.takes(state.facts)) for step in state.steps},
        "done": {step: mark.event_id for step, mark in state.done.items()},
        "laps": {step: [_lap(state, step, n) for n in range(len(laps))] for step, laps in state.laps.items()},
        "rests": {step: int(at.timestamp()) for step, at in state.rests.items()},
        "targets": {side.value: typed for side, typed in state.targets_typed.items()},
        "uneven": {side.value: (mark.value[0].value if mark.value[0] else "") for side, mark in state.uneven.items()},
        "step_32": state.step.thirtyseconds,
        "means": state.means.value,
        "reference": {
            side.value: state.reference(side) if side in state.plan.drum.layouts else 1 for side in state.plan.sides
        },
        "by": {"up": state.cadence(False).value, "down": state.cadence(True).value},
        "found": {key: mark.put_right for key, mark in state.found.items()},
        "answers": {name: [mark.event_id, list(mark.value.values)] for name, mark in state.answers.items()},
        "notes": [mark.value for mark in state.notes],
        "closed": state.closed is not None,
        "live": [each.id for each in state.live],
        "tally": {
            side.value: {str(rod): turns.thirtyseconds for rod, turns in tally.items()} if tally else None
            for side in state.plan.sides
            for tally in [state.tally(side)]
        },
    }


def _case(log: Log) -> dict[str, Any]:
    figures = figures_of(log.state)
    rows = [
        {
            "id": row.id,
            "seq": row.seq,
            "by": row.by,
            "at": row.at.isoformat(),
            "device": row.device,
            "standing": row.standing.value,
            "against": row.against,
            "words": row.entry.words(log.plan),
            "body": body_of(row.entry, entry_to(row.entry)),
        }
        for row in log.rows
    ]
    plans = [
        {"entry": each.entry, "rods": [{"rod": r.rod, "turns_32": r.turns_32} for r in each.rods]}
        for each in figures.plans
    ]
    # A plan that was undone is not among the figures any more; the device need not know it.
    anew = [
        shape_anew(row.id, row.entry.plan).model_dump(mode="json")
        for row in log.rows
        if isinstance(row.entry, school.SchoolChosen) and row.entry.plan
    ]
    taps = {"planned_taps": figures.planned_taps, "last_taps": figures.last_taps}
    return {
        "plan": PLANS.index(log.plan),
        "log": rows,
        "plans": plans,
        "taps": taps,
        "anew": anew,
        "stands": _stands(log.state),
    }


def main(path: str) -> None:
    cases: list[dict[str, Any]] = []

    @seed(20261126)
    @settings(
        max_examples=CASES,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(logs())
    def gather(log: Log) -> None:
        if len(cases) < CASES:
            cases.append(_case(log))

    gather()
    plans = [
        {
            "steps": [shape_step(step).model_dump(mode="json") for step in plan.steps],
            "heads": [shape_plan_head(plan, side) for side in plan.sides],
            "step_32": plan.ways.step.thirtyseconds,
            "cadence": plan.ways.cadence.value,
            "means": plan.ways.means.value,
            "slacken_by": plan.ways.slacken_by.value,
        }
        for plan in PLANS
    ]
    Path(path).write_text(json.dumps({"plans": plans, "cases": cases}))
    kinds = {row["body"]["kind"] for case in cases for row in case["log"]}
    conflicts = sum(row["standing"] == "conflict" for case in cases for row in case["log"])
    print(
        f"{len(cases)} logs, {sum(len(c['log']) for c in cases)} entries of {len(kinds)} kinds, {conflicts} conflicts"
    )


if __name__ == "__main__":
    main(sys.argv[1])
