"""A new resonant head on a tom (common practice, trade §3, §7; no published source)."""

import pytest
from benches import facts, plan

from drumwork.drums import DrumKind, Side
from drumwork.errors import UnknownWork
from drumwork.procedures.catalogue import head_change_for, work_named
from drumwork.work.making import make_plan
from drumwork.work.plan import Part
from drumwork.work.ways import Ways


@pytest.mark.parametrize("kind", [DrumKind.RACK_TOM, DrumKind.FLOOR_TOM])
def test_it_goes_in_the_trades_order_about_the_resonant_head_alone(kind: DrumKind) -> None:
    made = plan("new-resonant-head", Part.RESONANT, kind)
    assert {step.side for step in made.steps} == {Side.RESONANT}
    done = [tag for step in made.steps for tag in step.does]
    order = [
        "lay-out",
        "slacken",
        "lift-off",
        "clean-edge",
        "set-head",
        "finger-tight",
        "seat",
        "tension",
        "clear",
        "other-head",
    ]
    assert [done.index(tag) for tag in order] == sorted(done.index(tag) for tag in order)


def test_an_aged_resonant_head_of_a_tom_leads_to_it() -> None:
    offer = head_change_for(facts(), Side.RESONANT)
    assert offer.work is work_named("new-resonant-head")
    with pytest.raises(UnknownWork, match="its own procedures"):
        make_plan(work_named("new-resonant-head"), Part.RESONANT, facts(DrumKind.SNARE), Ways())
