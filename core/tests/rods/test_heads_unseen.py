"""The belief where a head is not as it was thought: it wanders, its readings err more or less, its pair shows at no rod."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.linalg import circulant
from scipy.stats import multivariate_normal

from benchmarks.judge.drums import JudgingDrum
from benchmarks.judge.membrane import HARMONICS, modes
from benchmarks.judge.rules import ours
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import (
    ClearingSession,
    ClearingTask,
    EvenRule,
    Learned,
    LearnedKind,
    PairHeard,
    Round,
    judge,
    propose,
    taught_by_others,
)
from drumwork.rods.clearing.belief import EXECUTION_SD, NOISES, Belief, Component, believe
from drumwork.rods.clearing.kinds import projections_of
from drumwork.rods.clearing.limits import MOST_EASED, limits_of
from drumwork.rods.clearing.recent import recent
from drumwork.rods.clearing.relabel import relabel
from drumwork.rods.clearing.sample import draw_heads
from drumwork.rods.clearing.tension import edge_tension
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

SIXTEENTH, EIGHT = Turns.of(1, 16), RodLayout(8)
Array = np.ndarray


def heard(hz: Array | list[float]) -> dict[int, Pitch]:
    return {rod: Pitch(float(value)) for rod, value in enumerate(hz, start=1)}


def turned(turns: Array) -> dict[int, Turns]:
    return {rod: Turns(int(each)) for rod, each in enumerate(turns, start=1)}


def noise_of(belief: Belief) -> float:
    return sum(c.weight * c.noise for c in belief.components)


class TestEstimate:
    def test_it_is_the_least_squares_smoothing_of_a_wandering_head(self) -> None:
        """Independent reference: `numpy.linalg.lstsq` over every round's state as an unknown of its own, weighed by readings, turns and wandering,
        for a head whose answer is known; a Kalman smoother's last state (S. Särkkä, *Bayesian Filtering and Smoothing*, ch. 8)."""
        random, n, known = np.random.default_rng(8), 8, 1e-9
        shares = np.array([0.8, 0.0, 0.3, 0.0, 0.02])
        answer = np.tensordot(shares, projections_of(EIGHT), axes=1)
        made = random.integers(-4, 5, (2, n))
        hz = [200 * (1 + 0.01 * random.standard_normal(n)) for _ in range(3)]
        rounds = tuple(Round(heard(each), turned(turns)) for each, turns in zip(hz, [*made, np.zeros(n)], strict=True))
        hz2 = 200.0**2
        kinds = tuple(
            LearnedKind(name, 1.0, (*(shares * hz2), *np.zeros(n)), tuple(map(tuple, known * np.eye(5 + n))))
            for name in ("doublet", "straying doublet", "local", "fringed", "between")
        )
        task = ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(200), learned=Learned(EIGHT.rods, 9, kinds))
        belief = believe(task)
        straying = next(c for c in belief.components if c.name == "straying doublet" and c.noise == NOISES[0])
        # the visit's own wandering of the answer is told apart by its turns being small here
        rows, right = [], []
        unit = np.eye(n)
        for number, each in enumerate(hz):
            sd = 0.006 * NOISES[0]
            rows += [np.kron(np.eye(3)[number], unit[rod]) / sd for rod in range(n)]
            right += list(((each / 200) ** 2) / sd)
        for number, turns in enumerate(made / 32):
            slips = EXECUTION_SD**2 * turns**2 + straying.strays**2 * (turns**2).mean()
            spread = (answer * slips) @ answer.T + 1e-8 * unit
            root = np.linalg.inv(np.linalg.cholesky(spread))
            step = np.kron(np.eye(3)[number + 1] - np.eye(3)[number], unit)
            rows += list(root @ step)
            right += list(root @ (answer @ turns))
        loose, *_ = np.linalg.lstsq(np.array(rows), np.array(right), rcond=None)
        ours_z, theirs = straying.state, loose[2 * n :]
        even = projections_of(EIGHT)[[0, 2]].sum(axis=0)  # what a head of this kind lets pitch hear
        assert even @ ours_z == pytest.approx(even @ theirs, abs=0.004)

    def test_an_answer_is_circulant_and_its_harmonics_are_its_eigenvalues(self) -> None:
        """A circulant matrix's eigenvalues are the discrete Fourier transform of its first column (P. J. Davis, *Circulant Matrices*, 1979)."""
        shares = np.array([1.0, 0.3, 0.5, 0.1, 0.2])
        answer = np.tensordot(shares, projections_of(EIGHT), axes=1)
        assert answer == pytest.approx(circulant(answer[:, 0]))
        assert np.fft.fft(answer[:, 0]).real[:5] == pytest.approx(shares)

    def test_readings_of_steady_and_of_unsteady_ears_are_told_apart(self) -> None:
        found = []
        for sd in (0.0008, 0.007):
            random = np.random.default_rng(3)
            rounds = tuple(Round(heard(200 * (1 + sd * random.standard_normal(8)))) for _ in range(5))
            found.append(noise_of(believe(ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(200)))))
        assert found[0] < 0.8 < 1.4 < found[1]

    def test_old_rounds_fade_as_turns_add_up(self) -> None:
        """Turns that cancel leave the head where it was for one fixed answer; for one that wanders the old round tells less the more was turned."""
        doubts = []
        for size in (0, 2, 8):
            there = np.array([size, -size] * 4)
            rounds = (
                Round(heard([201, 199] * 4), turned(there)),
                Round({}, turned(-there)),
                Round(heard([201, 199] * 4)),
            )
            belief = believe(ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(200)))
            doubts.append(float(np.trace(belief.outcome(np.zeros(8))[1])))
        assert doubts == sorted(doubts)

    def test_readings_taken_out_again_leave_what_was_believed_before(self) -> None:
        """Independent reference: the update in its information form (S. Särkkä, *Bayesian Filtering and Smoothing*, ch. 4), by inverses,
        and `scipy.stats.multivariate_normal`."""
        random, n = np.random.default_rng(3), 6
        projections = projections_of(RodLayout(n))
        size = 2 * n + len(projections)
        root = random.standard_normal((size, size)) * 0.1
        before = Component("local", 1 + 0.02 * random.standard_normal(size), root @ root.T, projections, 1.0)
        at, z, given = np.eye(n)[[0, 2, 5]], np.array([1.01, 0.98, 1.02]), np.array([4e-5, 1e-4, 4e-5])
        look = np.concatenate([at, np.zeros((3, size - n))], axis=1)
        after = np.linalg.inv(np.linalg.inv(before.covariance) + look.T @ np.diag(1 / given) @ look)
        mean = after @ (np.linalg.inv(before.covariance) @ before.mean + look.T @ (z / given))
        back, likely = replace(before, mean=mean, covariance=after).without(at, z, given)
        assert back.mean == pytest.approx(before.mean, abs=1e-6)
        assert back.covariance == pytest.approx(before.covariance, abs=1e-6)
        foretold = look @ before.covariance @ look.T + np.diag(given)
        constant = -1.5 * math.log(math.tau)
        assert likely + constant == pytest.approx(multivariate_normal(look @ before.mean, foretold).logpdf(z), abs=1e-4)

    @pytest.mark.parametrize("seed", range(6))
    def test_what_the_rounds_before_foretold_is_what_is_believed_of_them_alone(self, seed: int) -> None:
        """Not exactly: all rounds tell the answer better, and it is not linear."""
        random = np.random.default_rng(seed)
        head = SimulatedHead(EIGHT, 200, seed, uneven=0.03, noise=0.003, modal=seed % 2 == 0)
        rounds = []
        for _ in range(4):
            turns = turned(random.integers(-3, 4, 8))
            rounds.append(Round(head.tap(), turns))
            head.turn(turns)
        made = np.array([float(rounds[-2].turned[rod].fraction) for rod in EIGHT.rods])
        rounds[-1] = Round(rounds[-1].readings)
        alone, all_of_it = (
            believe(ClearingTask(EIGHT, some, SIXTEENTH, Pitch(200))) for some in (tuple(rounds[:-1]), tuple(rounds))
        )
        mean, covariance = alone.outcome(made)
        taken_out = all_of_it.before_last(8)
        sd = np.sqrt(np.diag(covariance))
        assert np.abs(taken_out.z - mean).max() < 0.6 * sd.mean()
        assert np.sqrt(np.diag(taken_out.outcome(np.zeros(8))[1])) == pytest.approx(sd, rel=0.2)

    def test_a_head_that_seems_to_answer_not_at_all_has_no_pull_worked_out_of_it(self) -> None:
        """Wrong turns can make an answer seem nothing, or backward: nothing is divided by it."""
        n, projections = 8, projections_of(EIGHT)
        mean = np.concatenate([np.linspace(0.98, 1.02, n), [-0.1, 0.0, 0.0, 0.0, 0.0], np.zeros(n)])
        belief = Belief((Component("local", mean, 1e-4 * np.eye(len(mean)), projections, 1.0),))
        task = ClearingTask(EIGHT, (Round(heard([200.0] * 8)),), SIXTEENTH, Pitch(200))
        with np.errstate(all="raise"):
            found = edge_tension(task, belief)
        assert not found.by_pitch.any()


