"""Snare wires: which go under a drum (trade §8, §10). Common practice with no published source, as rules with ids like those of heads."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from drumwork.choosing.wanted import USES, WORDS
from drumwork.drums import DrumKind, traits_of
from drumwork.errors import BadQuantity

__all__ = ["MADE", "TIES", "WIRE_RULES", "WIRE_SPECS", "WireAnswer", "WireChoice", "WireExcluded", "WireSpec", "WiresWanted", "choose_wires", "judge_wires"]  # fmt: skip

MADE: Final = ("coiled", "cable", "gut")
TIES: Final = ("cord", "strap")
_LONGER_IN: Final = 0.12
_SHORTER_IN: Final = 1.02


@dataclass(frozen=True, slots=True)
class WireSpec:
    """One kind of set: strands, how they are made, how they are tied; `fits_in` the diameter it is made for, None where it comes in every size."""

    strands: int
    made: str = "coiled"
    tie: str = "cord"
    fits_in: float | None = None

    @property
    def words(self) -> str:
        return f"{self.strands} {'strands' if self.made == 'coiled' else f'of {self.made}'}, {self.tie}"

    @property
    def wide(self) -> float:
        """How much more wire sound than the usual twenty coiled strands, from about -1 to 2."""
        return (self.strands - 20) / 10 - (0.0 if self.made == "coiled" else 0.6)


@dataclass(frozen=True, slots=True)
class WiresWanted:
    """One question. `clamps`: what the strainer and butt plate take, empty where nobody knows; `bed_in` the length of the bed, where it was measured."""

    kind: DrumKind
    diameter_in: float | None = None
    use: str = "drum-set"
    sound: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    clamps: tuple[str, ...] = ()
    bed_in: float | None = None

    def __post_init__(self) -> None:
        if not traits_of(self.kind).wires:
            raise BadQuantity("No wires go under this drum.", kind=self.kind.value)
        for each, among in ((self.use, USES), *((word, tuple(WORDS)) for word in self.sound), *((tie, TIES) for tie in self.clamps)):  # fmt: skip
            if each not in among:
                raise BadQuantity(f"“{each}” is not known. Choose among: {', '.join(among)}.", asked=each)

    def wants(self, *words: str) -> bool:
        return any(each in self.sound for each in words)

    @property
    def concert(self) -> bool:
        return self.use == "concert" or self.kind is DrumKind.ORCHESTRAL_SNARE

    @property
    def marching(self) -> bool:
        return self.use == "marching" or self.kind is DrumKind.MARCHING_SNARE


@dataclass(frozen=True, slots=True)
class _Rule:
    id: str
    when: Callable[[WiresWanted, WireSpec], bool]
    words: str
    weight: float | None = None
    cites: tuple[str, ...] = ("§10",)


def _longer(asked: WiresWanted, spec: WireSpec) -> bool:
    room = min(each for each in (asked.diameter_in, asked.bed_in, 99.0) if each is not None)
    return spec.fits_in is not None and spec.fits_in > room + _LONGER_IN


def _shorter(asked: WiresWanted, spec: WireSpec) -> bool:
    return spec.fits_in is not None and asked.diameter_in is not None and spec.fits_in < asked.diameter_in - _SHORTER_IN


WIRE_RULES: Final = (
    _Rule("WX-long", _longer, "Longer than the bed: its end plates would stand on the edge.", None, ("§8", "§10")),
    _Rule("WX-short", _shorter, "Far too short: it would not reach from strainer to butt plate.", None, ("§8", "§10")),
    _Rule("WX-tie", lambda asked, spec: bool(asked.clamps) and spec.tie not in asked.clamps, "This strainer does not clamp what it is tied by.", None, ("§10",)),
    _Rule("W-usual", lambda asked, spec: spec.made == "coiled" and spec.strands == 20, "Twenty coiled strands are the usual set.", 2, ("§10",)),
    _Rule("W-concert", lambda asked, spec: asked.concert and spec.made in ("cable", "gut"), "Cable and gut are quick and clean in a hall.", 4, ("C2",)),
    _Rule("W-concert-few", lambda asked, spec: asked.concert and spec.strands > 20, "So many strands rattle along with the orchestra.", -3, ("C2", "§7")),
    _Rule("W-cable-elsewhere", lambda asked, spec: not asked.concert and not asked.marching and spec.made != "coiled", "Cable and gut answer drily; made for a hall.", -2, ("C2",)),
    _Rule("W-marching", lambda asked, spec: asked.marching and spec.made in ("gut", "cable"), "Under high tension few strong strands stay clear.", 4, ("§4",)),
    _Rule("W-school", lambda asked, spec: asked.use == "school" and spec.made == "coiled" and spec.strands == 20, "Easy to get again, and it answers most hands.", 2, ("C1",)),
    _Rule("W-drier", lambda asked, spec: asked.wants("dry", "articulate", "short", "dark") and spec.wide < 0, "Fewer strands: drier.", 2.5),
    _Rule("W-drier-not", lambda asked, spec: asked.wants("dry", "articulate", "short", "dark") and spec.wide > 0.3, "More strands: wider than asked.", -2.5),
    _Rule("W-wider", lambda asked, spec: asked.wants("open", "loud", "long", "bright", "warm") and spec.wide > 0.3, "More strands: wider, more wire in the sound.", 2.5),
    _Rule("W-wider-not", lambda asked, spec: asked.wants("open", "loud", "long", "bright", "warm") and spec.wide < -0.5, "Few strands: drier than asked.", -2),
    _Rule("W-sensitive", lambda asked, spec: asked.wants("sensitive") and spec.made == "coiled" and spec.strands >= 20, "Enough strands to answer a whisper.", 1.5, ("§8",)),
    _Rule("W-quiet", lambda asked, spec: "quiet" in asked.needs and spec.strands <= 16, "Less wire, less noise; at night the wires are off.", 1.5, ("C7",)),
    _Rule("W-wide-buzz", lambda asked, spec: spec.strands > 24, "A wide set takes up more of what others play.", -0.8, ("§7",)),
)  # fmt: skip

WIRE_SPECS: Final = tuple(
    WireSpec(strands, made, tie)
    for strands, made in ((12, "coiled"), (16, "coiled"), (20, "coiled"), (24, "coiled"), (42, "coiled"), (12, "cable"), (8, "gut"))
    for tie in TIES
)  # fmt: skip
"""What is chosen among where nothing is said of what lies there; common stock, from memory."""
_MOST: Final = 3
_WITHIN: Final = 4.0


@dataclass(frozen=True, slots=True)
class WireAnswer:
    spec: WireSpec
    score: float
    speaks_for: tuple[str, ...]
    speaks_against: tuple[str, ...]
    rules: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class WireExcluded:
    spec: WireSpec
    because: str
    rule: str


@dataclass(frozen=True, slots=True)
class WireChoice:
    """`answers` best first; `excluded` what must not go on, with the reason."""

    answers: tuple[WireAnswer, ...]
    excluded: tuple[WireExcluded, ...]


def judge_wires(asked: WiresWanted, spec: WireSpec) -> WireAnswer | WireExcluded:
    """One set for this drum and sound: what speaks for and against it, or why it must not go on."""
    said = [rule for rule in WIRE_RULES if rule.when(asked, spec)]
    if wrong := next((rule for rule in said if rule.weight is None), None):
        return WireExcluded(spec, wrong.words, wrong.id)
    good = tuple(rule.words for rule in said if (rule.weight or 0) > 0)
    bad = tuple(rule.words for rule in said if (rule.weight or 0) < 0)
    return WireAnswer(
        spec,
        sum(rule.weight or 0 for rule in said),
        good or ("Nothing speaks against it.",) if not bad else good,
        bad,
        tuple(rule.id for rule in said) or ("§10",),
    )


def choose_wires(asked: WiresWanted, among: tuple[WireSpec, ...] = WIRE_SPECS) -> WireChoice:
    """Two or three sets that differ in strands or make, the best first, and those that must not go on.

    Raises
    ------
    BadQuantity
        for a drum without wires (by `WiresWanted`).
    """
    judged = [judge_wires(asked, spec) for spec in among]
    ranked = sorted((each for each in judged if isinstance(each, WireAnswer)), key=lambda each: -each.score)
    answers: list[WireAnswer] = []
    for each in ranked:
        alike = any((one.spec.strands, one.spec.made) == (each.spec.strands, each.spec.made) for one in answers)
        near = not answers or each.score >= answers[0].score - _WITHIN
        if near and not alike and len(answers) < _MOST:
            answers.append(each)
    return WireChoice(tuple(answers), tuple(each for each in judged if isinstance(each, WireExcluded)))
