"""The rules by which findings become verdicts: one readable table.

All of it is common practice with no published source; `cites` names the lines of the trade notes (docs/sources/trade.md) and of the vocabulary
of findings (`F:` and its id). Conditions are written in the engine's language and only ever ask whether something *is* there, so that what
is worse never comes to a milder verdict.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from drumwork.deciding.evidence import WORN_BY_USE
from drumwork.deciding.verdicts import Verdict
from drumwork.drums import DrumKind, Side
from drumwork.work.conditions import Any_, Condition, Found, FoundThing, Has, IsKind, OnSide, Situation

__all__ = ["RULES", "Known", "Part", "Rule"]


class Part(StrEnum):
    """What a rule is about."""

    HEAD = "head"
    WIRES = "wires"
    HARDWARE = "hardware"


@dataclass(frozen=True)
class Known(Condition):
    """A fact on record, not a finding: the drum goes out, the head is past its life."""

    name: str

    def settle(self, at: Situation) -> Condition:
        return self

    def holds(self, found: Iterable[FoundThing]) -> bool:
        return any(each.finding == f"known:{self.name}" for each in found)

    def words(self) -> str:
        return self.name.replace("-", " ")


@dataclass(frozen=True, slots=True)
class Rule:
    """One row. `words` are said to people, with the reason."""

    id: str
    part: Part
    when: Condition
    verdict: Verdict
    words: str
    cites: tuple[str, ...]

    @property
    def urgency(self) -> str:
        return self.verdict.urgency


_N, _C, _CR, _R, _NEXT, _NOW, _OUT = Verdict
_BATTER, _RESONANT = OnSide(Side.BATTER), OnSide(Side.RESONANT)
_GOES = Known("going-out")
_OLD = Known("past-life") | Known("past-hours")


def _head(known: str, when: Condition, verdict: Verdict, words: str, *cites: str) -> Rule:
    return Rule(known, Part.HEAD, when, verdict, words, ("§11", *cites))


def _any(*ids: str, degree: int = 1) -> Condition:
    return Any_(tuple(Found(each, degree) for each in ids))


_HEADS: Final = (
    _head("split", Found("split"), _NOW, "A split or hole only grows: replace it before the drum goes out.", "F:split"),
    _head("tear-at-hoop", Found("tear-at-hoop"), _NOW, "The film is leaving its hoop: replace it before the drum goes out.", "F:tear-at-hoop"),
    _head("coat-slight", Found("coat-worn") | Found("coat-worn@edge"), _N, "The coating is not worn through where it is played: leave it.", "F:coat-worn"),
    _head("coat-worn", Found("coat-worn", 2) & _BATTER, _NEXT, "The coating is worn through where it is played: replace it.", "F:coat-worn"),
    _head("coat-gone-below", Found("coat-worn", 3) & _RESONANT, _NEXT, "The coating is gone: the film under it is thin and tired.", "F:coat-worn"),
    _head("dents-slight", Found("dents"), _N, "Slight dents are playable.", "F:dents"),
    _head("dents-plain", Found("dents", 2) & _BATTER, _C, "Plain dents on a batter are playable; clear it round them.", "F:dents"),
    _head("dents-below", Found("dents", 2) & _RESONANT, _NEXT, "A dented resonant head cannot be tuned away: replace it sooner than a batter.", "F:dents", "N6"),
    _head("craters", Found("dents", 3) & _BATTER, _NEXT, "Craters: it can be played on, but it will not clear. Replace it.", "F:dents"),
    _head("craters-below-out", Found("dents", 3) & _RESONANT & _GOES, _NOW, "A cratered resonant head spoils the drum: not out like this.", "F:dents", "N6"),
    _head("craters-both-out", Found("dents", 3) & Found("other:dents", 3) & _GOES, _NOW, "Both heads are cratered: turning it over is no help, and neither is tuning.", "F:dents"),
    _head("bed-creases", Found("creases@bed"), _N, "Creases beside the snare bed are expected: leave those rods alone.", "N9", "F:creases"),
    _head("crease-slight", Found("creases"), _CR, "A slight crease: clear it and see whether it comes out.", "F:creases"),
    _head("creases", Found("creases", 2), _NEXT, "A creased film does not come back: replace it.", "F:creases"),
    _head("creases-out", Found("creases", 3) & _GOES, _NOW, "Badly creased, it gives no clean tone: replace it before the drum goes out.", "F:creases"),
    _head("stretched-slight", Found("stretched"), _CR, "A slack spot: clear once and see whether it comes up.", "F:stretched"),
    _head("stretched", Found("stretched", 2), _NEXT, "A slack spot that will not come up is stretched film: replace it.", "F:stretched"),
    _head("stretched-out", Found("stretched", 3) & _GOES, _NOW, "It cannot be brought to pitch: replace it before the drum goes out.", "F:stretched"),
    _head("defaced-slight", Found("defaced"), _N, "A stain or a little writing harms nothing.", "F:defaced"),
    _head("defaced", Found("defaced", 2), _NEXT, "Written on or stained so that it shows: replace it when it is next on the bench.", "F:defaced"),
    _head("defaced-out", Found("defaced", 2) & _GOES, _NOW, "Not on a stage like this: replace it before it goes out.", "F:defaced"),
    _head("pitch-lost", Found("pitch-lost"), _CR, "It does not hold pitch: recheck its rods once, then decide.", "F:pitch-lost"),
    _head("pitch-lost-bad", Found("pitch-lost", 3), _NEXT, "It loses pitch however often it is brought back: replace it.", "F:pitch-lost"),
    _head("pitch-lost-slack", Found("pitch-lost") & Found("stretched"), _NEXT, "It loses pitch and has a slack spot: the film is done.", "F:pitch-lost", "F:stretched"),
    _head("pitch-lost-out", Found("pitch-lost", 3) & _GOES, _NOW, "It would not last the evening in tune: replace it before it goes out.", "F:pitch-lost"),
    _head("dull-slight", Found("dull"), _C, "A little dull: clear it, and listen to the other head.", "F:dull", "§7"),
    _head("dull", Found("dull", 2), _CR, "Dull: look at the other head first, clear both, listen again.", "F:dull", "§7", "N6"),
    _head("dull-bad", Found("dull", 3), _NEXT, "Choked: if the other head is not to blame, this one is.", "F:dull", "§7"),
    _head("dull-worn", Found("dull", 2) & (_any("coat-worn", "dents", degree=2) | Found("creases") | _OLD), _NEXT, "Dull, and its wear shows why: replace it.", "F:dull"),
    _head("wrong-head", Found("wrong-head") | Known("wrong-kind"), _NEXT, "A head of the wrong kind for its place: replace it at the next bench day.", "F:wrong-head", "C3"),
    _head("run-in-mesh", Found("run-in-mesh"), _NEXT, "A run in the mesh goes on running: return it if it is new, else replace it.", "F:run-in-mesh"),
    _head("run-out", Found("run-in-mesh", 2) & _GOES, _NOW, "The run is wide: replace it before the drum goes out.", "F:run-in-mesh"),
    _head("flesh-hoop", Found("flesh-hoop-bent"), _NEXT, "A bent flesh hoop never sits even: return it if it is new, else replace it.", "F:flesh-hoop-bent"),
    _head("flesh-hoop-out", Found("flesh-hoop-bent", 3) & _GOES, _NOW, "It cannot be tuned on this hoop: replace it before the drum goes out.", "F:flesh-hoop-bent"),
    _head("age", Found("age") | _OLD, _NEXT, "Older, or played longer, than this workshop keeps them: change it when it is next on the bench.", "F:age", "N5"),
    _head("age-and-wear", (Found("age") | _OLD) & (_any("coat-worn", *WORN_BY_USE[2:]) | Found("dents", 2)), _NEXT, "Old, and its use shows: replace it.", "F:age", "N5"),
    _head("falls-fast", Known("falls-fast"), _CR, "It drops faster than its kind does: recheck its rods once, then decide.", "§12", "F:pitch-lost"),
    _head("falls-fast-old", Known("falls-fast") & _OLD, _NEXT, "Old, and it drops faster than its kind does: replace it.", "§12", "N5"),
    _head("turned-again", Known("turned-again"), _CR, "The same rods needed turning again and again: look at their threads, and at the other head.", "N6", "N2"),
    _head("slow-wires-head", Found("wires:wires-slow") & _RESONANT, _C, "Slow wires are the snare-side head’s and the bed rods’ doing first.", "F:wires-slow", "§8"),
    _head("head-dirt", _any("mould", "flaking-coat"), _R, "Clean it with mask, gloves and a damp cloth; no blowing.", "§18", "F:mould"),
)  # fmt: skip


def _wires(known: str, when: Condition, verdict: Verdict, words: str, *cites: str) -> Rule:
    return Rule(known, Part.WIRES, when, verdict, words, ("§8", *cites))


_WIRES: Final = (
    _wires("strands", _any("strand-bent", "strand-broken", "strand-missing"), _NEXT, "Bent, broken or missing strands pull unevenly and buzz: replace the wires.", "F:strand-broken"),
    _wires("strands-out", (_any("strand-broken", "strand-missing", degree=2) | Found("strand-bent", 3)) & _GOES, _NOW, "Loose strand ends cut film and fingers: replace the wires before it goes out.", "F:strand-broken", "§18"),
    _wires("end-plate", Found("end-plate-bent"), _NEXT, "A bent end plate lets the wires hang to one side: replace them.", "F:end-plate-bent"),
    _wires("end-plate-out", Found("end-plate-bent", 3) & _GOES, _NOW, "They cannot lie flat on this plate: replace them before it goes out.", "F:end-plate-bent"),
    _wires("strap-slight", _any("strap-stretched", "strap-frayed"), _R, "Renew the strap or cord.", "F:strap-stretched"),
    _wires("strap", _any("strap-stretched", "strap-frayed", degree=2), _NEXT, "The strap gives way under the pull: new strap, and look at the wires with it.", "F:strap-frayed"),
    _wires("strap-out", Found("strap-frayed", 3) & _GOES, _NOW, "It may part tonight: new before it goes out.", "F:strap-frayed"),
    _wires("wires-slow", Found("wires-slow"), _CR, "Snare-side head and bed rods first; then the wires.", "F:wires-slow", "§8"),
    _wires("wires-set", _any("wires-off-centre", "wires-not-level"), _R, "Set them again: centred, both ends alike, level.", "F:wires-not-level"),
    _wires("wires-stay-on", Found("wires-stay-on"), _R, "Back the knob out, clamp them again.", "F:wires-stay-on", "N8"),
    _wires("wires-buzz", Found("wires-buzz"), _C, "They answer another note: bed rods by this workshop’s way, or another wanted pitch.", "F:wires-buzz", "N11"),
    _wires("wires-buzz-bad", Found("wires-buzz", 3), _CR, "They answer another note loudly: clear, move one of the two pitches, listen again.", "F:wires-buzz", "N11"),
    _wires("wires-dirt", _any("mould", "flaking-coat"), _R, "Clean them with mask, gloves and a damp cloth.", "§18"),
)  # fmt: skip


def _hard(known: str, when: Condition, verdict: Verdict, words: str, *cites: str) -> Rule:
    return Rule(known, Part.HARDWARE, when, verdict, words, ("§11", *cites))


def _fix(*ids: str) -> Condition:
    return _any(*ids)


_LOW = IsKind(DrumKind.FLOOR_TOM, DrumKind.BASS)
_HARDWARE: Final = (
    _hard("shell-broken", _fix("shell-split", "ply-lifting"), _OUT, "A split shell or lifting ply goes on tearing under tension: out of service, for a qualified person.", "F:shell-split", "§18"),
    _hard("rod-missing", Found("rod-missing"), _R, "Fetch the rod, or lend one with a note.", "F:rod-missing", "N13"),
    _hard("rod-missing-low-out", Found("rod-missing") & _GOES & _LOW, _NOW, "A drum at low tension suffers most from a missing rod: it has to be there before it goes out.", "F:rod-missing", "§13"),
    _hard("rod-missing-bed-out", Found("rod-missing@bed") & _GOES & Has("wires"), _NOW, "The rods beside the bed must be complete: not out without it.", "F:rod-missing", "§13"),
    _hard("rods-missing-out", Known("rods-missing") & _GOES, _NOW, "More than one rod is missing: not out like this.", "F:rod-missing", "§13"),
    _hard("rod-bent", Found("rod-bent"), _R, "Put a straight rod in.", "F:rod-bent"),
    _hard("threads", _fix("thread-dry", "thread-gritty", "thread-over-oiled"), _R, "Clean the thread; a spot of light grease if it is dry, wiped dry if it is oily.", "F:thread-dry"),
    _hard("thread-broken", _fix("thread-stripped", "rod-seized", "insert-loose"), _R, "No force: it wants a new insert or casing.", "F:thread-stripped", "§18"),
    _hard("casing-loose", Found("casing-loose"), _R, "Snug it by hand.", "F:casing-loose"),
    _hard("claws", _fix("claw-missing", "claw-bent"), _R, "Fetch a claw.", "F:claw-missing"),
    _hard("hoop", _fix("hoop-bent", "hoop-cracked"), _R, "Mark its place; repair or replace the hoop.", "F:hoop-bent"),
    _hard("hoop-cracked", Found("hoop-cracked", 3), _NOW, "A hoop cracked so far may part under tension: replace it before it goes out.", "F:hoop-cracked", "§18"),
    _hard("hoop-place", _fix("gate-wrong", "hoop-turned"), _R, "Off and on again in its own place, before any tension.", "F:gate-wrong", "N7"),
    _hard("edge-dirty", Found("edge-dirty"), _R, "Wipe it at the next head change.", "F:edge-dirty"),
    _hard("edges", _fix("edge-chipped", "edge-flat", "bed-rough"), _R, "The edge is for a qualified person: mark the place.", "F:edge-chipped", "§18"),
    _hard("shell-oval", Found("shell-oval"), _R, "Centre the head; the shell is for a qualified person.", "F:shell-oval", "§18"),
    _hard("vent", Found("vent-blocked"), _R, "Clean it and snug it.", "F:vent-blocked"),
    _hard("strainer", _fix("strainer-slips", "strainer-wont-drop", "knob-stripped", "butt-clamp-loose"), _R, "Screws and knob first; then a new part.", "F:strainer-slips"),
    _hard("standing", _fix("leg-missing", "leg-slips", "foot-missing", "spur-blunt", "mount-stripped", "mount-loose", "slides"), _R, "It has to stand and stay: fetch or repair the part.", "F:leg-missing"),
    _hard("rattle", Found("rattle"), _R, "Find it by pressing; snug it, or a bit of cloth tape.", "F:rattle", "§13"),
    _hard("muffler", Found("muffler-loose"), _R, "Take it out or renew it.", "F:muffler-loose"),
    _hard("stands", _fix("felt-missing", "sleeve-missing", "wing-nut-missing", "hat-post-bent"), _R, "Fetch what is missing; a bent post turns to its smooth spot.", "F:felt-missing", "N13"),
    _hard("rope", _fix("ear-slips", "rope-slack-pair"), _R, "Set the ear; carry the slack on to the end.", "F:ear-slips", "§14"),
    _hard("rope-frayed", Found("rope-frayed"), _NEXT, "A frayed rope snaps back when it parts: renew it.", "F:rope-frayed", "§14", "§18"),
    _hard("rope-frayed-bad", Found("rope-frayed", 3), _NOW, "Badly frayed: not under load again, renew it before it goes out.", "F:rope-frayed", "§18"),
    _hard("dirt", _fix("mould", "flaking-coat"), _R, "Clean it with mask, gloves and a damp cloth; no blowing.", "§18", "F:mould"),
)  # fmt: skip

RULES: Final[Mapping[str, Rule]] = {each.id: each for each in (*_HEADS, *_WIRES, *_HARDWARE)}
