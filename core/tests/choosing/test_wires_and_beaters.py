"""Which wires, which beater. Common practice, no source: 20 strands usual, fewer drier, more wider; never longer than the bed; the tie to the
strainer's clamp (trade §10); cable in concert (C2); hard beaters wear a head."""

from __future__ import annotations

import json
import subprocess
import sys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.choosing import (
    BEATERS,
    NEEDS,
    TIES,
    USES,
    WIRE_RULES,
    WIRE_SPECS,
    WORDS,
    Spec,
    Wanted,
    WireAnswer,
    WireExcluded,
    WireSpec,
    WiresWanted,
    choose,
    choose_beater,
    choose_wires,
    judge_wires,
)
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import BadQuantity

SNARE = DrumKind.SNARE
WIRED = [kind for kind in DrumKind if traits_of(kind).wires]
asked_for = st.builds(
    WiresWanted,
    st.sampled_from(WIRED),
    st.one_of(st.none(), st.floats(8, 16)),
    st.sampled_from(USES),
    st.lists(st.sampled_from(list(WORDS)), max_size=4).map(tuple),
    st.lists(st.sampled_from(NEEDS), max_size=4).map(tuple),
    st.lists(st.sampled_from(TIES), max_size=2).map(tuple),
)


def first(**asked: object) -> WireSpec:
    return choose_wires(WiresWanted(SNARE, **asked)).answers[0].spec  # type: ignore[arg-type]


def test_twenty_coiled_strands_unless_something_else_is_asked() -> None:
    assert (first().strands, first().made) == (20, "coiled")
    assert (first(use="school").strands, first(use="school").made) == (20, "coiled")


def test_drier_is_fewer_and_wider_is_more() -> None:
    assert first(sound=("dry", "short")).strands < 20
    assert first(sound=("open", "loud")).strands > 20


def test_a_hall_asks_for_cable_or_gut() -> None:
    assert first(use="concert").made in ("cable", "gut")
    assert choose_wires(WiresWanted(DrumKind.ORCHESTRAL_SNARE)).answers[0].spec.made in ("cable", "gut")


def test_what_the_strainer_does_not_clamp_and_what_is_too_long_never_goes_on() -> None:
    found = choose_wires(WiresWanted(SNARE, 13, clamps=("cord",)))
    assert {each.spec.tie for each in found.answers} == {"cord"}
    assert {each.rule for each in found.excluded} == {"WX-tie"}
    assert judge_wires(WiresWanted(SNARE, 13), WireSpec(20, fits_in=14)).rule == "WX-long"  # type: ignore[union-attr]
    assert judge_wires(WiresWanted(SNARE, 14, bed_in=12.5), WireSpec(20, fits_in=13)).rule == "WX-long"  # type: ignore[union-attr]
    assert judge_wires(WiresWanted(SNARE, 14), WireSpec(20, fits_in=12)).rule == "WX-short"  # type: ignore[union-attr]
    assert isinstance(judge_wires(WiresWanted(SNARE, 14), WireSpec(20, fits_in=14)), WireAnswer)


@given(asked_for)
def test_one_to_three_answers_that_differ_and_none_that_is_excluded(asked: WiresWanted) -> None:
    found = choose_wires(asked)
    assert 1 <= len(found.answers) <= 3
    kinds = [(each.spec.strands, each.spec.made) for each in found.answers]
    assert len(set(kinds)) == len(kinds)
    assert not {each.spec for each in found.answers} & {each.spec for each in found.excluded}
    assert all(not asked.clamps or each.spec.tie in asked.clamps for each in found.answers)
    assert [each.score for each in found.answers] == sorted((each.score for each in found.answers), reverse=True)


def test_every_rule_is_reached() -> None:
    reached = set()
    for kind in WIRED:
        for use in USES:
            for words in ((), ("dry",), ("open",), ("sensitive",)):
                asked = WiresWanted(kind, 13, use, words, ("quiet",), ("cord",))
                for spec in (*WIRE_SPECS, WireSpec(20, fits_in=14), WireSpec(20, fits_in=10)):
                    found = judge_wires(asked, spec)
                    reached |= {found.rule} if isinstance(found, WireExcluded) else set(found.rules)
    assert reached >= {rule.id for rule in WIRE_RULES}


def test_a_drum_without_wires_is_refused() -> None:
    with pytest.raises(BadQuantity):
        WiresWanted(DrumKind.RACK_TOM)


HEADS = [Spec(1, 10, "coated"), Spec(2, 14, "clear"), Spec(1, None, "clear", mesh=True), None]


@pytest.mark.parametrize("head", HEADS)
@given(sound=st.lists(st.sampled_from(list(WORDS)), max_size=4).map(tuple))
def test_a_hard_beater_never_lands_on_one_ply_without_a_patch(head: Spec | None, sound: tuple[str, ...]) -> None:
    answers, out = choose_beater(DrumKind.BASS, sound, head)
    assert answers
    for each in answers:
        assert f"{each.beater.words}, {each.patch.words}" not in dict(out)
        if each.beater.hard and (head is None or head.plies == 1):
            assert each.patch.spares
    if head is not None and head.mesh:
        assert [each.beater.id for each in answers] == ["felt"]


def test_each_beater_says_what_it_does_to_head_and_sound() -> None:
    answers, _ = choose_beater(DrumKind.BASS)
    assert answers[0].beater.id == "felt"
    assert {each.beater.id for each in answers} == {each.id for each in BEATERS}
    for each in answers:
        assert each.beater.sound in each.speaks_for
        assert each.beater.head in (*each.speaks_for, *each.speaks_against)
    assert choose_beater(DrumKind.BASS, ("bright", "articulate"))[0][0].beater.hard
    with pytest.raises(BadQuantity):
        choose_beater(SNARE)


def test_a_low_budget_is_answered_with_what_costs_little() -> None:
    asked = {"kind": DrumKind.RACK_TOM, "side": Side.BATTER, "diameter_in": 12}
    costs = [each.spec.cost for each in choose(Wanted(**asked, budget="low")).answers]  # type: ignore[arg-type]
    assert costs[0] == 0
    assert max(costs) <= 1
    with pytest.raises(BadQuantity):
        Wanted(**asked, budget="none")  # type: ignore[arg-type]


def test_the_command_answers_for_wires_and_beaters() -> None:
    asked = [
        {"drum": {"kind": "snare", "diameter_in": 14}, "side": "wires", "sound": ["dry"], "strainer": ["cord"]},
        {"drum": {"kind": "bass"}, "side": "beater", "sound": ["warm"], "now": {"plies": 1, "mil": 10, "finish": "coated"}},
    ]  # fmt: skip
    run = subprocess.run([sys.executable, "-m", "drumwork", "choose"], input=json.dumps(asked), capture_output=True, text=True, check=True)  # fmt: skip
    wires, beater = json.loads(run.stdout)
    assert wires["answers"][0]["tie"] == "cord"
    assert beater["answers"][0]["beater"] == "felt"
    assert beater["excluded"]
