"""`drumwork clear --stdio`: rounds of readings in, turns out, one JSON line each."""

from __future__ import annotations

import argparse
import json
import math
import statistics
import sys
from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any, Final

from drumwork.commands.edges import read_json
from drumwork.errors import BadQuantity, DrumworkError
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingSession, Step
from drumwork.rods.layout import RodLayout

__all__ = ["Desk", "add"]

NEAR: Final = 0.15
"""Partials within this ratio of the round's median belong to the pair of modes that edge taps read."""


def add(verbs: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    parser = verbs.add_parser("clear", help="work out turns from readings, round after round")
    parser.add_argument(
        "--stdio", action="store_true", required=True, help="one JSON request a line, one JSON answer a line"
    )
    parser.set_defaults(run=lambda _: serve(sys.stdin, sys.stdout))


def serve(lines: Any, out: Any) -> None:
    """Answer every line; a bad one gets an error and the next is read."""
    desk = Desk()
    for line in lines:
        if line.strip():
            print(json.dumps(desk.answer(line), ensure_ascii=False), file=out, flush=True)


def _number(request: Mapping[str, Any], name: str, least: float, most: float) -> float:
    value = request.get(name)
    if (
        isinstance(value, bool)
        or not isinstance(value, int | float)
        or not math.isfinite(value)
        or not least <= value <= most
    ):
        raise BadQuantity(f"“{name}” must be a number from {least:g} to {most:g}.", **{name: value})
    return float(value)


def _steps(turns: float) -> Turns:
    """Turns as counted: to the nearest thirty-second."""
    return Turns(round(turns * 32))


def _list(request: Mapping[str, Any], name: str, count: int) -> Sequence[Any]:
    value = request.get(name)
    if not isinstance(value, list) or len(value) != count:
        raise BadQuantity(f"“{name}” must be a list of {count}, one for each rod.", **{name: value})
    return value


def _blend(partials: Any, median: float, reading: float | None) -> float | None:
    """The linear reading of the doublet: its partials weighed by how strongly this rod excites and hears them."""
    if not isinstance(partials, list):
        return reading
    near = [
        (float(hz), float(amp))
        for hz, amp in (each for each in partials if isinstance(each, list) and len(each) == 2)
        if isinstance(hz, int | float) and isinstance(amp, int | float) and amp > 0 and abs(hz / median - 1) <= NEAR
    ]
    total = sum(amp for _, amp in near)
    return math.sqrt(sum(amp * hz**2 for hz, amp in near) / total) if total > 0 else reading


class Desk:
    """Cases in hand, each a drum of its own."""

    def __init__(self) -> None:
        self.cases: dict[Any, ClearingSession] = {}

    def answer(self, line: str) -> dict[str, Any]:
        try:
            request = read_json(line)
            if not isinstance(request, dict):
                raise BadQuantity("A request is one JSON object on one line.")
            return self._answer(request)
        except json.JSONDecodeError as error:
            return {"error": {"code": "bad_json", "message": f"This line is not JSON: {error.msg}.", "fields": {}}}
        except DrumworkError as error:
            fields = {name: str(value) for name, value in error.fields.items()}
            return {"error": {"code": error.code, "message": error.message, "fields": fields}}

    def _answer(self, request: Mapping[str, Any]) -> dict[str, Any]:
        case = request.get("case")
        if case is None or isinstance(case, list | dict):
            raise BadQuantity("“case” names the drum: text or a number.", case=case)
        session = self.cases.get(case)
        if session is None:
            session = _begin(request)
        rods = session.layout.rods
        readings = _readings(request, len(rods))
        if session.rounds and request.get("applied_turns") is not None:
            applied = [_turn(value) for value in _list(request, "applied_turns", len(rods))]
            session.turned(dict(zip(rods, applied, strict=True)))
        step = session.read(_heard(rods, readings))
        self.cases[case] = session
        return _shape(step)


def _begin(request: Mapping[str, Any]) -> ClearingSession:
    step = Fraction(_number(request, "step_turns", 1 / 32, 1)).limit_denominator(32)
    prior = request.get("prior_hz_per_turn")
    return ClearingSession(
        RodLayout(int(_number(request, "n_rods", 4, 16))),
        Pitch(_number(request, "target_hz", 20, 2000)),
        Turns.from_fraction(step),
        None if prior is None else _number(request, "prior_hz_per_turn", 0.1, 5000),
    )


def _turn(value: Any) -> Turns:
    if value is None:
        return Turns(0)
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value) or abs(value) > 8:
        raise BadQuantity("Turns made are numbers from -8 to 8.", applied_turns=value)
    return _steps(value)


def _reading(value: Any) -> float | None:
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise BadQuantity("A reading is a number in hertz, or null for a rod that was not heard.", readings_hz=value)
    return Pitch(float(value)).hz


def _readings(request: Mapping[str, Any], count: int) -> list[Pitch | None]:
    plain = [_reading(value) for value in _list(request, "readings_hz", count)]
    heard = [value for value in plain if value is not None]
    partials = request.get("partials")
    if not isinstance(partials, list) or len(partials) != count or not heard:
        return [None if value is None else Pitch(value) for value in plain]
    median = statistics.median(heard)
    blended = [_blend(each, median, value) for each, value in zip(partials, plain, strict=True)]
    return [None if value is None else Pitch(value) for value in blended]


def _heard(rods: Sequence[int], readings: Sequence[Pitch | None]) -> dict[int, Pitch]:
    return {rod: pitch for rod, pitch in zip(rods, readings, strict=True) if pitch is not None}


def _shape(step: Step) -> dict[str, Any]:
    found = step.proposal
    more = {
        "chance_now": round(found.chance_now, 3),
        "predicted_hz": [round(each.value, 2) for each in found.predicted.values()],
        "predicted_sd_hz": [round(each.sd, 2) for each in found.predicted.values()],
        "rounds_left": round(found.rounds_left, 1),
        "approach": found.approach,
        "tension_clear": found.tension.clear,
        "findings": [{"kind": f.kind, "rods": list(f.rods), "words": f.words} for f in found.findings],
        "why": found.why_round,
    }
    if step.done:
        return {"done": True, **more}
    turns = [float(each.fraction) for each in step.turns.values()]
    return {"turns": turns, "note": found.too_coarse, **more}
