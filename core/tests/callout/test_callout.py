"""A call-out from ticks to the note: what trade §13 says of its order (common practice, no source), and what must hold for any of them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from datetime import UTC, date, datetime, timedelta
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.callout import (
    Book,
    Donor,
    DrumThere,
    Entered,
    HeadThere,
    PastCallout,
    Phase,
    Standing,
    Step,
    Weights,
    bag_for,
    fold_callout,
    letter_form,
    letter_of,
    make_book,
    open_keys,
    open_steps,
    parts_left,
    plan_now,
    tick_key,
)
from drumwork.callout.cures import CURES, ticks_of
from drumwork.callout.entries import (
    Bagged,
    CalloutEntry,
    CannotDo,
    ClockSet,
    DidStep,
    NotSo,
    OwnerAnswered,
    OwnerTold,
    PutOff,
    ShowBegins,
    SoundsFine,
    StepOpenAgain,
    Ticked,
    TookStep,
    WordToOwner,
)
from drumwork.drums import DrumKind, Side
from drumwork.findings import FINDINGS, findings_for
from drumwork.kits import Role
from drumwork.membrane import Film, Head
from drumwork.quantities import Length, Pitch
from drumwork.rods.layout import RodLayout

START = datetime(2026, 4, 1, 19, 40, tzinfo=UTC)
INCH = 0.0254
KIT = (
    ("S", "Siskin", DrumKind.SNARE, Role.SNARE, 14, 10, 300.0),
    ("R", "Linnet", DrumKind.RACK_TOM, Role.TOM, 12, 6, 210.0),
    ("F", "Serin", DrumKind.FLOOR_TOM, Role.TOM, 16, 8, 140.0),
    ("B", "Dredge", DrumKind.BASS, Role.BASS, 22, 10, 80.0),
)
NAMES = {tag: name for tag, name, *_ in KIT}


def a_book(weights: Weights = Weights(), known: tuple[str, ...] = (), resting: Sequence[str] = ()) -> Book:  # noqa: B008
    drums, donors = [], []
    for tag, name, kind, role, inches, rods, lug in KIT:
        head = Head(Film.from_mil(10), Length(inches * INCH), rods)
        bed = frozenset({1, rods}) if kind is DrumKind.SNARE else frozenset[int]()
        heads = {
            Side.BATTER: HeadThere(RodLayout(rods), head, Pitch(lug)),
            Side.RESONANT: HeadThere(RodLayout(rods, beside_bed=bed), head, Pitch(lug)),
        }
        drums.append(DrumThere(tag, name, kind, role, f"{inches} in", heads, known=known if tag == "F" else ()))
        donors.append(Donor(tag, head, RodLayout(rods), Pitch(lug), "", plays_tonight=tag not in resting, kind=kind))
    return make_book(drums, donors, NAMES, weights)


BOOK = a_book()
FORM = letter_form(BOOK, "house kit", "Tide Hall", "Ines", "Marrow Quay")


def log(*entries: CalloutEntry, device: str = "phone") -> list[Entered]:
    return [Entered(str(n), entry, "Ines", device, START + timedelta(seconds=n)) for n, entry in enumerate(entries)]


def stands(*entries: CalloutEntry, book: Book = BOOK) -> Standing:
    return fold_callout(book, log(*entries))


def order(*entries: CalloutEntry, minutes: float = 30, book: Book = BOOK) -> list[Step]:
    """The plan as steps, at the moment the last entry was made."""
    found = stands(ClockSet(minutes), *entries, book=book)
    now = plan_now(book, found, START, "phone")
    steps = {step.id: step for step in open_steps(book, found)}
    return [steps[each] for each in ([now.current] if now.current else []) + list(now.then)]


def titles(*entries: CalloutEntry, minutes: float = 30, book: Book = BOOK) -> list[str]:
    return [step.title for step in order(*entries, minutes=minutes, book=book)]


R, T = Side.RESONANT, Side.BATTER


def test_every_cure_and_every_tick_is_of_the_vocabulary() -> None:
    assert set(CURES) <= set(FINDINGS)
    for kind in DrumKind:
        said = {tick.finding for tick in ticks_of(kind)}
        there = {row.id for row in findings_for(kind) if row.where != "stand"}
        assert said == there


def test_resonant_heads_come_before_any_batter_and_stands_last() -> None:
    plan = order(
        Ticked("S", "pitch-lost", T), Ticked("R", "pitch-lost", T), Ticked("F", "pitch-lost", R), Ticked("F", "pitch-lost", T),
        Ticked("", "felt-missing"), Bagged("felt", 1), Ticked("S", "wires-stay-on"),
    )  # fmt: skip
    assert [step.phase for step in plan] == sorted(step.phase for step in plan)
    assert plan[0].title == "Bottom head even"
    assert plan[-1].title == "Felt on the stand"


def test_on_a_bass_drum_the_pillow_is_moved_before_any_rod() -> None:
    assert titles(Ticked("B", "pitch-lost", T)) == ["Move the pillow first", "Batter even"]


def test_a_batter_is_not_begun_while_its_bottom_head_is_off() -> None:
    both = (Ticked("F", "pitch-lost", R), Ticked("F", "pitch-lost", T))
    assert titles(*both, minutes=2.4) == []
    assert titles(*both, CannotDo("F even resonant"), minutes=2.4) == ["Batter even"]


def test_a_cratered_bottom_is_turned_over_only_where_the_batter_is_good_and_there_are_no_wires() -> None:
    assert titles(Ticked("F", "dents", R, degree=3)) == ["Turn it over for tonight"]
    assert titles(Ticked("F", "dents", R, degree=3), Ticked("F", "dents", T, degree=3)) == []
    assert titles(Ticked("F", "dents", R, degree=3), Ticked("F", "split", T)) == []
    assert titles(Ticked("S", "dents", R, degree=3)) == []
    assert titles(Ticked("B", "dents", R, degree=3)) == []


def test_a_missing_rod_is_taken_from_the_bag_else_lent_else_made_up_by_its_neighbours() -> None:
    gone = Ticked("F", "rod-missing", R, 3)
    assert titles(gone, Bagged("tension rod", 1)) == ["Rod 3 from the bag"]
    lent = order(gone)
    assert [step.title for step in lent] == ["Lend rod 3"]
    assert lent[0].gives is not None
    assert lent[0].gives.giver == "S"  # ten rods hardly notice
    assert titles(gone, minutes=1.2) == ["Rods 2 and 4 up 1/8"]


def test_a_drum_that_is_short_itself_gives_nothing() -> None:
    plan = order(Ticked("F", "rod-missing", R, 3), Ticked("S", "rod-missing", T, 5))
    assert all(step.gives is None or step.gives.giver != "S" for step in plan)


def test_a_drum_that_rests_gives_before_one_that_plays() -> None:
    plan = order(Ticked("F", "rod-missing", R, 3), book=a_book(resting=["S"]))
    assert plan[0].gives is not None
    assert plan[0].gives.giver == "S"
    assert "rests tonight" in plan[0].why


def test_with_an_own_snare_the_kits_is_left_alone_and_gives_its_rod_freely() -> None:
    said = (Ticked("S", "pitch-lost", T), Ticked("F", "rod-missing", R, 3))
    assert "Batter even" in titles(*said)
    own = order(*said, Bagged("own snare", 1))
    assert [step.title for step in own] == ["Lend rod 3"]
    assert "own snare plays" in own[0].why
    assert own[0].worth > next(step for step in order(*said) if step.gives).worth


def test_rods_beside_the_snare_bed_weigh_most_and_the_floor_toms_bottom_more_than_ten_on_a_snare() -> None:
    worth = {step.id: step.worth for step in BOOK.steps}
    assert worth["S rod resonant 1 bag"] > worth["S rod resonant 5 bag"]
    assert worth["F rod resonant 3 bag"] > worth["S rod batter 3 bag"] / 1.2
    assert worth["R rod resonant 3 bag"] >= worth["F rod resonant 3 bag"] * 0.9


def test_stop_gaps_need_what_they_are_made_of() -> None:
    assert titles(Ticked("F", "leg-missing")) == []
    assert titles(Ticked("F", "leg-missing"), Bagged("drumstick", 1)) == ["Drumstick in the leg bracket"]
    assert titles(Ticked("F", "leg-missing"), Bagged("drumstick", 1), Bagged("leg", 1)) == ["Fit a leg"]


def test_late_or_early_what_is_left_is_planned_anew() -> None:
    said = (Ticked("S", "rattle"), Ticked("F", "rattle"), Ticked("R", "rattle"))
    assert len(titles(*said, minutes=6)) == 3
    assert len(titles(*said, ClockSet(4.1))) == 2
    assert titles(*said, ClockSet(0)) == []
    assert titles(*said, ShowBegins()) == []


def test_what_is_skipped_comes_back_last_and_what_cannot_be_does_not() -> None:
    said = (Ticked("S", "rattle"), Ticked("F", "leg-slips"))
    first, *_ = order(*said)
    assert first.id not in [step.id for step in order(*said, PutOff(first.id))]
    rest = [step.id for step in order(*said, PutOff(first.id))]
    assert [step.id for step in order(*said, PutOff(first.id), *(DidStep(each) for each in rest))] == [first.id]
    assert order(*said, CannotDo(first.id), *(DidStep(each) for each in rest)) == []
    again = order(*said, CannotDo(first.id), StepOpenAgain(first.id))
    assert first.id in [step.id for step in again]


def test_what_another_has_in_hand_is_theirs() -> None:
    both = [Ticked("S", "rattle"), Ticked("F", "rattle")]
    entries = log(ClockSet(12), *both)
    entries.append(Entered("t", TookStep("S rattle 0"), "Kit", "other", START))
    found = fold_callout(BOOK, entries)
    mine = plan_now(BOOK, found, START, "phone")
    theirs = plan_now(BOOK, found, START, "other")
    assert (mine.current, mine.then) == ("F rattle 0", ())
    assert theirs.current == "S rattle 0"


def test_what_two_took_at_the_same_moment_is_his_who_took_it_first() -> None:
    """Before, each saw it in the other's hands, and nobody did it."""
    entries = log(ClockSet(12), Ticked("S", "rattle"), Ticked("F", "rattle"))
    entries.append(Entered("t1", TookStep("S rattle 0"), "Kit", "phone", START + timedelta(seconds=1)))
    entries.append(Entered("t2", TookStep("S rattle 0"), "Kit", "other", START))
    found = fold_callout(BOOK, entries)
    assert plan_now(BOOK, found, START, "other").current == "S rattle 0"
    assert plan_now(BOOK, found, START, "phone").current == "F rattle 0"


