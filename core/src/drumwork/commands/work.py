"""`drumwork work`: the catalogue, and the plan a piece of work comes to on one drum."""

from __future__ import annotations

import argparse
import json
import re
from collections.abc import Sequence
from dataclasses import dataclass, fields
from enum import StrEnum
from typing import Any, get_type_hints

from drumwork.commands.findings import vocabulary
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import BadEvent, BadFinding, UnknownWork
from drumwork.findings import FINDINGS, Place, finding, require_place
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.quantities.turns import parse_turns
from drumwork.rods.layout import RodLayout
from drumwork.work.cautions import CAUTIONS
from drumwork.work.hand import begun_as
from drumwork.work.kinds.steps import Passes, Rest
from drumwork.work.making import came, make_plan
from drumwork.work.plan import DrumFacts, Part, Plan, StepPlan
from drumwork.work.tags import TAGS
from drumwork.work.ways import Ways

__all__ = ["add"]

_SCHOOLS: dict[str, type[StrEnum]] = {
    name: hint for name, hint in get_type_hints(Ways).items() if isinstance(hint, type) and issubclass(hint, StrEnum)
}
_YES = {"yes": True, "no": False}


@dataclass(frozen=True, slots=True)
class _Thing:
    """Something said to be found, for the plan's conditions."""

    finding: str
    degree: int
    place: Place


def add(parser: argparse.ArgumentParser) -> None:
    what = parser.add_subparsers(dest="what", required=True)
    listing = what.add_parser("list", help="every piece of work, and the kinds of drum it suits")
    listing.add_argument("--kind", help="only for this kind of drum, with the reason where it does not suit")
    listing.add_argument("--rods", type=int, default=8, help="rods of the drum asked about (default 8)")
    listing.add_argument("--json", action="store_true")
    listing.set_defaults(run=_list)
    words = what.add_parser("words", help="tags, cautions and findings by id")
    words.add_argument("--json", action="store_true")
    words.set_defaults(run=_words)
    plan = what.add_parser("plan", help="the steps of one piece of work on a drum")
    plan.add_argument("--work", required=True, help=f"one of {', '.join(CATALOGUE)}")
    plan.add_argument("--kind", required=True, help=f"one of {', '.join(kind.value for kind in DrumKind)}")
    plan.add_argument("--rods", type=int, required=True, help="rods of the batter side, 4 to 16 (0 for rope)")
    plan.add_argument("--rods-resonant", type=int, help="rods of the resonant side; without it as many as the batter's")
    plan.add_argument("--part", help="what it is done to, where the work leaves a choice")
    plan.add_argument("--lost", type=int, nargs="*", default=[], help="rods missing on the batter side")
    plan.add_argument("--lost-resonant", type=int, nargs="*", default=[], help="rods missing on the resonant side")
    plan.add_argument("--bed", type=int, nargs="*", default=[], help="rods beside the snare bed")
    plan.add_argument("--port", type=int, nargs="*", default=[], help="rods beside a port")
    plan.add_argument("--school", nargs="*", default=[], metavar="NAME=VALUE", help="ways of the workshop")
    plan.add_argument(
        "--found", nargs="*", default=[], metavar="ID[@PLACE]", help="found on the way: edge-chipped@batter, rod-bent@3"
    )
    plan.add_argument(
        "--now",
        nargs="*",
        default=[],
        metavar="NAME=VALUE",
        help="the drum as the job finds it, where it is not as a player leaves it: up=resonant batter=off wires=none",
    )
    plan.add_argument("--json", action="store_true")
    plan.set_defaults(run=_plan)


def _kind(name: str) -> DrumKind:
    try:
        return DrumKind(name)
    except ValueError:
        names = ", ".join(kind.value for kind in DrumKind)
        raise UnknownWork(f"There is no kind of drum “{name}”. Choose one of: {names}.", kind=name) from None


def _drum(
    kind: DrumKind,
    rods: int,
    resonant: int | None = None,
    lost: Sequence[int] = (),
    lost_resonant: Sequence[int] = (),
    bed: Sequence[int] = (),
    port: Sequence[int] = (),
) -> DrumFacts:
    if not traits_of(kind).rods:
        return DrumFacts(kind, {})
    count = rods if resonant is None else resonant
    layouts = {
        Side.BATTER: RodLayout(rods, frozenset(lost)),
        Side.RESONANT: RodLayout(count, frozenset(lost_resonant), frozenset(bed), frozenset(port)),
    }
    return DrumFacts(kind, layouts, snare_bed=traits_of(kind).wires, port=bool(port))


def _ways(said: Sequence[str]) -> Ways:
    """Schools as typed, name=value.

    Raises
    ------
    BadEvent
        for a way or a value that does not exist, naming those that do.
    """
    chosen: dict[str, Any] = {}
    names = [each.name for each in fields(Ways) if each.name not in ("even", "a4_hz")]
    for each in said:
        name, _, value = each.partition("=")
        if name not in names:
            raise BadEvent(f"There is no way “{name}”. Choose among: {', '.join(names)}.", way=name)
        if name in _SCHOOLS:
            if value not in [str(one) for one in _SCHOOLS[name]]:
                known = ", ".join(str(one) for one in _SCHOOLS[name])
                raise BadEvent(f"“{name}” is one of: {known}.", way=name, value=value)
            chosen[name] = _SCHOOLS[name](value)
        elif name == "step":
            chosen[name] = parse_turns(value)
        elif name == "rest_minutes":
            if not value.isdecimal() or not 1 <= int(value) <= 2880:
                raise BadEvent("A rest has a number of minutes, 1 to 2880.", value=value)
            chosen[name] = int(value)
        elif value in _YES:
            chosen[name] = _YES[value]
        else:
            raise BadEvent(f"“{name}” is yes or no.", way=name, value=value)
    return Ways(**chosen)


