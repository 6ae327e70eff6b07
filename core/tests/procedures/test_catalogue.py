"""What every procedure keeps to, on every kind of drum, with every number of rods, in every way.

The order of the work is common practice (trade §3, §4), with no published source.
"""

import itertools
import re
from dataclasses import fields, replace
from pathlib import Path
from typing import get_args

import pytest
from drawn import SCHOOLS, begun_jobs, jobs
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import DrumworkError, UnknownWork
from drumwork.findings import FINDINGS, Place, finding, findings_for
from drumwork.procedures.catalogue import CATALOGUE, check_for, head_change_for, offers_for, work_named
from drumwork.rods.layout import RodLayout
from drumwork.work.cautions import CAUTIONS
from drumwork.work.conditions import ALWAYS, Chose, Chosen, Condition, Found, FoundThing, condition_from, condition_to
from drumwork.work.effects import ChangeHead, TakeFromShelf
from drumwork.work.kinds.registry import KINDS
from drumwork.work.kinds.steps import Close, Passes
from drumwork.work.making import make_plan
from drumwork.work.pictures import PICTURES, Picture
from drumwork.work.plan import DrumFacts, Part, Plan, Step
from drumwork.work.tags import TAGS
from drumwork.work.ways import AfterStretch, FirstHead, Stretch, Ways
from drumwork.work.words import Point

FACTS = DrumFacts(DrumKind.RACK_TOM, {side: RodLayout(8) for side in Side})
LACKS = {"wires": "strand", "legs": "Legs o", "claws": "claw", "mount": "Mount on"}
SOURCES = Path(__file__).parents[3] / "docs" / "sources" / "trade.md"


@settings(max_examples=300)
@given(jobs())
def test_every_plan_is_whole(plan: Plan) -> None:
    ids = [step.id for step in plan.steps]
    assert len(set(ids)) == len(ids)
    assert isinstance(plan.steps[-1].data, Close)
    assert plan.steps[-1].when is ALWAYS  # the close can always be reached
    for step in plan.steps:
        assert step.kind in KINDS
        assert step.title
        assert step.say
        assert "{" not in step.title + step.say + "".join(str(point.text) for point in step.points)
        assert set(step.does) <= set(TAGS)
        assert set(step.cautions) <= set(CAUTIONS)
        assert step.side is None or step.side in plan.sides
        if isinstance(step.data, Passes):
            assert step.side is not None
            rods = plan.drum.layouts[step.side].rods
            assert all(set(each.order) <= set(rods) and each.order for each in step.data.passes)
            assert step.cautions  # §18: rods under tension, or a driver, carry their caution
    for effect in plan.effects:
        side = getattr(effect, "side", None)
        assert side is None or side in plan.sides


@settings(max_examples=200)
@given(jobs())
def test_no_step_names_a_part_the_drum_lacks(plan: Plan) -> None:
    told = " ".join(f"{s.say} {' '.join(str(p.text) for p in s.points if p.when is ALWAYS)}" for s in plan.steps)
    traits = traits_of(plan.drum.kind)
    for trait, words in LACKS.items():
        assert getattr(traits, trait) or words not in told, (plan.work, plan.drum.kind, words)


@settings(max_examples=300)
@given(jobs())
def test_a_new_head_comes_from_the_shelf_and_is_fitted(plan: Plan) -> None:
    changed = {e.side for e in plan.effects if isinstance(e, ChangeHead)}
    assert changed == {e.side for e in plan.effects if isinstance(e, TakeFromShelf)}
    assert changed == (set(plan.sides) if plan.changes_heads else set())


def _conditions(step: Step) -> list[Condition]:
    texts = [step.title, step.say, *(point.text for point in step.points)]
    cases = [case.when for text in texts if not isinstance(text, str) for case in text]
    return [step.when, *cases, *(point.when for point in step.points)]


