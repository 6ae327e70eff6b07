"""A walk's log, what it comes to, and the work that follows. Rules and figures of the trade are common practice, no source."""

from __future__ import annotations

import math
from datetime import datetime, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.deciding import HeadSeen, Verdict, decide
from drumwork.drums import DrumKind, Side
from drumwork.errors import BadFinding
from drumwork.inspecting import (
    Again,
    Changed,
    DrumLook,
    Entered,
    GoesOut,
    Gone,
    HeadVisit,
    Known,
    Looked,
    NotHere,
    Overruled,
    Seen,
    Spot,
    Standing,
    TakenBack,
    WalkEntry,
    carried,
    drum_of,
    due_days,
    falls,
    fold,
    note_of,
    require_fits,
    spot_words,
    turned_again,
    works_for,
)
from drumwork.rods.layout import RodLayout
from drumwork.work.plan import DrumFacts

NOW = datetime(2026, 3, 2, 10, 0)
TAG = "MQ-001"
BED = RodLayout(8, beside_bed=frozenset({2, 3, 6, 7}))
SNARE = Known(DrumKind.SNARE, {Side.BATTER: RodLayout(8), Side.RESONANT: BED})
SNARE_FACTS = DrumFacts(DrumKind.SNARE, {Side.BATTER: RodLayout(8), Side.RESONANT: BED}, True, False)
TOM = Known(DrumKind.FLOOR_TOM, {side: RodLayout(8) for side in Side})
TOM_FACTS = DrumFacts(DrumKind.FLOOR_TOM, {side: RodLayout(8) for side in Side}, False, False)


def log(*entries: WalkEntry) -> list[Entered]:
    return [Entered(str(n), each, "Ines", NOW + timedelta(seconds=n)) for n, each in enumerate(entries)]


def look(*entries: WalkEntry) -> DrumLook:
    return fold(log(*entries)).get(TAG, DrumLook())


def seen(finding: str, degree: Any = 2, **more: Any) -> Seen:
    return Seen(TAG, finding, degree, **more)


def verdicts(known: Known, *entries: WalkEntry) -> dict[str, Verdict]:
    found = look(*entries)
    return dict(decide(drum_of(known, carried(known, found), found.going_out)).verdicts)


class TestTheLog:
    def test_what_is_taken_back_never_was(self) -> None:
        found = look(seen("dents", side=Side.BATTER), Looked(TAG), TakenBack(TAG, "0"), TakenBack(TAG, "1"))
        assert (found.marks, found.looked) == ({}, None)

    def test_a_mark_said_better_keeps_what_was_not_said_again(self) -> None:
        (mark,) = look(
            seen("dents", side=Side.BATTER, note="by the badge"), Changed(TAG, "0", degree=3), Changed(TAG, "0", spot=Spot(0, 0.9))
        ).marks.values()  # fmt: skip
        assert (mark.degree, mark.spot, mark.note) == (3, Spot(0, 0.9), "by the badge")

    def test_a_drum_that_was_not_here_and_then_was(self) -> None:
        assert look(NotHere(TAG)).not_here is not None
        assert look(NotHere(TAG), seen("rattle")).not_here is None
        assert look(NotHere(TAG), Looked(TAG)).not_here is None

    def test_still_so_and_gone_say_of_one_row_the_last_that_was_said(self) -> None:
        assert look(Again(TAG, (4, 5)), Gone(TAG, (5,))).gone == {5}
        assert look(Gone(TAG, (5,)), Again(TAG, (5,))).again == {5}

    @given(st.lists(st.sampled_from(["dents", "creases", "split"]), max_size=6), st.data())
    def test_taking_back_everything_leaves_nothing(self, findings: list[str], data: st.DataObject) -> None:
        entries: list[WalkEntry] = [seen(each, side=Side.BATTER) for each in findings]
        back = data.draw(st.permutations(range(len(entries))))
        assert not look(*entries, *(TakenBack(TAG, str(n)) for n in back)).touched

    def test_what_cannot_be_on_such_a_drum_is_refused(self) -> None:
        layouts = {side.value: RodLayout(8) for side in Side}
        for entry in (
            seen("strand-bent"),
            seen("dents"),
            seen("rod-bent", side=Side.BATTER),
            seen("split", 3, side=Side.BATTER),
            seen("rattle", spot=Spot(0, 0)),
        ):
            with pytest.raises(BadFinding):
                require_fits(entry, DrumKind.FLOOR_TOM, layouts)
        require_fits(seen("rod-bent", side=Side.BATTER, rod=8), DrumKind.FLOOR_TOM, layouts)