def test_what_is_in_hand_is_finished_though_its_minutes_run_out() -> None:
    found = stands(ClockSet(3), Ticked("S", "rattle"), TookStep("S rattle 0"))
    for minutes, needs in ((1.0, 1.0), (2.5, 0.0)):
        now = plan_now(BOOK, found, START + timedelta(minutes=minutes), "phone")
        assert now.current == "S rattle 0"
        assert now.needs == pytest.approx(needs, abs=0.05)


def test_the_note_says_what_stays_broken_and_nothing_of_what_was_mended() -> None:
    found = stands(
        ClockSet(12), Ticked("F", "rod-missing", R, 3), DidStep("F rod resonant 3 from S"), Ticked("S", "rattle"), DidStep("S rattle 0"),
        SoundsFine("B"), WordToOwner("", "The carpet stays with you."), WordToOwner("F", "It stands on carpet."),
    )  # fmt: skip
    assert open_keys(BOOK, found) == {tick_key("F", "rod-missing", "resonant", 3): True}
    note = letter_of(FORM, BOOK, found, date(2026, 4, 1))
    by = {each.name: each for each in note.drums}
    assert by["Serin"].broken == ("rod missing at 3 on the bottom head, held for tonight",)
    assert by["Serin"].buy == ("1 tension rod",)
    assert "is in Serin until there is another" in by["Siskin"].lent[0]
    assert by["Siskin"].broken == ()
    assert by["Serin"].words == "It stands on carpet."
    assert note.words == "The carpet stays with you."
    assert "\nThe carpet stays with you.\n" in note.text
    assert note.fine == ("Dredge",)
    assert "price: ______" in note.text
    assert note.text.startswith("Hello,\n\nwe played house kit at Tide Hall on 1 April")


