"""Questions of a step: what they take, what they decide, and what the pull of a rope comes to (trade §14; common practice, no source)."""

from collections.abc import Callable
from datetime import UTC, datetime

import pytest
from benches import plan as make

from drumwork.drums import DrumKind, Side
from drumwork.errors import BadEvent, BadQuantity
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.rods.layout import RodLayout
from drumwork.rope import Pass
from drumwork.work.asks import Option, places_round
from drumwork.work.conditions import ALWAYS, NEVER, Chose, Chosen, condition_from, condition_to
from drumwork.work.fold import fold, require_fits
from drumwork.work.kinds.ask import Answered
from drumwork.work.kinds.common import StepDone, Undone
from drumwork.work.log import Entry, Logged
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Part, Plan
from drumwork.work.state import BenchState
from drumwork.work.told import passes_made, told
from drumwork.work.ways import Ways

NOON = datetime(2026, 3, 2, 12, tzinfo=UTC)


def state_of(plan: Plan, *entries: Entry) -> BenchState:
    return fold(plan, [Logged(f"e{n}", n, "ines", NOON, entry) for n, entry in enumerate(entries, 1)])


def ported() -> Plan:
    drum = DrumFacts(DrumKind.BASS, {side: RodLayout(8) for side in Side}, port=True)
    return make_plan(work_named("new-resonant-head"), Part.RESONANT, drum, Ways())


def rope(*passes: Pass) -> Plan:
    return make_plan(
        work_named("rope-range"), Part.HEADS, DrumFacts(DrumKind.ROPE_BASS, {}, rope_passes=passes), Ways()
    )


def typed(step: str, question: str, text: str, unit: str) -> Answered:
    return Answered(step, question, (text,), unit).read(440)  # type: ignore[arg-type]


def test_a_cut_comes_up_only_where_a_cut_was_chosen_and_a_taken_back_choice_takes_it_away() -> None:
    plan = ported()
    names = [step.id for step in state_of(plan).steps]
    assert "cut" not in names
    chosen = Answered("port", "port", ("cut",))
    shown = [step.id for step in state_of(plan, chosen).steps]
    assert shown.index("cut") == shown.index("port") + 1
    assert "cut" not in [step.id for step in state_of(plan, chosen, Answered("port", "port", ("ready",))).steps]
    assert "cut" not in [step.id for step in state_of(plan, chosen, Undone("e1")).steps]


def test_a_step_that_must_know_is_not_done_before_it_does() -> None:
    plan = ported()
    with pytest.raises(BadEvent, match="First: The port is"):
        require_fits(state_of(plan), StepDone("port"))
    require_fits(state_of(plan, Answered("port", "port", ("none",))), StepDone("port"))


@pytest.mark.parametrize(
    ("entry", "words"),
    [
        (Answered("port", "port", ("sawn",)), "not among the answers"),
        (Answered("port", "port", ("cut", "ready")), "one answer"),
        (Answered("port", "logo", ("rod-1",)), "does not ask that"),
        (Answered("nowhere", "port", ("cut",)), "no step"),
        (Answered("port", "port", ("cut",), "pitch"), "answered otherwise"),
        (Answered("port", "port-size", ("wide",)), "with one length"),
    ],
)
def test_an_answer_that_does_not_fit_says_why(entry: Answered, words: str) -> None:
    with pytest.raises(BadEvent, match=words):
        require_fits(state_of(ported()), entry)


def test_what_is_typed_is_read_once_with_the_jobs_own_reference() -> None:
    assert Answered("range", "low", ("A2",), "pitch").read(442).amount == pytest.approx(
        110.5
    )  # MIDI Tuning Standard, A4 at 442
    assert Answered("pull", "pulled", ("12",), "length").read(440).amount == pytest.approx(0.012)
    assert Answered("pull", "pulled", ("1/2 in",), "length").read(440).amount == pytest.approx(0.0127)
    with pytest.raises(BadQuantity):
        Answered("range", "low", ("soft",), "pitch").read(440)


def test_places_go_round_from_rod_one_and_by_the_clock_without_rods() -> None:
    assert [each.value for each in places_round(RodLayout(4))] == [
        "rod-1", "gap-1", "rod-2", "gap-2", "rod-3", "gap-3", "rod-4", "gap-4",
    ]  # fmt: skip
    assert places_round(RodLayout(4))[-1].words == "between 4 and 1"
    assert [each.value for each in places_round(None)][:2] == ["hour-12", "hour-1"]


def test_a_place_noted_at_the_mark_is_said_again_where_it_goes_back() -> None:
    plan = make(kind=DrumKind.FLOOR_TOM, rods=8)
    marked = {each.name for each in plan.step("mark").asks}
    assert set(plan.step("set-head").recalls) == marked


def test_a_choice_is_kept_as_data_and_asked_like_a_finding() -> None:
    when = Chose("port", "cut")
    assert condition_from(condition_to(when)) == when
    assert when.holds([Chosen("port", "cut")])
    assert not when.holds([Chosen("port", "ready")])
    assert when not in (ALWAYS, NEVER)