class TestWhereItSits:
    @pytest.mark.parametrize(
        ("spot", "words"),
        [
            (Spot(0.1, 0.1), "middle"),
            (Spot(0.2, 0.95), "edge by rod 1"),
            (Spot(-0.2, 0.95), "edge by rod 8"),
            (Spot(0.3, -0.4), "half way to rod 4"),
            (Spot(0.95, 0.3), "edge by rod 2, beside the snare bed"),
        ],
    )
    def test_a_spot_is_said_by_the_middle_the_edge_and_the_nearest_rod(self, spot: Spot, words: str) -> None:
        assert spot_words(spot, BED) == words

    @given(st.integers(4, 16), st.booleans(), st.data())
    def test_at_a_rod_it_is_that_rod(self, rods: int, at_rod: bool, data: st.DataObject) -> None:
        rod = data.draw(st.integers(1, rods))
        angle = (rod - (1 if at_rod else 0.5)) * math.tau / rods
        spot = Spot(0.9 * math.sin(angle), 0.9 * math.cos(angle))
        assert spot_words(spot, RodLayout(rods), at_rod) == f"edge by rod {rod}"

    def test_no_spot_outside_the_head(self) -> None:
        for x, y in ((1.1, 0), (0.8, 0.8), (math.nan, 0)):
            with pytest.raises(BadFinding):
                Spot(x, y)


class TestWhatStands:
    def test_the_same_seen_by_two_counts_once_as_the_worse(self) -> None:
        found = look(seen("dents", 3, side=Side.BATTER), seen("dents", 1, side=Side.BATTER))
        assert [(each.finding, each.degree) for each in carried(TOM, found)] == [("dents", 3)]

    def test_dents_far_apart_are_two(self) -> None:
        found = look(
            seen("dents", 1, side=Side.BATTER, spot=Spot(-0.5, 0)),
            seen("dents", 1, side=Side.BATTER, spot=Spot(0.5, 0)),
        )
        assert len(carried(TOM, found)) == 2

    def test_what_is_on_record_stands_until_it_is_gone_and_grows_when_it_is_seen_worse(self) -> None:
        row = Standing("dents", 1, Side.BATTER, None, None, "", "Ines", NOW, row=7)
        known = Known(TOM.kind, TOM.layouts, findings=(row,))
        assert carried(known, look(Looked(TAG))) == (row,)
        assert carried(known, look(Gone(TAG, (7,)))) == ()
        (grown,) = carried(known, look(seen("dents", 3, side=Side.BATTER)))
        assert (grown.row, grown.degree, grown.event) == (7, 3, "0")

    def test_creases_by_the_bed_rods_are_expected(self) -> None:
        """N9: over-tightening there does harm."""
        by_bed = seen("creases", 2, side=Side.RESONANT, spot=Spot(0.95, 0.3))
        elsewhere = seen("creases", 2, side=Side.RESONANT, spot=Spot(0.2, 0.95))
        assert verdicts(SNARE, by_bed)["resonant"] is Verdict.NOTHING
        assert verdicts(SNARE, elsewhere)["resonant"] is Verdict.REPLACE_NEXT

    def test_a_bed_rod_that_is_missing_keeps_the_drum_in(self) -> None:
        """§13: the rods beside the bed must be complete."""
        missing = seen("rod-missing", side=Side.RESONANT, rod=3)
        assert verdicts(SNARE, missing, GoesOut(TAG, True))["hardware"] is Verdict.REPLACE_NOW
        assert verdicts(SNARE, missing)["hardware"] is Verdict.REPAIR

    def test_an_old_head_counts_though_nothing_was_seen(self) -> None:
        """N5; twelve months for a batter."""
        known = Known(TOM.kind, TOM.layouts, heads={Side.BATTER: HeadSeen("single 10 coated", months=20)})
        assert verdicts(known, Looked(TAG))["batter"] is Verdict.REPLACE_NEXT


class TestTheRecord:
    def test_a_fall_is_in_cents_from_what_it_was_left_at(self) -> None:
        """An octave is 1200 cents (ISO 16 scale steps are twelfths of it)."""
        assert falls([HeadVisit(200, 100), HeadVisit(None, 100)]) == [pytest.approx(1200)]

    def test_the_same_rod_at_three_visits_in_a_row_is_turned_again(self) -> None:
        visits = [
            HeadVisit(None, None, turned)
            for turned in (((1, 8),), ((2, 8), (3, 8)), ((3, -6), (5, 8)), ((3, 4), (6, 1)))
        ]
        assert turned_again(visits) == 3
        assert turned_again(visits[:2]) == 1
        assert turned_again([]) == 0


