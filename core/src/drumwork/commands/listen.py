"""`drumwork listen`: the pitch a tap settles at, from sound files."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Mapping
from pathlib import Path
from typing import Any, Final

from drumwork.commands.edges import read_json
from drumwork.commands.sound_files import read_sound
from drumwork.errors import BadQuantity, BadSound, DrumworkError
from drumwork.listening import Other, TapContext, TapReading, Where, listen_to_tap, split_taps, usual_edge_hz
from drumwork.membrane import Film
from drumwork.quantities import Length

__all__ = ["add"]

CONTEXT: Final = (
    "expect_hz", "centre_hz", "pair_hz", "other", "other_hz", "other_muted", "diameter_in", "diameter_mm", "depth_in", "depth_mm", "film_mil", "film_plies",
    "film_coated", "kind", "at",
)  # fmt: skip


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("files", nargs="*", metavar="FILE")
    parser.add_argument("--batch", metavar="-", choices=["-"], help="JSON lines in, one JSON answer a line out")
    parser.add_argument("--expect-hz", type=float, help="about what it should read")
    parser.add_argument("--centre-hz", type=float, help="the drum's note in the middle")
    parser.add_argument("--pair-hz", type=float, help="with --at centre: what the rods read")
    parser.add_argument("--other-hz", type=float, help="the other head’s pitch, so that it is not taken for this one’s")
    parser.add_argument(
        "--other", choices=[each.value for each in Other], help="how the other head is kept while this one is tapped"
    )
    parser.add_argument(
        "--other-muted", action="store_true", default=None, help="the same as --other held: it lies on a cloth"
    )
    size = parser.add_mutually_exclusive_group()
    size.add_argument("--diameter-in", type=float)
    size.add_argument("--diameter-mm", type=float)
    depth = parser.add_mutually_exclusive_group()
    depth.add_argument("--depth-in", type=float, help="of the shell")
    depth.add_argument("--depth-mm", type=float)
    parser.add_argument(
        "--film-mil", type=float, help="thickness of the head’s film, all plies together, in thousandths of an inch"
    )
    parser.add_argument("--film-plies", type=int)
    parser.add_argument("--film-coated", action="store_true", default=None)
    parser.add_argument(
        "--kind", choices=["snare", "tom", "bass"], default="tom", help="with a diameter: what kind of drum"
    )
    parser.add_argument("--at", choices=[each.value for each in Where], default=Where.EDGE.value)
    parser.add_argument("--taps", action="store_true", help="several taps in a file: read each")
    parser.add_argument("--json", action="store_true", help="one JSON object a line")
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
    if args.batch:
        _serve(args)
        return
    if not args.files:
        raise BadQuantity("Name one or more sound files, or --batch -.")
    known = _context({name: getattr(args, name) for name in CONTEXT})
    missing = [name for name in args.files if not Path(name).is_file()]
    for name in args.files:
        for answer in _taps(name, known) if args.taps else [_answer(name, known)]:
            print(json.dumps(answer, ensure_ascii=False) if args.json else _words(answer))
    if missing:
        raise BadSound(f"There is no file {missing[0]}.", file=missing[0])


def _serve(args: argparse.Namespace) -> None:
    """Answer every line in order; a bad one gets an answer too and the next is read."""
    for line in sys.stdin:
        if line.strip():
            print(json.dumps(_one(line), ensure_ascii=False), flush=True)


def _one(line: str) -> dict[str, Any]:
    try:
        request = read_json(line)
    except json.JSONDecodeError as error:
        return _refused(None, f"This line is not JSON: {error.msg}.")
    if not isinstance(request, dict) or not isinstance(request.get("file"), str):
        return _refused(None, "A request is one JSON object with “file”.")
    try:
        known = _context(request)
    except DrumworkError as error:
        return _refused(request["file"], error.message)
    return _answer(request["file"], known)


def _number(request: Mapping[str, Any], name: str) -> float | None:
    value = request.get(name)
    if value is None:
        return None
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise BadQuantity(f"“{name}” is a number or null.", **{name: value})
    return float(value)


def _length(request: Mapping[str, Any], name: str) -> Length | None:
    inches, mm = _number(request, f"{name}_in"), _number(request, f"{name}_mm")
    return Length.from_inches(inches) if inches else Length.from_mm(mm) if mm else None


def _film(request: Mapping[str, Any]) -> float | None:
    """Weight of the head in hand, where its film is known."""
    mil = _number(request, "film_mil")
    if mil is None:
        return None
    plies = _number(request, "film_plies")
    return Film.from_mil(mil, int(plies or 1), request.get("film_coated") is True).density_kg_per_m2


def _other(request: Mapping[str, Any]) -> Other | None:
    """How the other head is kept; `other_muted` tells as much of it as held or not."""
    said = request.get("other")
    if said is None:
        muted = request.get("other_muted")
        return None if muted is None else Other.HELD if muted is True else Other.RINGS
    if said not in {each.value for each in Other}:
        raise BadQuantity("“other” is rings, held or none.", other=said)
    return Other(said)


def _context(request: Mapping[str, Any]) -> TapContext:
    size = _length(request, "diameter")
    at = request.get("at") or Where.EDGE
    if at not in {each.value for each in Where}:
        raise BadQuantity("“at” is edge or centre.", at=at)
    usual = usual_edge_hz(size, request.get("kind") or "") if size and at == Where.EDGE else None
    return TapContext(
        expect_hz=_number(request, "expect_hz"),
        centre_hz=_number(request, "centre_hz"),
        diameter=size,
        at=Where(at),
        pair_hz=_number(request, "pair_hz"),
        other=_other(request),
        other_hz=_number(request, "other_hz"),
        usual_hz=usual,
        depth=_length(request, "depth"),
        film_kg_per_m2=_film(request),
    )


def _refused(name: str | None, reason: str) -> dict[str, Any]:
    return {
        "file": name, "status": "refuse", "hz": None, "cents_sigma": None, "reason": reason, "partials": [], "strength_db": None,
        "glide_cents": None, "onset_s": None, "chance": None, "second": None, "ask": None,
    }  # fmt: skip


def _shape(name: str, found: TapReading, from_s: float = 0.0) -> dict[str, Any]:
    return {
        "file": name,
        "status": found.status.value,
        "hz": round(found.hz, 3) if found.hz else None,
        "cents_sigma": round(found.cents_sigma, 2) if found.cents_sigma else None,
        "reason": found.reason,
        "partials": [
            {"hz": round(p.hz, 3), "level_db": round(p.level_db, 1), "decay_db_s": round(p.decay_db_s, 1)}
            for p in found.partials
        ],
        "strength_db": round(found.strength_db, 1),
        "glide_cents": round(found.glide_cents, 1),
        "onset_s": round(from_s + found.onset_s, 3),
        "chance": round(found.chance, 3) if found.hz else None,
        "second": {"hz": round(found.second.hz, 3), "chance": round(found.second.chance, 3)} if found.second else None,
        "ask": found.ask.value if found.ask else None,
    }


def _answer(name: str, known: TapContext) -> dict[str, Any]:
    try:
        samples, rate = read_sound(Path(name))
        return _shape(name, listen_to_tap(samples, rate, known))
    except DrumworkError as error:
        return _refused(name, error.message)


def _taps(name: str, known: TapContext) -> list[dict[str, Any]]:
    try:
        samples, rate = read_sound(Path(name))
        cuts = split_taps(samples, rate)
        return [_shape(name, listen_to_tap(cut.samples, rate, known), cut.from_s) for cut in cuts]
    except DrumworkError as error:
        return [_refused(name, error.message)]


def _words(answer: Mapping[str, Any]) -> str:
    if answer["hz"] is None:
        return f"{answer['file']}: refused, {answer['reason']}"
    doubt = f"; {answer['reason']}" if answer["reason"] else ""
    return f"{answer['file']}: {answer['hz']:.2f} Hz ± {1.96 * answer['cents_sigma']:.1f} cents{doubt}"
