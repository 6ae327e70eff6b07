"""What can be ticked, and the sentence of each degree. All common practice, no source."""

from __future__ import annotations

import pytest

from drumwork.drums import DrumKind, traits_of
from drumwork.findings import FINDINGS, LOOKS, PARTS, findings_for, parts_for, ticks_for


def test_every_finding_has_a_tick_and_a_sentence_for_each_degree() -> None:
    assert set(LOOKS) == set(FINDINGS)
    for known, look in LOOKS.items():
        assert len(look.degrees) == (3 if FINDINGS[known].degrees else 1), known
        assert len(set(look.degrees)) == len(look.degrees)
        assert all(each.endswith(".") for each in look.degrees)
        assert len(look.short) <= 22


@pytest.mark.parametrize("kind", list(DrumKind))
def test_whatever_can_be_found_on_a_drum_can_be_ticked_somewhere_on_it(kind: DrumKind) -> None:
    ticked = {row.id for part in parts_for(kind) for row in ticks_for(kind, part)}
    assert ticked == {row.id for row in findings_for(kind)}


def test_only_drums_with_wires_are_looked_at_there() -> None:
    for kind in DrumKind:
        assert ("wires" in parts_for(kind)) is traits_of(kind).wires
        assert set(parts_for(kind)) <= set(PARTS)


def test_snare_gate_and_bed_are_looked_for_below() -> None:
    batter, resonant = ({row.id for row in ticks_for(DrumKind.SNARE, side)} for side in ("batter", "resonant"))
    assert not {"gate-wrong", "bed-rough"} & batter
    assert {"gate-wrong", "bed-rough"} <= resonant