class TestTheWorkThatFollows:
    def works(self, known: Known, facts: DrumFacts, *entries: WalkEntry) -> list[tuple[str, str]]:
        found = look(*entries)
        drum = drum_of(known, carried(known, found), found.going_out)
        said = dict(decide(drum).verdicts)
        for part, each in found.overruled.items():
            assert isinstance(each.entry, Overruled)
            said[part] = each.entry.verdict
        return [(each.work, each.part.value) for each in works_for(drum, said, facts)]

    def test_each_verdict_has_its_work(self) -> None:
        assert self.works(TOM, TOM_FACTS, seen("coat-worn", side=Side.BATTER)) == [("new-batter-head", "batter")]
        assert self.works(TOM, TOM_FACTS, seen("dents", side=Side.BATTER)) == [("settling-check", "batter")]
        assert self.works(SNARE, SNARE_FACTS, seen("strand-broken")) == [("new-wires", "wires")]
        assert self.works(SNARE, SNARE_FACTS, seen("wires-not-level")) == [("set-wires", "wires")]
        assert self.works(SNARE, SNARE_FACTS, seen("split", side=Side.RESONANT)) == [
            ("new-snare-side-head", "resonant")
        ]
        assert self.works(TOM, TOM_FACTS, seen("rattle")) == [("hardware-service", "hardware")]
        assert self.works(TOM, TOM_FACTS, seen("leg-missing")) == [("fit-part", "hardware")]

    def test_two_new_heads_are_one_job(self) -> None:
        both = [seen("split", side=side) for side in Side]
        assert self.works(TOM, TOM_FACTS, *both) == [("both-heads", "heads")]

    def test_out_of_service_is_for_a_qualified_person(self) -> None:
        """§18."""
        assert self.works(TOM, TOM_FACTS, seen("shell-split"), seen("coat-worn", side=Side.BATTER)) == []

    def test_what_a_person_decides_is_what_is_planned(self) -> None:
        overruled = Overruled(TAG, "batter", Verdict.NOTHING, "fine for a term")
        assert self.works(TOM, TOM_FACTS, seen("coat-worn", side=Side.BATTER), overruled) == []

    def test_the_worse_the_sooner(self) -> None:
        order = (Verdict.CLEAR, Verdict.CLEAR_RECHECK, Verdict.REPLACE_NEXT, Verdict.REPLACE_NOW)
        days = [due_days(each) for each in order]
        assert days == sorted(days, reverse=True)
        assert days[-1] == 0

    @given(
        st.sampled_from(list(DrumKind)),
        st.fixed_dictionaries({part: st.sampled_from(list(Verdict)) for part in ("batter", "resonant", "wires", "hardware")}),
    )  # fmt: skip
    def test_whatever_is_proposed_suits_the_drum(self, kind: DrumKind, said: dict[str, Verdict]) -> None:
        from drumwork.drums import traits_of
        from drumwork.procedures.catalogue import work_named

        traits = traits_of(kind)
        layouts = {side: RodLayout(8) for side in Side} if traits.rods else {}
        facts = DrumFacts(kind, layouts, traits.wires, False)
        known = Known(kind, layouts)
        wires = said["wires"] if traits.wires else Verdict.NOTHING
        for each in works_for(drum_of(known, ()), {**said, "wires": wires}, facts):
            assert work_named(each.work).why_not(facts, each.part) == ""


class TestTheNote:
    def note(self, known: Known, *entries: WalkEntry) -> str:
        found = look(*entries)
        made = decide(drum_of(known, carried(known, found), found.going_out))
        return note_of(made, made.verdicts).headline

    def test_it_says_the_whole_in_one_sentence(self) -> None:
        assert self.note(TOM, Looked(TAG)) == "Nothing to do."
        worn = seen("coat-worn", side=Side.BATTER)
        assert self.note(TOM, worn, seen("rattle")) == "A new batter at the next bench day, and repair its hardware."
        assert self.note(TOM, seen("shell-split")).startswith("Take it out of service.")
        assert self.note(TOM, seen("split", side=Side.RESONANT)) == "A new resonant head before it goes out."
