"""Turn and tap: a rod read between the turns of a round is one more look at the head, and what is left is planned from it."""

from __future__ import annotations

import copy
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import BadLayout, BadQuantity, TooFewReadings
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import (
    Ask,
    ClearingSession,
    ClearingTask,
    Ear,
    EvenRule,
    Means,
    Proposal,
    Round,
    Tap,
    go_on,
    propose,
)
from drumwork.rods.clearing.belief import believe
from drumwork.rods.clearing.findings import FindingKind, as_it_went
from drumwork.rods.clearing.observe import observe
from drumwork.rods.clearing.readings import cents_of_z
from drumwork.rods.clearing.relabel import relabel
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

LAYOUT, TARGET = RodLayout(8), Pitch(200.0)
READ = {1: 196.0, 2: 199.0, 3: 203.5, 4: 201.0, 5: 197.0, 6: 199.5, 7: 204.0, 8: 200.5}
ROUND = Round({rod: Pitch(hz) for rod, hz in READ.items()})
SURE = 0.9


def task(*rounds: Round, **more: object) -> ClearingTask:
    return ClearingTask(
        LAYOUT, rounds or (ROUND,), Turns.of(1, 16), TARGET, EvenRule(2.0, 0.01), prior_hz_per_turn=70.0, **more
    )  # type: ignore[arg-type]


def under_way(made: dict[int, Turns], *taps: Tap) -> ClearingTask:
    return task(replace(ROUND, taps=taps), made=made)


def turned(**eighths: int) -> dict[int, Turns]:
    return {int(rod[1:]): Turns.of(count, 8) for rod, count in eighths.items()}


class TestOneMoreLook:
    def test_a_tap_sees_only_the_turns_made_after_it(self) -> None:
        made = turned(r1=1, r5=1)
        seen = observe(under_way(made, Tap(1, 199.0, turned(r1=1))))
        assert seen.z[-1] == pytest.approx((199.0 / 200.0) ** 2)
        assert seen.since[-1] == pytest.approx([0, 0, 0, 0, 0.125, 0, 0, 0])
        assert seen.since[0] == pytest.approx([0.125, 0, 0, 0, 0.125, 0, 0, 0])
        assert seen.after[-1, 0] == pytest.approx(seen.since[-1])

    def test_taps_at_every_rod_after_all_turns_tell_what_a_round_would(self) -> None:
        made, then = turned(r1=1, r3=-1, r5=1, r7=-1), {rod: 200.0 + 0.2 * rod for rod in READ}
        between = under_way(made, *(Tap(rod, hz, made) for rod, hz in then.items()))
        rounds = task(replace(ROUND, turned=made), Round({rod: Pitch(hz) for rod, hz in then.items()}))
        one, other = believe(between), believe(rounds)
        assert one.z == pytest.approx(other.z, abs=2e-4)
        assert one.answer == pytest.approx(other.answer, abs=0.02)

    def test_it_counts_in_later_rounds_too(self) -> None:
        made = turned(r1=1)
        before = replace(ROUND, turned=made, taps=(Tap(1, 199.0, made),))
        seen = observe(task(before, Round({rod: Pitch(hz) for rod, hz in READ.items()})))
        assert len(seen.z) == 17
        assert seen.since[8] == pytest.approx(np.zeros(8))

    @given(by=st.integers(0, 7), mirrored=st.booleans())
    @settings(max_examples=12)
    def test_the_same_drum_numbered_otherwise_gets_the_same_turns(self, by: int, mirrored: bool) -> None:
        to = {rod: ((8 - rod if mirrored else rod - 1) + by) % 8 + 1 for rod in LAYOUT.rods}
        plain = under_way(turned(r1=1), Tap(1, 198.0, turned(r1=1)))
        left, other = go_on(plain, SURE), go_on(relabel(plain, to), SURE)
        assert other.ask is left.ask
        assert {to[rod]: turns for rod, turns in left.proposal.turns.items()} == dict(other.proposal.turns)

    def test_a_gauge_is_read_between_turns_like_a_pitch(self) -> None:
        round_ = Round(numbers={rod: 60 + (rod % 4) for rod in LAYOUT.rods}, taps=(Tap(2, 61.0, turned(r2=1)),))
        seen = observe(task(round_, means=Means.GAUGE, made=turned(r2=1)))
        assert seen.z[-1] == pytest.approx(61.0 / 61.5)


