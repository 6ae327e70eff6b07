"""`drumwork verdict`: what findings on a drum come to. JSON on standard input, JSON out (docs/verdict.md)."""

from __future__ import annotations

import argparse
from typing import Any

from drumwork.commands.requests import Fields, answer_each, request
from drumwork.deciding import Decision, Drum, HeadSeen, Lives, Seen, decide
from drumwork.deciding.evidence import routed
from drumwork.drums import DrumKind, Side
from drumwork.errors import BadRequest
from drumwork.findings import Place, finding

__all__ = ["add", "drum_of"]

_LONGEST = 1200
"""Months; a hundred years."""


def add(parser: argparse.ArgumentParser) -> None:
    parser.set_defaults(run=_run)


def _place(said: Any, name: str) -> tuple[Place, str]:
    """A place as told: nothing, words, a rod's number, or an object with side, rod, words."""
    match said:
        case None:
            return Place(), ""
        case str():
            rod = said.removeprefix("rod").strip()
            return (Place(rod=int(rod)) if rod.isascii() and rod.isdigit() and len(rod) < 4 else Place()), said
        case bool():
            raise BadRequest(f"{name}.place: say it in words, or as a rod’s number.", field="place")
        case int():
            return Place(rod=said), ""
        case dict():
            place = Fields(said, f"{name}.place")
            side = place.one_of("side", ("", *(each.value for each in Side)), "")
            return Place(side, place.whole("rod", 1, 99) if place.has("rod") else None), place.text("words", "")
        case _:
            raise BadRequest(f"{name}.place: say it in words, or as a rod’s number.", field="place")


def _seen(said: Fields) -> Seen:
    row = finding(said.text("id"))
    place, near = _place(said.value.get("place"), said.name)
    return Seen(row.id, said.whole("degree", 1, 3, 2), place, near)


def _head(said: Fields, seen: list[Seen]) -> HeadSeen:
    return HeadSeen(
        kind=said.text("kind", ""),
        months=said.maybe_number("age_months", 0, _LONGEST),
        hours=said.maybe_number("hours", 0, 1e6),
        fell_cents=said.maybe_number("fell_cents", -4800, 4800),
        kind_falls_cents=said.maybe_number("kind_falls_cents", 0, 4800),
        turned_again=said.whole("turned_again", 0, 1000, 0),
        seen=tuple(seen),
    )


def drum_of(asked: Any) -> Drum:
    """The drum a request tells of.

    Raises
    ------
    BadRequest, BadFinding
        naming the field that is missing, of the wrong kind, or not in the vocabulary.
    """
    said = Fields(asked)
    about, heads = said.object("drum"), said.object("heads")
    kind = DrumKind(about.one_of("kind", [each.value for each in DrumKind]))
    parts: dict[str, list[Seen]] = {}
    sections: list[tuple[str, Side | None, Fields]] = [
        ("head", side, heads.object(side.value)) for side in Side if heads.has(side.value)
    ]
    sections += [(name, None, said.object(name)) for name in ("wires", "hardware") if said.has(name)]
    for section, side, told in sections:
        found = [(side, _seen(each)) for each in told.objects("findings")]
        for part, seen in routed(found, section).items():
            parts.setdefault(part, []).extend(seen)
    lives = said.object("lives")
    usual = Lives()
    given = [side for side in Side if heads.has(side.value) or side.value in parts]
    return Drum(
        kind,
        about.whole("rods", 0, 99, 8),
        {side: _head(heads.object(side.value), parts.get(side.value, [])) for side in given},
        tuple(parts.get("wires", ())) if said.has("wires") or "wires" in parts else None,
        tuple(parts.get("hardware", ())),
        said.flag("going_out"),
        Lives(
            lives.number("batter_months", 1, _LONGEST, usual.batter_months),
            lives.number("resonant_months", 1, _LONGEST, usual.resonant_months),
            lives.maybe_number("hours", 1, 1e6),
        ),
    )


def _told(found: Decision) -> dict[str, Any]:
    return {
        "verdicts": {part: verdict.value for part, verdict in found.verdicts.items()},
        "suspect_first": found.suspect_first.value if found.suspect_first else None,
        "turn_over": found.turn_over,
        "because": [
            {
                "rule": each.rule,
                "part": each.part,
                "words": each.words,
                "cites": list(each.cites),
                "verdict": each.verdict.value if each.verdict else None,
            }
            for each in found.because
        ],
        "would_change": [
            {"part": each.part, "if": each.if_words, "verdict": each.verdict.value} for each in found.would_change
        ],
        "urgency": found.verdicts["drum"].urgency,
    }


def _run(args: argparse.Namespace) -> None:
    answer_each(request(), lambda asked: _told(decide(drum_of(asked))))