class TestPair:
    def tilted(self) -> PairHeard:
        """Rods stand an eighth of a circle to either side of the axis: none of them hears either of the pair alone."""
        return PairHeard(99.0, 101.2, EIGHT.angle_rad(1) + math.pi / 8, 0.001, 0.001, 0.05)

    def test_a_head_even_at_its_rods_is_not_even_where_its_pair_stands_further_apart(self) -> None:
        """Two rods of eight show cos 45° = 0.71 of the distance of a pair whose axis lies between them."""
        pair = self.tilted()
        blend = {rod: Pitch(pair.blend_hz(EIGHT.angle_rad(rod))) for rod in EIGHT.rods}
        spread = max(p.hz for p in blend.values()) - min(p.hz for p in blend.values())
        assert spread == pytest.approx((101.2 - 99.0) * math.cos(math.pi / 4), rel=0.02)
        plain, whole = (
            judge(ClearingTask(EIGHT, (each,), SIXTEENTH, Pitch(100.1)))
            for each in (Round(blend), Round(blend, pair=pair))
        )
        assert (plain.even, whole.even) == (True, False)
        assert whole.spread == pytest.approx(2.2)
        assert "at any angle" in whole.words

    def test_the_chance_counts_every_angle_once_a_pair_was_heard(self) -> None:
        pair = self.tilted()
        blend = {rod: Pitch(pair.blend_hz(EIGHT.angle_rad(rod))) for rod in EIGHT.rods}
        even = EvenRule(spread_hz=2.4, spread_ratio=1, mean_ratio=1)
        chances = []
        for told in (Round(blend, pair=pair), Round(blend, pair=replace(pair, lower_hz=99.6, upper_hz=100.6))):
            task = ClearingTask(EIGHT, (told,) * 4, SIXTEENTH, Pitch(100.1), even)
            chances.append(draw_heads(task, believe(task)).chance(task, np.zeros(8)))
        assert chances[0] < chances[1]

    def test_a_pair_that_rings_everywhere_speaks_for_a_head_that_answers_by_it(self) -> None:
        pair = self.tilted()
        blend = {rod: Pitch(pair.blend_hz(EIGHT.angle_rad(rod))) for rod in EIGHT.rods}
        without, with_pair = (
            believe(ClearingTask(EIGHT, (each,), SIXTEENTH, Pitch(100))).modal
            for each in (Round(blend), Round(blend, pair=pair))
        )
        assert with_pair > max(without, 0.95)

    @given(st.integers(0, 7), st.booleans(), st.floats(0, 3.1))
    @settings(max_examples=25)
    def test_the_same_drum_numbered_from_elsewhere_is_believed_the_same(
        self, by: int, mirror: bool, axis: float
    ) -> None:
        pair = PairHeard(196.0, 203.0, axis, 0.001, 0.001, 0.05)
        blend = {rod: Pitch(pair.blend_hz(EIGHT.angle_rad(rod))) for rod in EIGHT.rods}
        task = ClearingTask(EIGHT, (Round(blend, pair=pair, worked_out=frozenset(blend)),), SIXTEENTH, Pitch(200))
        to = {rod: (by - rod) % 8 + 1 if mirror else (rod - 1 + by) % 8 + 1 for rod in EIGHT.rods}
        plain, other = believe(task).z, believe(relabel(task, to)).z
        assert [other[to[rod] - 1] for rod in EIGHT.rods] == pytest.approx(plain, abs=1e-6)