def test_a_kit_that_sounds_fine_gets_a_short_note() -> None:
    found = stands(*(SoundsFine(tag) for tag in NAMES))
    note = letter_of(letter_form(BOOK, "house kit", "", "", "Marrow Quay"), BOOK, found, date(2026, 4, 1))
    assert note.drums == ()
    assert note.closing == ()
    assert set(note.fine) == set(NAMES.values())


def test_the_bag_counts_the_record_and_the_call_outs_before() -> None:
    known = (tick_key("F", "rod-missing", "resonant", 3), tick_key("F", "leg-missing"))
    past = [PastCallout(frozenset({"felt"}), ("felt", "felt")), PastCallout(frozenset({"felt", "claw"}), ())]
    lines = {line.part: line for line in bag_for(a_book(known=known), past)}
    assert lines["tension rod"].why == "on record: Serin"
    assert lines["felt"].number == 2
    assert lines["felt"].why == "wanted on 2 of the last 2 call-outs"
    assert list(lines)[-2:] == ["own snare", "own pedal"]


def test_weights_are_the_workshops() -> None:
    said = (Ticked("S", "rattle"), Ticked("F", "leg-slips"))
    assert titles(*said, minutes=2)[0] == "Snug the leg bracket, tape the leg under it"
    quiet = a_book(Weights(stands=0, noise=10))
    assert titles(*said, minutes=2, book=quiet) == ["Press part by part until it stops, snug it"]