def test_every_condition_holds_somewhere_and_fails_somewhere() -> None:
    """No dead words: over all drums and ways, and all findings at all degrees, each condition is both true and false at some place."""
    from drumwork.work.conditions import NEVER, Situation
    from drumwork.work.making import _by_name

    seen: dict[str, set[bool]] = {}
    usual = Ways()
    choices = [usual, *(replace(usual, **{name: value}) for name, of in SCHOOLS.items() for value in of)]
    choices += [replace(usual, stretch=stretch, after_stretch=after) for stretch in Stretch for after in AfterStretch]
    for work in CATALOGUE.values():
        for part, ways in itertools.product(work.parts, choices):
            for kind, special in itertools.product(DrumKind, (True, False) if ways is usual else (True,)):
                layouts = {side: RodLayout(8) for side in Side} if traits_of(kind).rods else {}
                drum = DrumFacts(kind, layouts, snare_bed=special and traits_of(kind).wires, port=special)
                if work.suits(drum):
                    continue
                for step, when in [(each, when) for each in work.steps(part, ways, drum) for when in _conditions(each)]:
                    key = f"{re.sub('^(batter|resonant)-', '', step.id)}: {when.words()}"
                    if seen.get(key) == {True, False}:
                        continue
                    at = Situation(kind, step.side, layouts, _by_name(ways), drum.has_wires, drum.snare_bed, special)
                    left = when.settle(at)
                    if left is ALWAYS or left is NEVER:
                        seen.setdefault(key, set()).add(left is ALWAYS)
                        continue
                    things: list[FoundThing] = [
                        _Thing(leaf.finding, leaf.degree) for leaf in left.leaves() if isinstance(leaf, Found)
                    ]
                    things += [Chosen(leaf.question, leaf.value) for leaf in left.leaves() if isinstance(leaf, Chose)]
                    seen.setdefault(key, set()).update({left.holds(()), left.holds(things)})
                    assert condition_from(condition_to(left)) == left
    dead = [key for key, values in seen.items() if values == {False}]
    assert not dead
    about_findings = [key for key, values in seen.items() if "found" in key and values != {True, False}]
    assert not about_findings


class _Thing:
    place = Place()

    def __init__(self, known: str, degree: int) -> None:
        self.finding, self.degree = known, degree


def test_every_finding_a_condition_asks_about_is_in_the_vocabulary_and_can_be_on_such_a_drum() -> None:
    for work in CATALOGUE.values():
        for part in work.parts:
            for step in work.steps(part, Ways(), FACTS):
                for when in _conditions(step):
                    for leaf in when.leaves():
                        assert not isinstance(leaf, Found) or finding(leaf.finding)


def test_every_cited_trade_id_stands_in_the_sources() -> None:
    listed = SOURCES.read_text()
    for work in CATALOGUE.values():
        cited = {
            *work.cites,
            *(c for part in work.parts for step in work.steps(part, Ways(), FACTS) for c in step.cites),
        }
        missing = [each for each in cited if f"| {each} |" not in listed]
        assert not missing


def test_the_vocabulary_has_every_row_once_and_says_what_to_do() -> None:
    assert len(FINDINGS) >= 62  # the shared vocabulary
    assert all(each.words and each.answer for each in FINDINGS.values())
    assert findings_for(DrumKind.SNARE) != findings_for(DrumKind.FLOOR_TOM)
    wires = {each.id for each in findings_for(DrumKind.FLOOR_TOM) if each.where == "wires"}
    assert not wires


def test_unknown_work_is_an_error_and_never_another_work() -> None:
    with pytest.raises(UnknownWork, match="no work"):
        work_named("polish")


@pytest.mark.parametrize("kind", list(DrumKind))
def test_the_catalogue_says_why_not(kind: DrumKind) -> None:
    layouts = {side: RodLayout(8) for side in Side} if traits_of(kind).rods else {}
    for offer in offers_for(DrumFacts(kind, layouts)):
        assert offer.why_not == "" or offer.why_not.endswith(".")


def test_a_job_on_both_heads_reads_the_first_again_after_the_second() -> None:
    for first in Side:
        assert _cleared(DrumKind.RACK_TOM, FirstHead(first.value)) == [first, first.other, first]  # trade §6: it creeps


