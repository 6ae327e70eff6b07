"""Pictures a step can be shown with, by id, and what each shows in words for whoever cannot see it. Devices draw them from the drum's own data."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, Literal

__all__ = ["PICTURES", "Picture"]

Picture = Literal[
    "", "gate", "wires-free", "knob", "strainer", "butt", "level", "on-off", "bed-rods", "port", "patch", "foam", "wrinkles",
    "muffle-piece", "muffle-ring", "muffle-towel", "muffle-pad", "ears-up", "unlace", "slack", "ears-on", "align", "pull", "range", "segments",
    "pigtail",
]  # fmt: skip
PICTURES: Final[Mapping[Picture, str]] = {
    "gate": "The snare side from above: both snare gates of the hoop open on the line from strainer to butt plate.",
    "wires-free": "The snare side from above: the wires freed at the butt plate, laid back over the strainer, which keeps hold of them.",
    "knob": "The strainer: its fine-tension knob turned almost all the way out.",
    "strainer": "The snare side from above: the wires clamped at the strainer, a little toward the butt plate.",
    "butt": "The snare side from above: the wires drawn straight from strainer to butt plate, both ends as far from the edge.",
    "level": "Along the bed from both ends: the end plate level over the film, neither side lower.",
    "on-off": "Lever on, the wires against the head; lever off, the wires away from it.",
    "bed-rods": "The snare side from above: the rods beside the bed marked, the ripples between them drawn.",
    "port": "The front head: a port off the middle, away from the rods, a ring round its edge.",
    "patch": "The batter from the front: the patch where the beater lands, the protector on the hoop at the pedal.",
    "foam": "The shell from above, head off: a strip of foam along the inside of the edge, not touching where the film lies.",
    "wrinkles": "The head from above: a soft wrinkle from the rod in hand toward the middle, a palm on the middle.",
    "muffle-piece": "The batter from above: half a piece of gel near the edge.",
    "muffle-ring": "The batter from above: a loose ring along the edge.",
    "muffle-towel": "The drum cut open: a towel inside that touches neither head.",
    "muffle-pad": "The drum cut open: a pad that touches both heads.",
    "ears-up": "The rope rolled out flat: every ear slid up, the pairs apart.",
    "unlace": "The rope rolled out flat: a third of it unlaced from the end, the splice left alone.",
    "slack": "The rope rolled out flat: slack carried from the splice toward the end.",
    "ears-on": "The rope rolled out flat: every ear on its pair, all facing one way, slid up.",
    "align": "The drum from the side: hoops level, ropes even, badge in the middle.",
    "pull": "The rope rolled out flat: the same pull at every segment, ears drawn down after it.",
    "range": "Two ropes side by side: ears up for the lowest pitch, ears down for the highest.",
    "segments": "The rope rolled out flat: one pair bowed, its slack carried on to the end.",
    "pigtail": "The rope's end: four wraps with the lay, then locked.",
}  # fmt: skip