def test_told_and_answered_are_kept_apart() -> None:
    found = stands(OwnerTold(), OwnerAnswered("soon"), OwnerTold())
    assert found.reported is not None
    assert found.answered is None


ticks = st.sampled_from(
    [(drum, tick) for drum in BOOK.drums for tick in drum.ticks if tick.usual or tick.finding in CURES]
)
parts = st.sampled_from(sorted({each for step in BOOK.steps for each in step.uses if ":" not in each}))


@st.composite
def callouts(draw: st.DrawFn) -> list[CalloutEntry]:
    entries: list[CalloutEntry] = []
    for drum, tick in draw(st.lists(ticks, min_size=1, max_size=9)):
        side = Side(tick.side) if tick.side else None
        count = drum.rods_resonant if side is Side.RESONANT else drum.rods_batter
        entries.append(Ticked(drum.tag, tick.finding, side, draw(st.integers(1, count)) if tick.rod else None))
    entries += [Bagged(part, draw(st.integers(0, 2))) for part in draw(st.lists(parts, max_size=5, unique=True))]
    return entries


@settings(max_examples=60)
@given(callouts(), st.integers(0, 20), st.integers(0, 10))
def test_for_any_call_out_its_limits_hold(said: list[CalloutEntry], minutes: int, more: int) -> None:
    found = stands(ClockSet(minutes), *said)
    now = plan_now(BOOK, found, START, "phone")
    steps = {step.id: step for step in open_steps(BOOK, found)}
    chosen = [steps[each] for each in now.plan.order]
    assert sum(step.minutes for step in chosen) <= minutes + 1e-9
    there = parts_left(BOOK, found)
    for part, used in Counter(each for step in chosen for each in step.uses).items():
        assert used <= there.get(part, 0)
    assert not [key for key, many in Counter(key for step in chosen for key in step.mends).items() if many > 2]
    places = {step.id: n for n, step in enumerate(chosen)}
    for first, later in combinations(chosen, 2):
        assert not (first.phase is Phase.BATTER and later.phase is Phase.RESONANT)
    for step in chosen:
        for each in step.after:
            if each in steps:
                assert places[each] < places[step.id]
    later = plan_now(BOOK, stands(ClockSet(minutes + more), *said), START, "phone")
    assert later.plan.worth >= now.plan.worth - 1e-9


@settings(max_examples=60)
@given(callouts())
def test_what_is_ticked_and_not_so_after_all_was_never_there(said: list[CalloutEntry]) -> None:
    undone = [NotSo(each.drum, each.finding, each.side, each.rod) for each in said if isinstance(each, Ticked)]
    found = stands(*said, *undone)
    assert not found.ticks
    assert open_steps(BOOK, found) == []


@settings(max_examples=40)
@given(callouts(), st.integers(3, 15))
def test_done_in_its_order_a_call_out_comes_to_an_end(said: list[CalloutEntry], minutes: int) -> None:
    entries: list[CalloutEntry] = [ClockSet(minutes), *said]
    for _ in range(40):
        now = plan_now(BOOK, stands(*entries), START, "phone")
        if now.current is None:
            break
        entries.append(DidStep(now.current))
    assert now.current is None
    assert all(count >= 0 for count in parts_left(BOOK, stands(*entries)).values())
