"""Snare wires: off, on, level, tried, fine-tuned (trade §8, N8). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.work.conditions import Found, Has, Way
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import Step
from drumwork.work.words import Point

__all__ = ["butt_side", "fine", "knob_back", "level", "on_off", "wires_back"]

_AT = (Where.WIRES, Where.STRAINER)
_SCREWDRIVER = ("small screwdriver",)


def knob_back() -> Step:
    return Step(
        "knob",
        "Knob back",
        Tick(),
        "Back the fine-tension knob almost all the way out: as loose as it goes while it is still in its thread.",
        None,
        (
            Point("Knob turns freely; a stripped one goes to repair before wires go on", Found("knob-stripped")),
            Point("Left tight now, the wires could never be switched off"),
        ),
        does=("wires-fit",),
        cites=("N8", "§8"),
        looks_at=_AT,
        picture="knob",
    )


def butt_side() -> Step:
    return Step(
        "butt",
        "Butt side",
        Tick(),
        "Lever up. Draw the wires straight and firm at the butt plate, not hard, and clamp them, the two screws in turn.",
        None,
        (
            Point("Both ends the same distance from the edge, allowing for what pulling shifts"),
            Point("Strands centred over the bed, or over the middle of the head where the shell has none"),
            Point("Butt clamp snug", Found("butt-clamp-loose")),
        ),
        ("strands",),
        does=("wires-fit",),
        tools=_SCREWDRIVER,
        cites=("§8",),
        looks_at=_AT,
        picture="butt",
    )


def level() -> Step:
    return Step(
        "level",
        "Level",
        Tick(),
        "Lever down. Look straight along the wires from both ends: they hang level, neither side lower.",
        None,
        (
            Point("One side hangs: unclamp that end, draw the low side up, clamp again"),
            Point("Off centre or not level: set again", Found("wires-off-centre") | Found("wires-not-level")),
        ),
        does=("wires-level",),
        tools=_SCREWDRIVER,
        cites=("§8",),
        looks_at=_AT,
        picture="level",
    )


def on_off() -> Step:
    return Step(
        "on-off",
        "On and off",
        Tick(),
        "Knob near its loosest. Tap softly with the lever up, then down, and go by which of four it is.",
        None,
        (
            Point("Up: some wire. Down: none. That is right; go on"),
            Point("Up: wire. Down: wire too. They never leave the head: knob further out, or clamp again with less pull"),
            Point("Up: nothing. Down: nothing. Too slack, or held off: clamp again with more pull, lever up"),
            Point("Up: nothing. Down: wire. Clamped with the lever down: unclamp, lever up, clamp again"),
            Point("Sound with the lever off: back to the knob", Found("wires-stay-on")),
            Point("Lever slips or will not let go: its screws and spring first; else repair", Found("strainer-slips") | Found("strainer-wont-drop")),
        ),
        does=("wires-test",),
        tools=("stick",),
        cites=("§8", "N8"),
        looks_at=_AT,
        picture="on-off",
    )  # fmt: skip


def fine() -> Step:
    return Step(
        "fine",
        "Fine tension",
        Tick(),
        "Lever up. Tighten the knob while you tap softly near the edge: fuller and fuzzier when loose, crisper when tight, choked when too far.",
        None,
        (
            Point("Soft strokes near the edge still speak"),
            Point("All four rods beside the bed present and matched", Has("bed") & Way("bed_rods", "matched")),
            Point("Buzz at another drum’s note: ease the rods beside the bed, up to one turn", Has("bed") & Way("bed_rods", "eased")),
            Point("Dead or slow: the snare-side head and the bed rods first, then the wires", Found("wires-slow")),
            Point("Buzz at another note: move the drum’s pitch before the wires", Found("wires-buzz")),
        ),
        does=("wires-test", "target"),
        tools=("stick",),
        cites=("§8", "P18"),
        looks_at=(*_AT, Where.ROD),
    )  # fmt: skip


def wires_back() -> tuple[Step, ...]:
    """The same wires on again: the strainer side never came off, so only the butt end is drawn and clamped."""
    return knob_back(), butt_side(), level(), on_off(), fine()
