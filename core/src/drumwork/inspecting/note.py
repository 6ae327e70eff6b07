"""A verdict as a short note by a good technician: one line that says what, then why, part by part."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from drumwork.deciding import Decision, Verdict
from drumwork.drums import Side

__all__ = ["Note", "note_of"]


@dataclass(frozen=True, slots=True)
class Note:
    """`headline` is the whole in one sentence; `lines` one each for parts with something to say; `first` which head to suspect."""

    headline: str
    lines: tuple[str, ...]
    first: str


_SAYS = {
    Verdict.CLEAR: "clear the {part}",
    Verdict.CLEAR_RECHECK: "clear the {part} and look again",
    Verdict.REPAIR: "repair the {part}",
    Verdict.REPLACE_NEXT: "a new {part} at the next bench day",
    Verdict.REPLACE_NOW: "a new {part} before it goes out",
}
_NAMES = {"batter": "batter", "resonant": "resonant head", "wires": "snare wires", "hardware": "hardware"}
_ONLY_WORN = "suspect-worn"
_HARDWARE = {
    Verdict.REPAIR: "repair its hardware",
    Verdict.REPLACE_NEXT: "a part to replace at the next bench day",
    Verdict.REPLACE_NOW: "a part to replace before it goes out",
}


def _says(part: str, verdict: Verdict) -> str:
    if part == "hardware":
        return _HARDWARE[verdict]
    if part == "wires" and verdict in (Verdict.REPAIR, Verdict.CLEAR, Verdict.CLEAR_RECHECK):
        return "set the wires again" if verdict is Verdict.REPAIR else "the wires: head and bed rods first"
    if part == "wires":
        return _SAYS[verdict].format(part="set of wires")
    return _SAYS[verdict].format(part=_NAMES[part])


def _joined(words: list[str]) -> str:
    """'clear the batter, and repair its hardware.'"""
    said = words[0] if len(words) == 1 else f"{', '.join(words[:-1])}, and {words[-1]}"
    return f"{said[0].upper()}{said[1:]}."


def note_of(found: Decision, stands: Mapping[str, Verdict]) -> Note:
    """The note for a decision. `stands` are the verdicts by part after a person overruled any."""
    parts = sorted((part for part in _NAMES), key=lambda part: -stands[part].severity)
    asked = [part for part in parts if stands[part] is not Verdict.NOTHING]
    if Verdict.OUT_OF_SERVICE in (stands[part] for part in parts):
        headline = "Take it out of service. This is for a qualified person."
    elif asked:
        headline = _joined([_says(part, stands[part]) for part in asked])
    else:
        headline = "Nothing to do."
    reasons: dict[str, list[str]] = {}
    worn = any(each.rule == _ONLY_WORN for each in found.because)
    for each in found.because:
        if each.rule != _ONLY_WORN:  # which head is the more worn is said by the verdicts already
            reasons.setdefault(each.part, []).append(each.words)
    lines = tuple(" ".join(reasons[part]) for part in (*parts, "drum") if part in reasons)
    first = None if worn else found.suspect_first
    look = {None: "", Side.BATTER: "Look at the batter first.", Side.RESONANT: "Look at the resonant head first."}[
        first
    ]
    return Note(headline, lines, look)