class TestWhatIsLeft:
    def test_a_turn_that_did_what_it_should_is_not_asked_for_again(self) -> None:
        first = propose(task())
        rod = max(first.turns, key=lambda each: abs(first.turns[each].thirtyseconds))
        made = {rod: first.turns[rod]}
        foretold = task(replace(ROUND, turned=made), ROUND)  # what it should read now, by the belief before the tap
        z = believe(replace(foretold, rounds=(ROUND,))).outcome(
            np.array([float(made[rod].fraction) if each == rod else 0.0 for each in LAYOUT.rods])
        )[0]
        hz = 200.0 * float(z[rod - 1]) ** 0.5
        left = go_on(under_way(made, Tap(rod, hz, made)), SURE)
        assert left.ask is Ask.TURN
        assert abs(left.proposal.turns[rod].thirtyseconds) <= 2

    def test_a_turn_that_did_not_bite_is_asked_for_again_or_looked_into(self) -> None:
        first = propose(task())
        made = {1: first.turns[1]}
        assert made[1].thirtyseconds > 0
        biting = go_on(under_way(made, Tap(1, 200.0, made)), SURE)
        idle = go_on(under_way(made, Tap(1, READ[1], made)), SURE)
        assert biting.ask is Ask.TURN
        again = idle.proposal.turns[1].thirtyseconds > biting.proposal.turns[1].thirtyseconds
        assert again or idle.ask is Ask.ROUND

    @pytest.mark.parametrize(("share", "kind"), [(0.0, FindingKind.NOT_ANSWERING), (-1.0, FindingKind.WRONG_WAY)])
    def test_on_a_head_whose_answer_is_known_an_idle_turn_is_named_and_not_counted(
        self, share: float, kind: FindingKind
    ) -> None:
        """A simulated head, its own truth: what the tap would read had so much of the turn been made."""
        for seed in range(4):
            between, wanted = self.known_head(seed)
            rod = max(wanted, key=lambda each: abs(wanted[each].thirtyseconds))
            for did, found_kind in ((1.0, None), (share, kind)):
                head, rounds = between
                now = copy.deepcopy(head)
                now.turn({rod: Turns(round(wanted[rod].thirtyseconds * did))})
                tap = Tap(rod, now.tap()[rod].hz, {rod: wanted[rod]})
                found = go_on(
                    task(*rounds[:-1], replace(rounds[-1], taps=(tap,)), made={rod: wanted[rod]}), sure=1.1
                ).proposal
                assert [each.kind for each in found.findings] == ([found_kind] if found_kind else [])
                if found_kind:
                    assert found.findings[0].rods == (rod,)
                    assert not found.turns[rod].thirtyseconds  # not before it was looked at

    def test_a_turn_taken_back_leaves_what_was_made_before_it(self) -> None:
        """Up an eighth, then down again: nothing is made in all, and without the second turn an eighth is."""
        back = under_way({}, Tap(1, 199.0, turned(r1=1)), Tap(1, 199.0, {}))
        before = as_it_went(back, 1, FindingKind.NOT_ANSWERING)
        assert dict(before.made) == dict(before.rounds[-1].taps[-1].turned) == turned(r1=1)

    @pytest.mark.parametrize("seed", range(4))
    @pytest.mark.parametrize(("share", "kind"), [(0, FindingKind.NOT_ANSWERING), (-1, FindingKind.WRONG_WAY)])
    def test_an_idle_turn_or_a_wrong_one_is_not_counted_at_the_next_tap_either_until_its_rod_answers(
        self, share: int, kind: FindingKind, seed: int
    ) -> None:
        (head, rounds), wanted = self.known_head(seed)
        (rod, turns), other = next(iter(wanted.items())), 6
        made = {rod: turns}
        head.turn({rod: Turns(share * turns.thirtyseconds)})
        taps = [Tap(rod, head.tap()[rod].hz, dict(made))]  # entered, and not made, or the other way
        head.turn({other: Turns.of(1, 8)})
        made[other] = Turns.of(1, 8)
        taps.append(Tap(other, head.tap()[other].hz, dict(made)))

        def go() -> Proposal:
            return go_on(task(*rounds[:-1], replace(rounds[-1], taps=tuple(taps)), made=dict(made)), sure=1.1).proposal

        found = go()
        taps.append(Tap(rod, head.tap()[rod].hz, dict(made)))  # looked at, and tapped again
        again = go()
        assert again.findings[0].rods == (rod,)
        assert not again.turns[rod].thirtyseconds
        assert [(each.kind, each.rods) for each in found.findings] == [(kind, (rod,))]
        assert not found.turns[rod].thirtyseconds
        assert found.read[rod] == pytest.approx(cents_of_z((head.true_hz()[rod] / 200) ** 2), abs=8)
        head.turn({rod: turns})  # looked at and turned once more, and now it bites
        made[rod] += turns
        taps.append(Tap(rod, head.tap()[rod].hz, dict(made)))
        assert not go().findings
        assert go().read[rod] == pytest.approx(cents_of_z((head.true_hz()[rod] / 200) ** 2), abs=8)

    @staticmethod
    def known_head(seed: int) -> tuple[tuple[SimulatedHead, list[Round]], dict[int, Turns]]:
        """Three rounds of eighths, then a quarter at one rod."""
        head = SimulatedHead(LAYOUT, 200.0, seed, uneven=0.03, noise=0.001, modal=False)
        rounds = []
        for lap in range(3):
            made = {rod: Turns.of((rod * (lap + 1)) % 3 - 1, 8) for rod in LAYOUT.rods}
            rounds.append(Round(head.tap(), made))
            head.turn(made)
        return (head, [*rounds, Round(head.tap())]), {1 + seed: Turns.of(1, 4)}

    def test_with_nothing_worth_turning_a_round_is_asked_for_and_nothing_turned(self) -> None:
        even = Round({rod: Pitch(200.0 + 0.3 * (rod % 2)) for rod in LAYOUT.rods})
        found = go_on(task(replace(even, taps=(Tap(1, 200.2, {}),))), sure=1.1)
        assert found.ask is Ask.ROUND
        assert not any(found.proposal.turns.values())
        assert found.proposal.chance_even == found.proposal.chance_now
        done = go_on(task(replace(even, taps=(Tap(1, 200.2, {}),))), sure=0.2)
        assert done.ask is Ask.DONE
        assert done.proposal.verdict.clear
        assert f"{min(done.proposal.chance_now, 0.99):.0%}" in done.proposal.verdict.words

    def test_a_doubtful_tap_makes_no_bolder(self) -> None:
        made = turned(r1=1)
        plain, doubt = (
            go_on(under_way(made, Tap(1, 190.0, made, doubtful=each)), SURE).proposal.turns for each in (False, True)
        )
        assert abs(doubt[1].thirtyseconds) <= abs(plain[1].thirtyseconds)

    def test_by_ear_rods_are_compared_and_not_read_between_turns(self) -> None:
        heard = Round(ear={rod: Ear.LEVEL for rod in LAYOUT.rods if rod > 1}, reference=1, taps=(Tap(2, 200.0, {}),))
        with pytest.raises(BadQuantity, match="not by ear"):
            task(heard, means=Means.EAR)

    def test_a_rod_that_is_not_there_is_refused(self) -> None:
        with pytest.raises(BadLayout):
            under_way({}, Tap(9, 200.0, {}))


