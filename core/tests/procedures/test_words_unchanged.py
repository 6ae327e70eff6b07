"""The first two procedures still say, on every drum and in every way, what they said before they became data.

Since then steps came in between (a bass drum's damping out and back) and over-tension got its caution; nothing else changed.
"""

import json
from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from drumwork.drums import DrumKind, Side
from drumwork.procedures.catalogue import work_named
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern
from drumwork.work.cautions import CAUTIONS
from drumwork.work.kinds.steps import Passes, Rest
from drumwork.work.plan import DrumFacts, Head, Part, StepPlan, make_plan
from drumwork.work.ways import Grease, LogoPlace, Stretch, Ways

# Written by the code of the version before the engine (commit 678bcff).
KEPT = json.loads((Path(__file__).parent / "words_of_the_first_two.json").read_text())
SINCE = ("ring-out", "ring-in")
READ = {
    "grease": lambda dry: Grease.DRY if dry else Grease.NEVER,
    "logo": LogoPlace,
    "stretch": Stretch,
    "pattern": Pattern,
}


def told(step: StepPlan) -> dict[str, Any]:
    data = step.data
    passes = data.passes if isinstance(data, Passes) else ()
    return {
        "id": step.id,
        "title": step.title,
        "kind": step.kind,
        "say": step.say,
        "points": list(step.said(())),
        "cautions": [CAUTIONS[each] for each in step.cautions],
        "passes": [[each.each.thirtyseconds, list(each.order)] for each in passes],
        "more": data.more.thirtyseconds if isinstance(data, Passes) and data.more else None,
        "minutes": data.minutes if isinstance(data, Rest) else 0,
    }


@pytest.mark.parametrize("case", KEPT["plans"], ids=lambda case: f"{case['work']}-{case['kind']}-{case['side']}")
def test_word_for_word(case: Mapping[str, Any]) -> None:
    side = Side(case["side"])
    layout = RodLayout(case["rods"], frozenset(case["lost"]))
    kind = DrumKind(case["kind"])
    drum = DrumFacts(
        kind,
        {Side.BATTER: layout, Side.RESONANT: layout},
        snare_bed=kind is DrumKind.SNARE,
        wires=kind is DrumKind.SNARE,
    )
    said = {"grease" if name == "grease_dry_threads" else name: value for name, value in case["ways"].items()}
    ways = replace(Ways(), **{name: READ.get(name, lambda v: v)(value) for name, value in said.items()})
    heads = {side: Head(case["new_head"], "old")}
    work = replace(work_named(case["work"]), suits=lambda _: "")  # mesh had been led as film
    plan = make_plan(work, Part(side.value), drum, ways, heads)
    shown = [told(step) for step in plan.steps if step.when.holds(()) and step.id not in SINCE]
    then = [KEPT["steps"][n] for n in case["plan"]["steps"]]
    if ways.stretch is Stretch.OVER_TENSION:
        seat = next((step for step in shown if step["id"] == "seat"), {"cautions": []})
        seat["cautions"] = [each for each in seat["cautions"] if each != CAUTIONS["over-tension"]]
    assert plan.title == case["plan"]["title"]
    assert shown == then
    assert next((step.id for step in plan.steps if step.zero), None) == case["plan"]["zero"]