class TestPlan:
    @given(st.integers(0, 40))
    @settings(max_examples=20)
    def test_a_head_less_likely_even_than_not_is_never_left_as_it_is_where_a_step_betters_it(self, seed: int) -> None:
        head = SimulatedHead(EIGHT, 200, seed, uneven=0.02, modal=seed % 2 == 0)
        task = ClearingTask(EIGHT, (Round(head.tap()),), Turns(1), Pitch(200), EvenRule(2.0, 0.01, 0.01))
        found = propose(task, stop_when_read_clear=False)
        assert found.chance_now >= 0.5 or any(found.turns.values())

    def test_a_head_that_gets_worse_twice_is_taken_up_anew_and_moved_less(self) -> None:
        rounds = tuple(
            Round(heard(200 + size * np.array([1, 0, -1, 0, 1, 0, -1, 0])), turned([4, 0, -4, 0] * 2))
            for size in (2, 4, 8)
        )
        task = ClearingTask(EIGHT, rounds, SIXTEENTH, Pitch(200))
        assert recent(task).rounds == rounds[-2:]
        better = replace(task, rounds=rounds[::-1])
        assert recent(better) is better
        plain, halved = limits_of(task, believe(task)), limits_of(task, believe(task)).halved()
        assert (halved.up <= plain.up).all()
        assert (halved.down >= plain.down).all()
        assert (halved.up < plain.up).any()
        assert ((halved.up > 0) == (plain.up > 0)).all()

    def test_no_rod_is_eased_far_beyond_the_others_over_many_rounds_where_nothing_tells_what_it_holds(self) -> None:
        eased, layout = np.array([-8, 0, 0, 0, 0, 0, 0, 0]), EIGHT
        head = SimulatedHead(layout, 200, seed=3, modal=False, uneven=0.0001, noise=0.001, quirk=0)
        rounds: list[Round] = []
        for _ in range(4):
            rounds.append(Round(head.tap(), turned(eased)))
            head.turn(turned(eased))
        task = ClearingTask(layout, (*rounds, Round(head.tap())), Turns(1), Pitch(200))
        belief = believe(task)
        down = limits_of(task, belief).down / 32
        made, level = -32 / 32, float(belief.z.mean())
        held = level / belief.per_turn - made / 8
        assert -down[0] <= max(MOST_EASED * held + made * 7 / 8 + max(level - 1, 0) / belief.per_turn, 0) + 1e-9
        assert -down[0] < -down[4]
        counted = replace(task, tally={rod: Turns(64) for rod in layout.rods})
        assert -limits_of(counted, belief).down[0] / 32 > -down[0]  # the count tells what it holds

    def test_one_round_that_looks_even_does_not_end_it(self) -> None:
        session = ClearingSession(EIGHT, Pitch(200), SIXTEENTH)
        assert not session.read(heard([200.0] * 8)).done


