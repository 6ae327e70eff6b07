"""Bass drum beaters and the patches they land on: what each does to the head and to the sound. Common practice, no published source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from drumwork.choosing.specs import Spec
from drumwork.choosing.wanted import WORDS
from drumwork.drums import DrumKind
from drumwork.errors import BadQuantity

__all__ = ["BEATERS", "PATCHES", "Beater", "BeaterAnswer", "Patch", "choose_beater"]


@dataclass(frozen=True, slots=True)
class Beater:
    """What strikes: how it sounds on the axes heads are told by, and how hard it is on the film (0 kind, 2 hard)."""

    id: str
    words: str
    sound: str
    head: str
    hard: int
    tends: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Patch:
    """What it lands on."""

    id: str
    words: str
    sound: str
    head: str
    spares: int
    tends: Mapping[str, float]


BEATERS: Final = (
    Beater("felt", "felt", "Round and warm, little click.", "Kind to any head; the coat under it goes slowly.", 0, {"warm": 1.0, "low": 0.5, "attack": -0.4, "bright": -0.6}),
    Beater("wood", "wood", "Hard and clear: click before the note.", "Wears through a coat and dents a single ply; it wants a patch.", 2, {"attack": 1.0, "bright": 0.7, "loud": 0.6, "warm": -0.5}),
    Beater("plastic", "plastic", "The brightest click, the shortest touch.", "Hardest on the film: on one ply never without a patch.", 2, {"attack": 1.2, "bright": 1.0, "loud": 0.5, "warm": -0.8, "low": -0.2}),
)  # fmt: skip
PATCHES: Final = (
    Patch("none", "no patch", "The head as it is.", "All of the wear is the head’s.", 0, {}),
    Patch("film", "film patch", "A little more click, a little less ring.", "Takes the wear; stuck on once, it stays.", 2, {"attack": 0.4, "bright": 0.2, "sustain": -0.2}),
    Patch("cloth", "cloth patch", "Softer and rounder.", "Takes the wear and damps a little.", 2, {"attack": -0.3, "warm": 0.4, "bright": -0.4, "sustain": -0.3}),
)  # fmt: skip
_SAYS: Final = 0.25


@dataclass(frozen=True, slots=True)
class BeaterAnswer:
    beater: Beater
    patch: Patch
    score: float
    speaks_for: tuple[str, ...]
    speaks_against: tuple[str, ...]


def _needs_patch(beater: Beater, head: Spec | None) -> bool:
    """A hard beater on one ply, on a coat, or on nobody knows what."""
    return beater.hard > 1 and (head is None or head.plies == 1 or head.finish in ("coated", "fibre", "suede"))


def _wrong(kind: DrumKind, beater: Beater, patch: Patch, head: Spec | None) -> str:
    if kind is DrumKind.ROPE_BASS and beater.hard:
        return "A concert bass is struck with felt or wool by hand."
    if head is not None and head.mesh and (beater.hard or patch.spares):
        return "Mesh takes felt only: a hard beater makes a run in it, and a patch does not hold."
    if _needs_patch(beater, head) and not patch.spares:
        return "Never without a patch on this head."
    return ""


def _judged(sound: tuple[str, ...], beater: Beater, patch: Patch) -> BeaterAnswer:
    tends = {axis: beater.tends.get(axis, 0.0) + patch.tends.get(axis, 0.0) for axis in {*beater.tends, *patch.tends}}
    good, bad, score = [beater.sound], list[str](), 0.0
    (bad if beater.hard else good).append(beater.head)
    if patch.spares:
        good.append(patch.head)
    for word in dict.fromkeys(sound):
        fit = sum(weight * tends.get(axis, 0.0) for axis, weight in WORDS[word].items())
        score += fit
        if abs(fit) >= _SAYS:
            (good if fit > 0 else bad).append(f"{word.capitalize()}." if fit > 0 else f"Not {word}.")
    # With nothing asked felt is the usual one; a patch is for whom it is needed.
    score -= 0.3 * beater.hard + (0.15 if patch.spares and not beater.hard else 0.0)
    return BeaterAnswer(beater, patch, score, tuple(good), tuple(bad))


def choose_beater(kind: DrumKind, sound: tuple[str, ...] = (), head: Spec | None = None) -> tuple[list[BeaterAnswer], list[tuple[str, str]]]:  # fmt: skip
    """The best pair of beater and patch for each beater that may strike this head, best first; and pairs that must not, with the reason.

    Raises
    ------
    BadQuantity
        for a drum no pedal or beater strikes, or an unknown word.
    """
    if kind not in (DrumKind.BASS, DrumKind.MARCHING_BASS, DrumKind.ROPE_BASS):
        raise BadQuantity("Beaters are for bass drums.", kind=kind.value)
    if strange := [word for word in sound if word not in WORDS]:
        raise BadQuantity(f"“{strange[0]}” is not known. Choose among: {', '.join(WORDS)}.", asked=strange[0])
    best: dict[str, BeaterAnswer] = {}
    out: list[tuple[str, str]] = []
    for beater in BEATERS:
        for patch in PATCHES:
            if because := _wrong(kind, beater, patch, head):
                out.append((f"{beater.words}, {patch.words}", because))
                continue
            found = _judged(sound, beater, patch)
            if beater.id not in best or found.score > best[beater.id].score:
                best[beater.id] = found
    return sorted(best.values(), key=lambda each: -each.score), out