def _cleared(kind: DrumKind, first: FirstHead) -> list[Side | None]:
    drum = DrumFacts(kind, {side: RodLayout(8) for side in Side}, snare_bed=traits_of(kind).wires)
    plan = make_plan(work_named("both-heads"), Part.HEADS, drum, Ways(first_head=first))
    return [step.side for step in plan.steps if step.kind == "clear"]


@pytest.mark.parametrize("kind", [each for each in DrumKind if traits_of(each).film and traits_of(each).rods])
def test_the_head_chosen_to_go_first_goes_first_on_every_kind(kind: DrumKind) -> None:
    for first in (FirstHead.BATTER, FirstHead.RESONANT):
        assert _cleared(kind, first)[0] == first.value
    wires_or_bass = traits_of(kind).wires or kind in (DrumKind.BASS, DrumKind.MARCHING_BASS)
    usual = _cleared(kind, FirstHead.USUAL)[0]
    assert usual is (Side.BATTER if wires_or_bass else Side.RESONANT)  # common practice, trade §7


def test_ways_are_frozen_by_name() -> None:
    assert {each.name for each in fields(Ways)} >= {
        "pattern",
        "stretch",
        "logo",
        "first_head",
        "cadence",
        "even",
        "a4_hz",
    }


def test_a_fifth_wheel_is_refused() -> None:
    with pytest.raises(DrumworkError):
        make_plan(work_named("both-heads"), Part.BATTER, DrumFacts(DrumKind.SNARE, {}), Ways())
    assert Point("x").when is ALWAYS


def test_what_is_found_brings_its_tools_along() -> None:
    """Findings vocabulary: a bent rod is replaced, so a straight one is laid out and lies ready where rods are started."""
    plan = make_plan(work_named("new-batter-head"), Part.BATTER, FACTS, Ways())
    bent = [_Thing("rod-bent", 2)]
    spare = "straight rod of the same thread and length"
    for step in ("lay-out", "fingers"):
        assert spare not in plan.step(step).takes(())
        assert spare in plan.step(step).takes(bent)


@settings(max_examples=300)
@given(begun_jobs(), st.sets(st.sampled_from(sorted(FINDINGS)), max_size=4))
def test_tools_used_are_tools_laid_out(plan: Plan, found: set[str]) -> None:
    things = [_Thing(each, 3) for each in found]
    laid = {tool for step in plan.steps if "lay-out" in step.does for tool in step.takes(things)}
    used = {tool for step in plan.steps if step.shows(things) for tool in step.takes(things)}
    if any("lay-out" in step.does for step in plan.steps):
        assert used <= laid


@pytest.mark.parametrize("kind", list(DrumKind))
def test_every_kind_of_drum_has_the_work_it_needs(kind: DrumKind) -> None:
    """An aged head, a check that is due, dirt and a lost part: each leads to work, on every kind of drum and both sides."""
    layouts = {side: RodLayout(8) for side in Side} if traits_of(kind).rods else {}
    drum = DrumFacts(kind, layouts)
    for side in Side:
        assert head_change_for(drum, side).work.changes_heads
        assert check_for(drum, side).work.answers_checks
    offered = {offer.work.id for offer in offers_for(drum) if not offer.why_not}
    assert {"hardware-service", "fit-part", "muffling"} <= offered


def test_every_picture_is_shown_somewhere_and_said_in_words() -> None:
    shown = set()
    for kind in DrumKind:
        layouts = {side: RodLayout(8) for side in Side} if traits_of(kind).rods else {}
        drum = DrumFacts(kind, layouts, snare_bed=traits_of(kind).wires, port=traits_of(kind).pedal)
        for offer in offers_for(drum):
            if not offer.why_not:
                shown |= {step.picture for step in make_plan(offer.work, offer.part, drum, Ways()).steps}
    assert shown - {""} == set(PICTURES)
    assert set(PICTURES) | {""} == set(get_args(Picture))