class TestJudgingDrums:
    """The drums the engine is judged on are checked apart from it."""

    def test_an_even_film_rings_at_the_tabled_zero_with_both_of_its_pair(self) -> None:
        """j(1,1) = 3.83171, DLMF §10.21; the judging film is scaled by it."""
        assert modes(np.zeros(2 * HARMONICS)).hz == pytest.approx([1, 1], abs=1e-6)

    def test_two_lobes_split_the_pair_and_tilt_does_only_to_second_order(self) -> None:
        """First-order perturbation of a degenerate pair: only the second harmonic of the pull couples cos θ with sin θ."""

        def split(harmonic: int, size: float) -> float:
            edge = np.zeros(2 * HARMONICS)
            edge[2 * (harmonic - 1)] = size
            low, high = modes(edge).hz
            return float(high - low)

        assert split(2, 0.1) == pytest.approx(2 * split(2, 0.05), rel=0.05)
        assert split(1, 0.1) < 0.1 * split(2, 0.1)
        assert split(1, 0.2) == pytest.approx(4 * split(1, 0.1), rel=0.1)

    @pytest.mark.parametrize("seed", [208, 217, 238, 247])
    def test_told_the_count_since_finger_tight_no_rod_is_let_go_slack(self, seed: int) -> None:
        """Stiff hoops with rods that hold a fifth of the mean: each of these lost one before pulls that pitch cannot hear were left alone."""
        drum = JudgingDrum(seed)
        rule = ours(drum, 1 / 32, counted=True)
        for _ in range(6):
            turns, _ = rule(drum.tap())
            if turns is None:
                break
            drum.turn(turns)
        assert drum.slack == 0
        assert drum.even()

    def test_of_heads_said_to_be_even_as_many_are(self) -> None:
        """A reliability table of two rows, on drums of other models than the engine's."""
        told: list[tuple[float, bool]] = []
        for seed in range(3000, 3018):
            drum = JudgingDrum(seed)
            rule = ours(drum, 1 / 32)
            for _ in range(5):
                even = drum.even()
                turns, chance = rule(drum.tap())
                assert chance is not None
                told.append((chance, even))
                if turns is None:
                    break
                drum.turn(turns)
        sure = [even for chance, even in told if chance >= 0.9]
        unsure = [even for chance, even in told if chance < 0.1]
        assert len(sure) > 10
        assert np.mean(sure) >= 0.85
        assert len(unsure) > 10
        assert np.mean(unsure) <= 0.2


