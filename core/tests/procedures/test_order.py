"""The order of the work, on every kind of drum, with every number of rods, in every way: by tags, whatever a step is called.

All of it is common practice (trade §3–§9, §18), with no published source.
"""

from collections.abc import Iterator

from drawn import jobs
from hypothesis import given, settings

from drumwork.drums import Side
from drumwork.work.kinds.steps import Passes
from drumwork.work.plan import Plan, StepPlan

# trade §18: where the danger is, the caution is
HAZARDS = {
    "slacken": "driver",
    "lift-off": "burrs",
    "clean-edge": "dust",
    "seat": "no-standing",
    "tension": "over-tension",
    "tension-bed-rods": None,
    "read": "tapping",
    "port": "cutting",
    "unlace": "rope",
    "pull-pass": "rope",
    "range-check": "rope",
}


def shown(plan: Plan) -> list[StepPlan]:
    return [step for step in plan.steps if step.shows(())]


def places(steps: list[StepPlan], tag: str, *sides: Side | None) -> list[int]:
    return [n for n, step in enumerate(steps) if tag in step.does and (not sides or step.side in sides)]


def before(steps: list[StepPlan], first: str, then: str, *sides: Side | None) -> bool:
    """Every `first` comes before the first `then`, or together with it."""
    later = places(steps, then, *sides)
    return not later or all(n <= later[0] for n in places(steps, first, *sides))


def heads(plan: Plan) -> Iterator[tuple[list[StepPlan], Side]]:
    steps = shown(plan)
    for side in Side:
        if any(step.side is side for step in steps):
            yield [step for step in steps if step.side in (side, None)], side


@settings(max_examples=150)
@given(jobs())
def test_a_head_goes_on_in_the_trades_order(plan: Plan) -> None:
    for steps, side in heads(plan):
        for first, then in [
            ("lay-out", "slacken"),
            ("mark", "slacken"),
            ("slacken", "lift-off"),
            ("lift-off", "clean-edge"),
            ("clean-edge", "set-head"),
            ("muffle-inside", "set-head"),
            ("port", "set-head"),
            ("set-head", "set-hoop"),
            ("align-gate", "start-rods"),
            ("set-hoop", "start-rods"),
            ("start-rods", "finger-tight"),
            ("finger-tight", "seat"),
            ("finger-tight", "tension"),
        ]:
            assert before(steps, first, then, side, None), (plan.work, plan.drum.kind, side, first, then)


@settings(max_examples=150)
@given(jobs())
def test_every_change_of_overall_pull_is_cleared_afterwards(plan: Plan) -> None:
    if plan.work in ("mesh-heads", "mesh-check") or not plan.drum.traits.rods:
        return  # mesh is not cleared by pitch (§4), a rope drum is evened by its segments (§14)
    for steps, side in heads(plan):
        for n in places(steps, "tension", side):
            assert any(later > n for later in places(steps, "clear", side)), (plan.work, plan.drum.kind)


@settings(max_examples=150)
@given(jobs())
def test_no_pass_goes_straight_round_from_slack(plan: Plan) -> None:
    # P6, common practice
    for step in shown(plan):
        for each in step.data.passes if isinstance(step.data, Passes) else ():
            assert len(set(each.order)) == len(each.order)
            assert set(each.order) <= set(plan.drum.layouts[step.side or Side.BATTER].rods)
            if len(each.order) > 4:
                turns = [(b - a) for a, b in zip(each.order, each.order[1:], strict=False)]
                assert set(turns) - {1}, (plan.work, each.order)


@settings(max_examples=150)
@given(jobs())
def test_all_rods_come_up_and_the_bed_last(plan: Plan) -> None:
    for steps, side in heads(plan):
        up = [step for step in steps if step.side is side and {"tension", "tension-bed-rods"} & set(step.does)]
        up = [step for step in up if isinstance(step.data, Passes)]
        if "finger-tight" in {tag for step in steps for tag in step.does} and up:
            reached = {rod for step in up for each in step.data.passes for rod in each.order}
            assert reached == set(plan.drum.layouts[side].rods)
        assert before(steps, "tension", "tension-bed-rods", side)


@settings(max_examples=150)
@given(jobs())
def test_wires_are_off_before_snare_side_work_and_on_last(plan: Plan) -> None:
    if not plan.drum.traits.wires:
        assert not any("wires" in tag for step in plan.steps for tag in step.does)
        return
    steps = shown(plan)
    off = places(steps, "wires-off")
    for tag in ("slacken", "lift-off", "set-head", "clear"):
        for n in places(steps, tag, Side.RESONANT):
            assert any(each <= n for each in off), (plan.work, tag)
    if fit := places(steps, "wires-fit"):
        last = [n for n in places(steps, "clear", Side.RESONANT) if "P18" not in steps[n].cites]
        assert all(n < fit[0] for n in last)  # P18: once more with wires on
        assert fit[-1] < places(steps, "wires-level")[0] < places(steps, "wires-test")[-1]


@settings(max_examples=150)
@given(jobs())
def test_damping_is_out_while_a_drum_is_read_and_back_after(plan: Plan) -> None:
    steps = shown(plan)
    if plan.drum.traits.pedal and (read := places(steps, "read")):
        assert places(steps, "ring-out")[0] < read[0]
        assert places(steps, "ring-in")[-1] > read[-1]
    assert before(steps, "mount", "patch")


@settings(max_examples=150)
@given(jobs())
def test_the_end_is_written_and_booked(plan: Plan) -> None:
    last = shown(plan)[-1]
    assert "close" in last.does
    if plan.changes_heads:
        assert {"write-date", "book"} <= set(last.does)


@settings(max_examples=150)
@given(jobs())
def test_every_caution_stands_where_its_danger_is(plan: Plan) -> None:
    for step in plan.steps:
        for tag in step.does:
            caution = HAZARDS.get(tag)
            assert caution is None or caution in step.cautions, (plan.work, step.id, tag)
        if plan.drum.traits.two_people and "lay-out" in step.does and plan.changes_heads:
            assert "two-people" in step.cautions