def test_what_a_round_with_taps_taught_of_the_answer_is_kept() -> None:
    made = turned(r1=1)
    assert propose(task()).learned is None
    learned = propose(under_way(made, Tap(1, 199.5, made))).learned
    assert learned is not None
    assert learned.rounds == 1


class TestASession:
    def session(self, hz: float = 200.0, prior: float = 70.0) -> ClearingSession:
        return ClearingSession(LAYOUT, Pitch(hz), Turns.of(1, 16), prior)

    def test_before_the_first_round_there_is_nothing_to_go_on(self) -> None:
        with pytest.raises(TooFewReadings, match="Tap round the head once"):
            self.session().tapped(1, Pitch(200.0), Turns.of(1, 8))

    def test_a_closed_loop_ends_even(self) -> None:
        head = SimulatedHead(LAYOUT, 200, seed=5, uneven=0.03, noise=0.001, answer_per_turn=0.6)
        session, rounds, done = self.session(), 0, False
        while not done and rounds < 8:
            step, rounds = session.read(head.tap()), rounds + 1
            while step.ask is Ask.TURN and (rods := [rod for rod, turns in step.turns.items() if turns]):
                turns = step.turns[rods[0]]
                head.turn({rods[0]: turns})
                step = session.tapped(rods[0], head.tap()[rods[0]], turns)
            done = step.done
        true = list(head.true_hz().values())
        assert done
        assert max(true) - min(true) <= 2.5

    def test_a_large_move_is_made_alike_at_every_rod_before_anything_is_planned_anew(self) -> None:
        session = self.session(260.0)
        first = session.read({rod: Pitch(hz) for rod, hz in READ.items()})
        (each,) = set(first.turns.values())
        step = session.tapped(1, Pitch(201.0), each)
        assert step.turns[1] == Turns(0)
        assert {step.turns[rod] for rod in LAYOUT.rods[1:]} == {each}

    def test_turns_told_that_never_did_anything_ask_for_no_wild_ones(self) -> None:
        session = self.session()
        for _ in range(12):  # what was proposed counts as made, and nothing moves
            step = session.read({rod: Pitch(hz * 1.08) for rod, hz in READ.items()})
            assert max(abs(turns.thirtyseconds) for turns in step.turns.values()) <= 32
