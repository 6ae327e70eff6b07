"""`drumwork clear --stdio`: rounds of readings in, turns out, one JSON line each."""

from __future__ import annotations

import argparse
import json
import math
import sys
from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from typing import Any

from drumwork.commands.edges import read_json
from drumwork.errors import BadQuantity, DrumworkError
from drumwork.listening.pair import round_of, tapped_hz
from drumwork.listening.round import HeardRod
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingSession, Misread, PairHeard, Step, misread
from drumwork.rods.layout import RodLayout

__all__ = ["Desk", "add"]


def add(parser: argparse.ArgumentParser) -> None:
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
        if request.get("tapped") is not None:
            return _tapped(session, request["tapped"])
        if asked := _read_again(session, request):
            return _ask_again(asked, [Turns(0)] * len(rods))
        heard = _heard(request, rods)
        if session.rounds and request.get("applied_turns") is not None:
            applied = [_turn(value) for value in _list(request, "applied_turns", len(rods))]
            session.turned(dict(zip(rods, applied, strict=True)))
        taken = round_of(session.layout, heard)
        step = session.take(taken)
        self.cases[case] = session
        return _shape(step, taken.pair)


def _tapped(session: ClearingSession, told: Any) -> dict[str, Any]:
    """Turn and tap: one rod turned by `turned`, then read."""
    if not isinstance(told, dict):
        raise BadQuantity("“tapped” is an object: rod, hz, turned, and partials where they are known.", tapped=told)
    rod, turned = told.get("rod"), told.get("turned", 0)
    if not isinstance(rod, int) or isinstance(rod, bool):
        raise BadQuantity("“rod” is the number of the rod that was tapped, from 1.", rod=rod)
    hz = _hertz(told.get("hz"))
    if hz is None:
        raise BadQuantity("“hz” is what the rod read.", hz=None)
    if session.rounds and rod in session.layout.rods and not told.get("sure"):
        last = {each: pitch.hz for each, pitch in session.rounds[-1].readings.items()}
        if asked := [each for each in misread({**last, rod: hz}, session.target.hz) if each.rod == rod]:
            left = session.turned_unread(rod, _turn(turned))
            return {"ask": "read-again", **_ask_again(asked, [left[each] for each in session.layout.rods])}
    Pitch(hz)
    partials = told.get("partials")
    heard = HeardRod(hz, tuple(_pairs(partials)) if isinstance(partials, list) else ())
    step = session.tapped(rod, Pitch(tapped_hz(heard)), _turn(turned))
    return {"ask": step.ask.value, **_shape(step, None)}


def _begin(request: Mapping[str, Any]) -> ClearingSession:
    step = Fraction(_number(request, "step_turns", 1 / 32, 1)).limit_denominator(32)
    prior = request.get("prior_hz_per_turn")
    layout = RodLayout(int(_number(request, "n_rods", 4, 16)))
    return ClearingSession(
        layout,
        Pitch(_number(request, "target_hz", 20, 2000)),
        Turns.from_fraction(step),
        None if prior is None else _number(request, "prior_hz_per_turn", 0.1, 5000),
        tally=_since_finger_tight(request, "counted_turns", layout.rods),
        meant=_meant(request, layout.rods),
    )


def _since_finger_tight(request: Mapping[str, Any], name: str, rods: Sequence[int]) -> dict[int, Turns] | None:
    """Turns since finger-tight before the first round, where they are told."""
    if request.get(name) is None:
        return None
    told = _list(request, name, len(rods))
    for each in told:
        if isinstance(each, bool) or not isinstance(each, int | float) or not math.isfinite(each) or abs(each) > 32:
            raise BadQuantity(f"In “{name}” turns since finger-tight are numbers from -32 to 32.", **{name: each})
    return dict(zip(rods, map(_steps, told), strict=True))


def _meant(request: Mapping[str, Any], rods: Sequence[int]) -> dict[int, Turns] | None:
    """What the plan asked of each rod since finger-tight."""
    meant = _since_finger_tight(request, "planned_turns", rods)
    if meant is not None and request.get("counted_turns") is None:
        raise BadQuantity("“planned_turns” say what “counted_turns” were meant to be; send both.", planned_turns=None)
    return meant


def _turn(value: Any) -> Turns:
    if value is None:
        return Turns(0)
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value) or abs(value) > 8:
        raise BadQuantity("Turns made are numbers from -8 to 8.", applied_turns=value)
    return _steps(value)