def _found(said: Sequence[str], drum: DrumFacts, part: Part) -> list[_Thing]:
    """Findings as typed: `id`, `id@rod`, `id@side` or `id@side:rod`; without a side the first of the work."""
    first = part.sides[0].value if part.sides else ""
    things = []
    for each in said:
        known, _, at = each.partition("@")
        side, rod = first, None
        for word in at.split(":") if at else ():
            if word in [one.value for one in Side]:
                side = word
            elif word.isdecimal():
                rod = int(word)
            else:
                raise BadFinding(f"“{word}” is no place: give a side, a rod, or both as batter:3.", place=word)
        kind = finding(known)
        if kind.where == "rod" and rod is None:
            raise BadFinding(f"Say at which rod: {known}@3.", finding=known)
        place = Place(side, rod)
        require_place(kind, drum.kind, {one.value: drum.layouts.get(one) for one in Side}, place)
        things.append(_Thing(known, 3 if kind.degrees else 2, place))
    return things


def _step(step: StepPlan, plan: Plan, found: Sequence[_Thing]) -> dict[str, Any]:
    data = step.data
    gone = {t.place.rod for t in found if t.finding == "rod-missing" and step.side and t.place.side == step.side.value}
    passes = data.passes if isinstance(data, Passes) else ()
    return {
        "id": step.id,
        "kind": step.kind,
        "side": step.side.value if step.side else None,
        "title": step.title,
        "say": step.say,
        "points": list(step.said(found)),
        "cautions": list(step.cautions),
        "tools": list(step.takes(found)),
        "does": list(step.does),
        "cites": list(step.cites),
        "why": step.why,
        "before": step.before.told() if step.before else None,
        "picture": step.picture or None,
        "passes": [
            {"turns": float(each.each.fraction), "order": [rod for rod in each.order if rod not in gone], "until": each.until}
            for each in passes
        ],
        "minutes": data.minutes if isinstance(data, Rest) else None,
    }  # fmt: skip


def _plan(args: argparse.Namespace) -> None:
    work = work_named(args.work)
    kind = _kind(args.kind)
    drum = _drum(kind, args.rods, args.rods_resonant, args.lost, args.lost_resonant, args.bed, args.port)
    parts = {part.value: part for part in work.parts}
    if args.part and args.part not in parts:
        raise UnknownWork(f"“{work.id}” is done to: {', '.join(parts)}.", part=args.part)
    part = parts[args.part] if args.part else work.parts[0]
    said = dict(each.partition("=")[::2] for each in args.now)
    plan = make_plan(work, part, drum, _ways(args.school), begun=begun_as(came(drum), said) if said else None)
    found = _found(args.found, drum, part)
    steps = [_step(step, plan, found) for step in plan.steps if step.shows(found)]
    if args.json:
        print(
            json.dumps(
                {"work": plan.work, "version": plan.version, "part": part.value, "steps": steps}, ensure_ascii=False
            )
        )
        return
    for number, step in enumerate(steps, start=1):
        print(f"{number}. {step['title']}: {step['say']}")
        for caution in step["cautions"]:
            print(f"     ! {CAUTIONS[caution]}")
        for point in step["points"]:
            print(f"     - {point}")
        print(f"     why: {step['why']}")


def _list(args: argparse.Namespace) -> None:
    kinds = [_kind(args.kind)] if args.kind else list(DrumKind)
    rows: list[dict[str, Any]] = []
    for work in CATALOGUE.values():
        why = {kind.value: work.why_not(_drum(kind, args.rods), work.parts[0]) for kind in kinds}
        rows.append(
            {
                "id": work.id,
                "version": work.version,
                "title": re.sub(r",? ?\{part\}", "", work.title.replace("{heads}", "head")),
                "parts": [part.value for part in work.parts],
                "suits": [kind for kind, reason in why.items() if not reason],
                "why_not": {kind: reason for kind, reason in why.items() if reason},
            }
        )
    if args.json:
        print(json.dumps(rows, ensure_ascii=False))
        return
    for row in rows:
        suits, why_not = row["suits"], row["why_not"]
        print(f"{row['id']}\t{row['title']}\t{', '.join(suits) or next(iter(why_not.values()))}")


def _words(args: argparse.Namespace) -> None:
    answer = {
        "tags": list(TAGS),
        "cautions": dict(CAUTIONS),
        "schools": {name: [str(one) for one in of] for name, of in _SCHOOLS.items()},
        "findings": vocabulary(),
    }
    if args.json:
        print(json.dumps(answer, ensure_ascii=False))
        return
    for each in FINDINGS.values():
        print(f"{each.id}\t{each.where.value}\t{each.words}\t{each.answer}")