class TestTaughtByOthers:
    """What drums of a sort did is expected of one more of them."""

    def learned(self, seed: int, near: float = 0.2) -> Learned:
        """A drum of a sort that answers twice as much as usual, after three rounds."""
        head = SimulatedHead(EIGHT, 200, seed, answer_per_turn=1.6 * (1 + near * (seed % 3 - 1)), modal=False)
        session = ClearingSession(EIGHT, Pitch(200), SIXTEENTH)
        for _ in range(3):
            step = session.read(head.tap())
            head.turn(step.turns)
        kept = session.read(head.tap()).proposal.learned
        assert kept is not None
        return kept

    def test_their_mean_is_expected_with_the_differences_between_them(self) -> None:
        others = [self.learned(seed) for seed in range(6)]
        taught = taught_by_others(others, EIGHT.rods)
        assert taught is not None
        answers = [each.hz2_per_turn for each in others]
        assert min(answers) < taught.hz2_per_turn < max(answers)
        assert taught.hz2_per_turn_sd > 2 * np.mean([each.hz2_per_turn_sd for each in others])
        assert taught.rounds == 0
        for kind in taught.kinds:
            assert np.linalg.eigvalsh(np.array(kind.covariance)).min() >= -1e-6
            assert not any(kind.mean[5:])  # how each rod departs is each drum's own

    def test_drums_that_differ_more_leave_more_doubt(self) -> None:
        alike, apart = (
            taught_by_others([self.learned(seed, near) for seed in range(6)], EIGHT.rods) for near in (0.0, 0.4)
        )
        assert alike is not None
        assert apart is not None
        assert alike.hz2_per_turn_sd < apart.hz2_per_turn_sd

    def test_a_new_head_of_the_sort_is_foretold_better_than_one_of_which_nothing_is_known(self) -> None:
        taught = taught_by_others([self.learned(seed) for seed in range(6)], EIGHT.rods)
        off = []
        for kept in (None, taught):
            head = SimulatedHead(EIGHT, 200, 31, answer_per_turn=1.6, modal=False)
            found = propose(ClearingTask(EIGHT, (Round(head.tap()),), SIXTEENTH, Pitch(212), learned=kept))
            head.turn(found.turns)
            true = head.true_hz()
            off.append(sum(abs(found.predicted[rod].value - true[rod]) for rod in EIGHT.rods))
        assert off[1] < 0.7 * off[0]

    def test_two_drums_or_drums_with_other_rods_teach_nothing(self) -> None:
        others = [self.learned(seed) for seed in range(3)]
        assert taught_by_others(others[:2], EIGHT.rods) is None
        assert taught_by_others(others, RodLayout(6).rods) is None
        assert taught_by_others(others, EIGHT.rods) is not None

    def test_rods_left_of_a_head_that_has_more_are_not_taken_for_all_of_one(self) -> None:
        """Eight rods of eight have five harmonics, eight left of ten have six."""
        others = [self.learned(seed) for seed in range(3)]
        longer = tuple(
            replace(kind, mean=(*kind.mean, 0.0), covariance=tuple(map(tuple, np.eye(len(kind.mean) + 1))))
            for kind in others[0].kinds
        )
        taught, plain = (
            taught_by_others(each, EIGHT.rods) for each in ([replace(others[0], kinds=longer), *others], others)
        )
        assert taught == plain