def test_a_workshops_own_lists_are_asked_among() -> None:
    drum = make(kind=DrumKind.SNARE, rods=10).drum
    lists = {"wire-lines": (Option("20 strands", "20 strands"),)}
    plan = make_plan(work_named("new-wires"), Part.WIRES, drum, Ways(), lists=lists)
    (which,) = plan.step("lay-out").asks
    assert which.options == lists["wire-lines"]
    require_fits(state_of(plan), Answered("lay-out", "wires", ("from the drawer",)))  # own words may be said


def test_every_question_is_asked_by_one_name_in_one_job() -> None:
    for work in CATALOGUE.values():
        for kind in DrumKind:
            layouts = {side: RodLayout(8) for side in Side} if kind is not DrumKind.ROPE_BASS else {}
            for part in work.parts:
                drum = DrumFacts(kind, layouts, snare_bed=kind is DrumKind.SNARE, port=kind is DrumKind.BASS)
                if work.why_not(drum, part):
                    continue
                plan = make_plan(work, part, drum, Ways())
                names = [each.name for step in plan.steps for each in step.asks]
                assert len(set(names)) == len(names), (work.id, kind)
                assert {name for step in plan.steps for name in step.recalls} <= set(names) | {
                    f"{what}-{side}" for what in ("logo", "hoop", "rods") for side in Side
                }, (work.id, kind)


def test_how_much_more_to_pull_is_said_once_the_range_and_the_wanted_one_are_known() -> None:
    before = [typed("mark", "low-before", "80", "pitch"), typed("mark", "high-before", "90", "pitch")]
    wanted = [typed("mark", "wanted-low", "85", "pitch"), typed("mark", "wanted-high", "98", "pitch")]
    assert told(state_of(rope(), *before)) == {}
    words = told(state_of(rope(), *before, *wanted))["pull"]
    assert "pull every segment one centimetre" in words  # nothing known of this rope yet
    after = [typed("pull", "pulled", "10 mm", "length"), typed("range", "low", "84", "pitch"), typed("range", "high", "93.6", "pitch")]  # fmt: skip
    state = state_of(rope(), *before, *wanted, *after)
    assert passes_made(state) == (Pass(0.010, 80.0, 84.0),)
    # worked: 84² − 80² = 656 Hz² for 10 mm, 65 600 a metre; aimed 50 cents above 98 Hz: 98² · 2^(100/1200) = 10 175.1;
    # from 93.6² = 8 761.0 it takes 1 414.1 / 65 600 = 21.6 mm
    assert told(state)["pull-again"].startswith("Pull every segment 22 mm more")


def test_how_long_a_rope_is_said_from_the_drum_and_its_holes() -> None:
    drum = DrumFacts(DrumKind.ROPE_BASS, {}, diameter_m=0.70, depth_m=0.36)
    plan = make_plan(work_named("new-rope-head"), Part.BATTER, drum, Ways())
    assert told(state_of(plan)) == {}
    entries = [typed("lay-out", "rope-holes", "10", "count"), typed("lay-out", "rope-hoop", "40 mm", "length")]
    words = told(state_of(plan, *entries))["lay-out"]
    # worked: rise 0.36 + 0.04; radius 0.35 + 0.015 holds the holes; across 2 · 0.365 · sin(π/20) = 0.1142; hypotenuse 0.4160; 20 of them
    assert "20 segments of 41.6 cm" in words
    assert "Give a number" in _refused(typed, "lay-out", "rope-holes", "ten", "count")
    assert "at least four holes" in told(state_of(plan, typed("lay-out", "rope-holes", "3", "count")))["lay-out"]


def test_which_pairs_to_correct_is_said_from_what_was_felt() -> None:
    def said(*entries: Answered) -> str:
        return told(state_of(rope(), *entries)).get("segments", "")

    pairs, slack = typed("segments", "pairs", "9", "count"), Answered("segments", "pairs-slack", ("4 and 7",))
    assert said(slack) == ""  # how many there are is not known yet
    words = said(pairs, slack)
    assert words.startswith("All ears tight: pull pair 4 a little, pair 3 held, and carry it along through pair 9")
    assert "pull pair 7" in words
    assert said(pairs, Answered("segments", "pairs-tight", ("1",))).startswith("Left as it is")
    assert "no pair 12" in said(pairs, Answered("segments", "pairs-tight", ("12",)))


def _refused(act: Callable[..., object], *asked: str) -> str:
    with pytest.raises(BadQuantity) as error:
        act(*asked)
    return error.value.message


def test_what_earlier_jobs_taught_of_the_rope_counts() -> None:
    entries = [
        typed("mark", name, hz, "pitch")
        for name, hz in (("low-before", "80"), ("high-before", "90"), ("wanted-low", "85"), ("wanted-high", "98"))
    ]
    assert "mm more" in told(state_of(rope(Pass(0.01, 78.0, 82.0)), *entries))["pull"]


def test_a_range_read_the_wrong_way_round_is_said_not_reckoned() -> None:
    entries = [
        typed("mark", name, hz, "pitch")
        for name, hz in (("low-before", "90"), ("high-before", "80"), ("wanted-low", "85"), ("wanted-high", "98"))
    ]
    assert "Read both again" in told(state_of(rope(), *entries))["pull"]
