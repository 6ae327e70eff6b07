"""Which of two heads to suspect first, and whether turning the drum over helps for tonight (trade §7, §11, N6). Common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.deciding.evidence import Drum, HeadSeen
from drumwork.deciding.rules import Rule
from drumwork.deciding.verdicts import Verdict, worst
from drumwork.drums import Side

__all__ = ["SUSPICIONS", "Suspicion", "suspect_first", "turns_over"]


@dataclass(frozen=True, slots=True)
class Suspicion:
    """A reason to look at one head before the other, or to turn the drum over."""

    id: str
    words: str
    cites: tuple[str, ...]


SUSPICIONS: Final[Mapping[str, Suspicion]] = {
    each.id: each
    for each in (
        Suspicion("suspect-worse", "The sound is wrong and this head shows why: it is worse than the other.", ("N6", "§11")),
        Suspicion("suspect-slow-wires", "Slow wires: the snare-side head first.", ("F:wires-slow", "§8")),
        Suspicion("suspect-other", "Dull with nothing to see on it: the other head first.", ("F:dull", "N6", "§7")),
        Suspicion("suspect-unseen", "Nobody looked at the resonant head; it is the likelier one.", ("N6", "§7")),
        Suspicion("suspect-turned", "The batter’s rods were turned again and again: the resonant head, which nobody looks at, is the likelier one.", ("N6",)),
        Suspicion("suspect-itself", "It does not hold pitch and nothing speaks against the other head: this one.", ("F:pitch-lost",)),
        Suspicion("suspect-worn", "Nothing sounds wrong yet; this head is the more worn.", ("§11",)),
        Suspicion("suspect-resonant", "Both are alike: if the sound is wrong, the resonant head is changed first.", ("§7", "N6")),
        Suspicion("turn-over", "The resonant head is cratered and the batter is better: turn the drum over for tonight.", ("§11", "§13")),
    )
}  # fmt: skip
_HEARD: Final = ("dull", "pitch-lost")
_BY_EAR: Final = frozenset(
    ("dull-slight", "dull", "dull-bad", "pitch-lost", "pitch-lost-bad", "pitch-lost-out", "falls-fast", "turned-again", "slow-wires-head", "head-dirt")
)  # fmt: skip
_UNPLAYABLE: Final = ("split", "tear-at-hoop", "run-in-mesh")


def _to_see(fired: Sequence[Rule]) -> Verdict:
    """What a head's looks come to, apart from how it sounds: the other head may be to blame for that."""
    return worst(rule.verdict for rule in fired if rule.id not in _BY_EAR)


def _heard(head: HeadSeen | None) -> set[str]:
    return {each.finding for each in head.seen if each.finding in _HEARD} if head else set()


def suspect_first(drum: Drum, fired: Mapping[str, Sequence[Rule]]) -> tuple[Side | None, list[Suspicion]]:
    """The head to look at first and why; None while neither gives cause."""
    found = _suspect(drum, fired)
    return (found[0], [SUSPICIONS[found[1]]]) if found else (None, [])


def _suspect(drum: Drum, fired: Mapping[str, Sequence[Rule]]) -> tuple[Side, str] | None:
    batter, resonant = (_to_see(fired[side.value]) for side in (Side.BATTER, Side.RESONANT))
    on_batter, on_resonant = _heard(drum.heads.get(Side.BATTER)), _heard(drum.heads.get(Side.RESONANT))
    ids = {side: {rule.id for rule in fired[side.value]} for side in Side}
    falls = {side: "falls-fast" in ids[side] for side in Side}
    turned = "turned-again" in ids[Side.BATTER]
    slow = any(each.finding == "wires-slow" for each in drum.wires or ())
    if on_batter or on_resonant or slow or turned or any(falls.values()):
        if batter is not resonant and worst((batter, resonant)) is not Verdict.NOTHING:
            return (Side.RESONANT if resonant.severity > batter.severity else Side.BATTER), "suspect-worse"
        if slow:
            return Side.RESONANT, "suspect-slow-wires"
        if turned:
            return Side.RESONANT, "suspect-turned"
        if on_batter and Side.RESONANT not in drum.heads:
            return Side.RESONANT, "suspect-unseen"
        if (on_batter and on_resonant) or batter is not Verdict.NOTHING:
            return Side.RESONANT, "suspect-resonant"
        if "dull" in on_batter:
            return Side.RESONANT, "suspect-other"
        if "dull" in on_resonant:
            return Side.BATTER, "suspect-other"
        return (Side.BATTER if on_batter or falls[Side.BATTER] else Side.RESONANT), "suspect-itself"
    if worst((batter, resonant)).severity < Verdict.CLEAR_RECHECK.severity:
        return None
    if batter is resonant:
        return Side.RESONANT, "suspect-resonant"
    return (Side.RESONANT if resonant.severity > batter.severity else Side.BATTER), "suspect-worn"


def turns_over(drum: Drum, fired: Mapping[str, Sequence[Rule]]) -> Suspicion | None:
    """Whether the drum can be turned over for tonight: a tom whose cratered resonant head can be played on, and whose batter is better."""
    resonant, batter = drum.heads.get(Side.RESONANT), drum.heads.get(Side.BATTER)
    if not (drum.going_out and resonant and batter and drum.traits.film and (drum.traits.legs or drum.traits.mount)):
        return None
    below = {each.finding: each.degree for each in resonant.seen}
    better = _to_see(fired["batter"]).severity < Verdict.REPLACE_NEXT.severity
    if below.get("dents", 0) < 3 or any(each in below for each in _UNPLAYABLE) or not better:
        return None
    return SUSPICIONS["turn-over"]
