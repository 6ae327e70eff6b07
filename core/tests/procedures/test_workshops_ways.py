"""Where the trade disagrees, each workshop's way shows in its steps (trade §17, common practice)."""

import pytest
from benches import plan as make

from drumwork.drums import DrumKind, Side
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, order_rods
from drumwork.work.cautions import CAUTIONS
from drumwork.work.plan import Plan, StepPlan
from drumwork.work.ways import Grease, LogoPlace, Stretch


def plan(kind: DrumKind = DrumKind.RACK_TOM, **ways: object) -> Plan:
    return make(kind=kind, rods=8, **ways)


def points(step: StepPlan) -> tuple[str, ...]:
    return step.said(())


@pytest.mark.parametrize(
    ("stretch", "words"),
    [(Stretch.PALM, "palm"), (Stretch.OVER_TENSION, "back right off"), (Stretch.BARELY, "lightly")],
)
def test_seating_follows_the_school(stretch: Stretch, words: str) -> None:
    assert words in plan(stretch=stretch).step("seat").say


@pytest.mark.parametrize("stretch", list(Stretch))
def test_no_school_of_seating_stands_on_the_drum(stretch: Stretch) -> None:
    # F12, trade §18: a person's weight has been used; we do not advise it
    assert any("Never stand or kneel" in CAUTIONS[caution] for caution in plan(stretch=stretch).step("seat").cautions)


@pytest.mark.parametrize("place", list(LogoPlace))
def test_the_logo_goes_where_the_workshop_puts_it(place: LogoPlace) -> None:
    words = {
        LogoPlace.BADGE: "at the badge",
        LogoPlace.BETWEEN_LUGS: "between two lugs",
        LogoPlace.TWELVE: "twelve o'clock",
        LogoPlace.THROW_OFF: "throw-off",
        LogoPlace.OPPOSITE_LEG: "away from a leg",
    }
    assert words[place] in plan(DrumKind.SNARE, logo=place).step("set-head").say


def test_on_a_floor_tom_the_logo_stays_away_from_a_leg() -> None:
    # trade §4, floor tom: orient the logo away from a leg
    assert "away from a leg" in plan(DrumKind.FLOOR_TOM).step("set-head").say


def test_grease_is_a_spot_where_dry_or_none() -> None:
    assert any("spot of light grease" in point for point in points(plan(grease=Grease.DRY).step("clean")))
    assert any("adds no grease" in point for point in points(plan(grease=Grease.NEVER).step("clean")))


@pytest.mark.parametrize("pattern", [Pattern.STAR, Pattern.NEIGHBOUR_STAR, Pattern.PLUS_CROSS, Pattern.EVERY_THIRD])
def test_every_pass_goes_in_the_workshops_order(pattern: Pattern) -> None:
    made = plan(pattern=pattern)
    for step in ("slacken", "tension"):
        assert {each.order for each in made.step(step).data.passes} == {order_rods(RodLayout(8), pattern)}
    assert made.turning_order(Side.BATTER) == order_rods(RodLayout(8), pattern)


def test_turns_grow_smaller_toward_the_end() -> None:
    # common practice P10
    for kind in (DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM):
        sizes = [each.each for each in plan(kind).step("tension").data.passes]
        assert sizes == sorted(sizes, reverse=True)
        assert sizes[0] == Turns.of(1, 2)


def test_each_kind_is_told_what_is_its_own() -> None:
    snare, rack, floor = (
        " ".join(p for s in plan(kind).steps for p in (s.say, *points(s)))
        for kind in (DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM)
    )
    assert "wires" in snare
    assert "wires" not in rack
    assert "Legs off" in floor
    assert "Legs on" in floor
    assert "Mount off" in rack


def test_tapping_goes_straight_round_whatever_the_order_of_turning() -> None:
    assert plan(pattern=Pattern.PLUS_CROSS).tapping_order(Side.BATTER) == (1, 2, 3, 4, 5, 6, 7, 8)
