"""Cautions of the trade (§18), by id. Makers' instructions, venue rules and local codes come first."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final, Literal

__all__ = ["CAUTIONS", "CautionId"]

CautionId = Literal[
    "driver",
    "burrs",
    "dust",
    "solvent",
    "no-standing",
    "over-tension",
    "tapping",
    "two-people",
    "qualified",
    "seized",
    "cutting",
    "strands",
    "rope",
]
CAUTIONS: Final[Mapping[CautionId, str]] = {
    "driver": "No power driver on tension rods: it strips threads and spins wrists. If house rules allow one, guide it by hand and stop before the rod takes tension.",
    "burrs": "Hoop edges and rod ends can carry burrs. Run a rag round them, not a finger.",
    "dust": "Wipe old dust and coating off damp; do not blow it. Mould or flaking lacquer: mask and gloves.",
    "solvent": "Cleaners and thin oils: window open, gloves, no flame, and read the sheet first.",
    "no-standing": "Never stand or kneel on a drum to stretch a head: a fall, or a broken edge. Palms are enough.",
    "over-tension": "Stay within the head maker's limit. If a lug creaks, a hoop leans or the film whitens, stop and ease off.",
    "tapping": "Rounds of tapping add up. Tap softly, keep it short, wear hearing protection in a small room.",
    "two-people": "Large drums are lifted and turned by two people.",
    "qualified": "Shell, edge and hoop repair belong to qualified people; makers' instructions come first. Do not sand or file it here.",
    "cutting": "A blade near a hand: clamp the work, cut away from the hand, gloves on, nobody beside you. A ready-ported head is the safe choice.",
    "strands": "Broken strands and cut plate ends are needles. Hold wires by the plates, eyes away, and wrap what is thrown out.",
    "rope": "Rope under load snaps back. Release it slowly, eyes and face away, nobody in line with it.",
    "seized": "No force on a rod that will not turn: the key slips, the head of the rod tears.",
}
