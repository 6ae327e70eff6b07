"""Two or three answers, not a table of everything: the best by rule and by the words asked, and the next best that differ from it in kind."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final

from drumwork.choosing.changes import changes
from drumwork.choosing.rules import EXCLUSIONS, WEIGHED, Rule
from drumwork.choosing.specs import SPECS, Spec
from drumwork.choosing.wanted import WORDS, Wanted

__all__ = ["Answer", "Choice", "Excluded", "alike", "choose", "judge"]

_LEAST: Final = 2
_MOST: Final = 3
_WITHIN: Final = 5.0
"""How far below the best an answer may score and still be worth showing."""
_PER_WORD: Final = 2.0
_SPEAKS: Final = 0.25


@dataclass(frozen=True, slots=True)
class Answer:
    """One specification, what speaks for and against it, the rules it rests on, and what changes against the head that is on."""

    spec: Spec
    score: float
    speaks_for: tuple[str, ...]
    speaks_against: tuple[str, ...]
    rules: tuple[str, ...]
    changes: dict[str, Any]


@dataclass(frozen=True, slots=True)
class Excluded:
    spec: Spec
    because: str
    rule: str


@dataclass(frozen=True, slots=True)
class Choice:
    """`answers` best first, at least one; `excluded` everything that must not go on, with the reason."""

    answers: tuple[Answer, ...]
    excluded: tuple[Excluded, ...]


def _excluded(asked: Wanted, spec: Spec) -> Rule | None:
    return next((rule for rule in EXCLUSIONS if rule.when(asked) and rule.of(spec)), None)


def _fit(word: str, spec: Spec) -> float:
    """How far a head goes the way a player's word points: the axes' mean over all heads is nought."""
    return sum(weight * (spec.tends[axis] - _MEAN[axis]) for axis, weight in WORDS[word].items())


_FILMS: Final = [each for each in SPECS if not each.mesh and not each.snare_side]
_MEAN: Final = {axis: sum(each.tends[axis] for each in _FILMS) / len(_FILMS) for axis in _FILMS[0].tends}


def _judged(asked: Wanted, spec: Spec) -> Answer:
    score = 0.0
    good, bad, rules = list[str](), list[str](), list[str]()
    for rule in WEIGHED:
        if rule.when(asked) and rule.of(spec):
            score += rule.weight or 0
            (bad if (rule.weight or 0) < 0 else good).append(rule.words)
            rules.append(rule.id)
    for word in dict.fromkeys(asked.sound):
        fit = _fit(word, spec)
        score += _PER_WORD * max(-1.5, min(1.5, fit))
        if abs(fit) >= _SPEAKS:
            (good if fit > 0 else bad).append(_said(word, fit))
            rules.append(f"word-{word}")
    bad += list(_price(asked, spec))
    told = changes(asked.now, spec, asked.diameter_in) if asked.now else {}
    return Answer(
        spec, score, tuple(good) or ("Nothing speaks against it.",), tuple(bad), tuple(rules) or ("§10",), told
    )


def _said(word: str, fit: float) -> str:
    how = ("a little ", "", "very ")[(abs(fit) >= 0.5) + (abs(fit) >= 1.1)]
    return (
        f"{how}{word}".capitalize() + "."
        if fit > 0
        else f"Not {word}: {'rather' if abs(fit) < 1.1 else 'much'} the other way."
    )


def _price(asked: Wanted, spec: Spec) -> Iterator[str]:
    """What one has to take with it, asked for or not."""
    tends = spec.tends
    if spec.mesh:
        yield "No drum sound at all."
        return
    if asked.batter and tends["life"] < -0.2 and not asked.serves("lasting"):
        yield "A thin film dents and wears sooner."
    if asked.batter and tends["sensitive"] < -0.6 and not asked.wants("sensitive"):
        yield "It answers soft playing less."
    if tends["sustain"] < -0.6 and not asked.wants("dry", "short", "punchy"):
        yield "It rings short."
    if spec.finish == "clear" and asked.batter and not asked.wants("bright"):
        yield "No good under brushes, and it shines under light."
    if spec.finish in ("coated", "fibre", "suede") and asked.batter:
        yield "Its coat wears off where it is played."


def _kind_of(spec: Spec) -> tuple[object, ...]:
    """What a player would call another kind of head."""
    families = {"smooth-white": "smooth", "ebony": "smooth", "fibre": "like skin", "suede": "like skin"}
    thin = (spec.mil or 0) < 10
    return spec.plies, spec.mesh, spec.damping != "none", families.get(spec.finish, spec.finish), thin


def alike(one: Spec, other: Spec) -> bool:
    """Whether a player would take one for the other: the same plies, finish family and damping, and film within three mil."""
    near = one.mesh or abs((one.mil or 0) - (other.mil or 0)) <= 3
    return _kind_of(one)[:4] == _kind_of(other)[:4] and one.damping == other.damping and near


def judge(asked: Wanted, spec: Spec) -> Answer | Excluded:
    """One head for this drum, this side and this sound: what speaks for and against it, or why it must not go on."""
    rule = _excluded(asked, spec)
    return Excluded(spec, rule.words, rule.id) if rule else _judged(asked, spec)


def choose(asked: Wanted) -> Choice:
    """The best heads for this drum, this side and this sound, and those that must not go on."""
    out, left = list[Excluded](), list[Spec]()
    for spec in SPECS:
        rule = _excluded(asked, spec)
        if rule:
            out.append(Excluded(spec, rule.words, rule.id))
        else:
            left.append(spec)
    ranked = sorted((_judged(asked, spec) for spec in left), key=lambda each: -each.score)
    answers: list[Answer] = []
    for each in ranked:
        alike = any(_kind_of(each.spec) == _kind_of(one.spec) for one in answers)
        near = len(answers) < _LEAST or each.score >= answers[0].score - _WITHIN
        if near and len(answers) < _MOST and (not alike or asked.snare_side):
            answers.append(each)
    return Choice(tuple(answers[: _MOST if not asked.snare_side else _hinted(answers)]), tuple(out))


def _hinted(answers: list[Answer]) -> int:
    """On the snare side there is one film; others only where something speaks for them."""
    return max(1, sum(each.score > 0 for each in answers))
