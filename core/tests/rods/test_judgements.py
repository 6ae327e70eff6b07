"""What a word of the ear does to a belief, against integration by quadrature and over a grid."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.linalg import cholesky
from scipy.stats import multivariate_normal, norm

from drumwork.quantities import Turns
from drumwork.rods.clearing import ClearingTask, Ear, Means, Round, propose
from drumwork.rods.clearing.belief import believe
from drumwork.rods.clearing.judgements import Judgements
from drumwork.rods.clearing.readings import CENTS_PER_Z
from drumwork.rods.layout import RodLayout

FIVE = (Ear.MUCH_LOWER, Ear.LOWER, Ear.LEVEL, Ear.HIGHER, Ear.MUCH_HIGHER)
EIGHT = RodLayout(8)
SIXTEENTH = Turns.of(1, 16)


def chance(word: Ear, cents: float) -> float:
    """Of a word where the difference is known."""
    judged = Judgements.of([word], [0.0])
    return float(judged.chance(1.0, np.array([cents / CENTS_PER_Z]), np.array([0.0]))[0][0])


def test_one_of_the_five_words_is_said() -> None:
    for cents in (-400.0, -31.0, 0.0, 15.0, 120.0):
        assert sum(chance(word, cents) for word in FIVE) == pytest.approx(1)


def test_any_word_may_be_wrong_and_a_far_difference_is_much() -> None:
    assert chance(Ear.MUCH_HIGHER, 300) == pytest.approx(chance(Ear.MUCH_HIGHER, 120))
    assert chance(Ear.MUCH_HIGHER, 300) > 0.9
    assert chance(Ear.LEVEL, 300) == pytest.approx(0.02)


@pytest.mark.parametrize("word", [*FIVE, Ear.CANT_TELL])
@pytest.mark.parametrize(("mean", "sd"), [(0.0, 0.08), (0.05, 0.02), (-0.06, 0.05)])
def test_a_word_against_a_gaussian_is_what_quadrature_gives(word: Ear, mean: float, sd: float) -> None:
    """Chance, and the mean and variance of the difference once the word was said: mean + v·s and v + v²·b of the logarithm's derivatives s and b."""
    judged = Judgements.of([word], [0.0])
    said, slope, bend = (float(each[0]) for each in judged.chance(1.0, np.array([mean]), np.array([sd**2])))

    def moment(power: int) -> float:
        return quad(
            lambda z: z**power * chance(word, z * CENTS_PER_Z) * norm.pdf(z, mean, sd),
            mean - 9 * sd,
            mean + 9 * sd,
            limit=400,
            points=[mean, *(end / CENTS_PER_Z for end in (-45, -40, -15, 15, 40, 45))],
        )[0]

    first = moment(1) / moment(0)
    assert said == pytest.approx(moment(0), rel=1e-5)
    assert mean + sd**2 * slope == pytest.approx(first, abs=1e-6)
    assert sd**2 + sd**4 * bend == pytest.approx(moment(2) / moment(0) - first**2, rel=1e-4)


def settled(judged: Judgements, covariance: np.ndarray) -> tuple[np.ndarray, np.ndarray, float]:
    """Mean, covariance and log evidence of differences of which so many words were said."""
    taken, more = judged.begun, 0.0
    for _ in range(30):
        whole = covariance + np.diag(taken.variance)
        factor = np.asfortranarray(cholesky(whole, lower=True))
        pull = np.linalg.solve(whole, taken.z)
        used = taken
        taken, more = judged.again(1.0, used, factor, pull)
    after = covariance - covariance @ np.linalg.solve(covariance + np.diag(used.variance), covariance)
    evidence = more - 0.5 * float(used.z @ pull) - float(np.log(np.diag(factor)).sum())
    return covariance @ pull, after, evidence


@pytest.mark.parametrize(
    "words",
    [
        (Ear.MUCH_LOWER, Ear.LOWER),
        (Ear.LEVEL, Ear.HIGHER),
        (Ear.MUCH_HIGHER, Ear.MUCH_HIGHER),
        (Ear.CANT_TELL, Ear.LOWER),
    ],
)
def test_two_words_together_are_what_a_grid_gives(words: tuple[Ear, Ear]) -> None:
    """Two differences that go together, as those beside one rod do; within what the approximation is known to be good for."""
    covariance = 0.06**2 * np.array([[1.0, 0.5], [0.5, 1.0]])
    mean, after, evidence = settled(Judgements.of(list(words), [0.0, 0.0]), covariance)
    axis = np.linspace(-0.4, 0.4, 401)
    across, along = np.meshgrid(axis, axis, indexing="ij")
    likely = [
        Judgements.of([word] * len(axis), [0.0] * len(axis)).chance(1.0, axis, np.zeros(len(axis)))[0] for word in words
    ]
    weight = multivariate_normal.pdf(np.stack([across, along], axis=-1), np.zeros(2), covariance)
    weight = weight * likely[0][:, None] * likely[1][None, :]
    total = weight.sum()
    wanted = np.array([(weight * across).sum(), (weight * along).sum()]) / total
    spread = np.array(
        [(weight * (each - m) ** 2).sum() / total for each, m in zip((across, along), wanted, strict=True)]
    )
    assert mean == pytest.approx(wanted, abs=0.004)
    assert np.sqrt(np.diag(after)) == pytest.approx(np.sqrt(spread), rel=0.06)
    assert evidence == pytest.approx(np.log(total * (axis[1] - axis[0]) ** 2), abs=0.02)


def heard(words: dict[int, Ear], turned: dict[int, Turns] | None = None) -> Round:
    every = dict.fromkeys(range(2, 9), Ear.LEVEL) | words
    return Round(ear=every, reference=1, turned=turned or {})


def cents_at(rod: int, *rounds: Round) -> float:
    """How far a rod is believed from the one the others are compared with."""
    z = believe(ClearingTask(EIGHT, rounds, SIXTEENTH, means=Means.EAR)).z
    return float((z[rod - 1] - z[0]) * CENTS_PER_Z)


def turned(rod: int, *rounds: Round) -> int:
    return propose(ClearingTask(EIGHT, rounds, SIXTEENTH, means=Means.EAR)).turns[rod].thirtyseconds


def test_much_lower_is_taken_at_its_word() -> None:
    """Facing rods that agree; they were taken to be twenty cents low, less than “much” may mean at all."""
    assert cents_at(3, heard({3: Ear.MUCH_LOWER, 7: Ear.MUCH_LOWER})) < -45


def test_one_rod_much_higher_twice_is_eased() -> None:
    """It was taken for a wrong word four rounds long, and nothing was turned."""
    once = heard({3: Ear.MUCH_HIGHER})
    assert cents_at(3, once) < 20
    assert cents_at(3, once, once) > 40
    assert turned(3, once, once) <= -4


def test_one_wrong_word_does_not_outweigh_those_that_agree() -> None:
    low = heard({3: Ear.MUCH_LOWER, 7: Ear.MUCH_LOWER})
    wrong = heard({3: Ear.HIGHER, 7: Ear.MUCH_LOWER})
    assert cents_at(3, wrong, low, low) < -45
    assert cents_at(3, low, low, low) < cents_at(3, wrong, low, low) < cents_at(3, wrong)