def _hertz(value: Any) -> float | None:
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise BadQuantity("A reading is a number in hertz, or null for a rod that was not heard.", readings_hz=value)
    return float(value)


def _reading(value: Any) -> float | None:
    hz = _hertz(value)
    return None if hz is None else Pitch(hz).hz


def _read_again(session: ClearingSession, request: Mapping[str, Any]) -> tuple[Misread, ...]:
    """Readings of a round that cannot be, but for the rods of which “sure” says that it is so."""
    rods = session.layout.rods
    told = zip(rods, _list(request, "readings_hz", len(rods)), strict=True)
    values = {rod: hz for rod, value in told if (hz := _hertz(value)) is not None}
    sure = request.get("sure")
    if sure is not None and (not isinstance(sure, list) or not set(map(str, sure)) <= set(map(str, rods))):
        raise BadQuantity("“sure” lists the rods whose readings are as they were sent.", sure=sure)
    as_asked = session.planned is not None and request.get("applied_turns") is None
    foretold = (
        {rod: each.value for rod, each in session.planned.predicted.items()} if session.planned and as_asked else None
    )
    return misread(values, session.target.hz, foretold, sure={int(each) for each in sure or ()})


def _ask_again(asked: Sequence[Misread], left: Sequence[Turns]) -> dict[str, Any]:
    """Nothing is turned by a reading that cannot be; the round is not taken, and is sent again."""
    words = " ".join(each.words for each in asked)
    return {
        "turns": [float(each.fraction) for each in left],
        "note": f"{words} Read again and send the round once more, or list the rod under “sure” if it is so.",
        "pair": None,
        "chance_even": 0.0,
        "chance_now": 0.0,
        "findings": [{"kind": "read-again", "rods": [each.rod], "words": each.words} for each in asked],
        "read_again": [
            {"rod": each.rod, "hz": each.value, "near_hz": round(each.near, 2), "perhaps_hz": each.perhaps}
            for each in asked
        ],
        "why": words,
    }


def _partials(request: Mapping[str, Any], count: int) -> list[tuple[tuple[float, float], ...]]:
    """(hz, amplitude) of what rang at each rod; anything else than pairs of numbers above nothing is passed over."""
    told = request.get("partials")
    if not isinstance(told, list) or len(told) != count:
        return [()] * count
    return [tuple(_pairs(each)) if isinstance(each, list) else () for each in told]


def _pairs(told: Sequence[Any]) -> Iterator[tuple[float, float]]:
    for each in told:
        if isinstance(each, list | tuple) and len(each) == 2:
            numbers = [v for v in each if isinstance(v, int | float) and not isinstance(v, bool) and 0 < v < math.inf]
            if len(numbers) == 2:
                yield float(numbers[0]), float(numbers[1])


def _heard(request: Mapping[str, Any], rods: Sequence[int]) -> dict[int, HeardRod]:
    """What was heard at each rod; null is a rod that was not."""
    readings = [_reading(value) for value in _list(request, "readings_hz", len(rods))]
    told = zip(rods, readings, _partials(request, len(rods)), strict=True)
    return {rod: HeardRod(hz, rang) for rod, hz, rang in told if hz is not None}


def _pair(found: PairHeard | None) -> dict[str, float] | None:
    if found is None:
        return None
    return {
        "lower_hz": round(found.lower_hz, 2),
        "upper_hz": round(found.upper_hz, 2),
        "axis_deg": round(math.degrees(found.axis_rad), 1),
    }


def _shape(step: Step, pair: PairHeard | None) -> dict[str, Any]:
    found = step.proposal
    more = {
        "pair": _pair(pair),
        "chance_even": round(found.chance_even, 3),
        "chance_now": round(found.chance_now, 3),
        "predicted_hz": [round(each.value, 2) for each in found.predicted.values()],
        "predicted_sd_hz": [round(each.sd, 2) for each in found.predicted.values()],
        "rounds_left": round(found.rounds_left, 1),
        "approach": found.approach,
        "tension_clear": found.tension.clear,
        "findings": [{"kind": f.kind, "rods": list(f.rods), "words": f.words} for f in found.findings],
        "why": found.why_round,
        "why_rods": list(found.why_rod.values()),
    }
    if step.done:
        return {"done": True, **more}
    turns = [float(each.fraction) for each in step.turns.values()]
    return {"turns": turns, "note": found.too_coarse, **more}
