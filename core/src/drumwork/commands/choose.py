"""`drumwork choose`: what head goes on. JSON on standard input, JSON out (docs/choose.md)."""

from __future__ import annotations

import argparse
from typing import Any

from drumwork.choosing import (
    BUDGETS,
    NEEDS,
    TIES,
    USES,
    WORDS,
    Choice,
    Spec,
    Wanted,
    WiresWanted,
    choose,
    choose_beater,
    choose_wires,
)
from drumwork.choosing.specs import DAMPINGS, FINISHES
from drumwork.commands.requests import Fields, answer_each, request
from drumwork.drums import DrumKind, Side
from drumwork.errors import BadRequest

__all__ = ["add", "wanted_of"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.set_defaults(run=_run)


def _named(text: str) -> str:
    return "-".join(text.replace("_", " ").replace("-", " ").casefold().split())


_OTHER_NAMES = {"school-general": "school", "drumset": "drum-set", "kit": "drum-set"}


def _mil(said: Fields) -> float | None:
    """Film of all plies together: a number, or plies as 7+7. A two-ply head of 8 mil or less was told per ply."""
    plies, value = said.whole("plies", 1, 4, 1), said.value.get("mil")
    if isinstance(value, str):
        try:
            value = sum(float(each) for each in value.split("+"))
        except ValueError:
            raise BadRequest(f"{said.name}.mil: give a number, or plies as 7+7.", field="mil") from None
        if not 1 <= value <= 40:
            raise BadRequest(f"{said.name}.mil: give 1 to 40 mil.", field="mil")
        return value
    mil = said.maybe_number("mil", 1, 40)
    return mil * plies if mil is not None and plies > 1 and mil <= 8 else mil


def _now(said: Fields) -> Spec:
    mesh = said.flag("mesh")
    finish = _named(said.text("finish", "clear")) or "clear"
    damping = _named(said.text("damping", "none")) or "none"
    for value, among, name in ((finish, FINISHES, "finish"), (damping, DAMPINGS, "damping")):
        if value not in among:
            raise BadRequest(
                f"{said.name}.{name}: “{value}” is not known. Choose one of: {', '.join(among)}.", field=name
            )
    mil = None if mesh else (_mil(said) or (14.0 if said.whole("plies", 1, 4, 1) > 1 else 10.0))
    return Spec(said.whole("plies", 1, 4, 1), mil, finish, damping, said.flag("vent"), mesh)


def _kind(drum: Fields) -> DrumKind:
    return DrumKind(drum.one_of("kind", [each.value for each in DrumKind]))


def _use(said: Fields) -> str:
    use = _named(said.text("use", "drum-set"))
    use = _OTHER_NAMES.get(use, use)
    if use not in USES:
        raise BadRequest(f"use: “{use}” is not known. Choose one of: {', '.join(USES)}.", field="use")
    return use


def _list(said: Fields, name: str, among: tuple[str, ...]) -> tuple[str, ...]:
    found = tuple(_named(each) for each in said.texts(name))
    for each in found:
        if each not in among:
            raise BadRequest(f"{name}: “{each}” is not known. Choose among: {', '.join(among)}.", field=name)
    return found


def wanted_of(asked: Any) -> Wanted:
    """The question a request asks.

    Raises
    ------
    BadRequest
        naming the field that is missing, of the wrong kind, or not known.
    """
    said = Fields(asked)
    drum = said.object("drum")
    return Wanted(
        _kind(drum),
        Side(said.one_of("side", [each.value for each in Side], "batter")),
        _use(said),
        drum.maybe_number("diameter_in", 3, 60),
        drum.maybe_number("depth_in", 1, 60),
        drum.whole("rods", 0, 99, 8),
        drum.flag("snare_bed"),
        _list(said, "sound", tuple(WORDS)),
        _list(said, "needs", NEEDS),
        _now(said.object("now")) if said.has("now") else None,
        said.one_of("budget", list(BUDGETS), "any"),
    )


def _wires(said: Fields) -> dict[str, Any]:
    """`"side": "wires"`: which snare wires. `strainer` lists what it clamps."""
    drum = said.object("drum")
    found = choose_wires(
        WiresWanted(
            _kind(drum),
            drum.maybe_number("diameter_in", 3, 60),
            _use(said),
            _list(said, "sound", tuple(WORDS)),
            _list(said, "needs", NEEDS),
            _list(said, "strainer", TIES),
            drum.maybe_number("bed_in", 3, 60),
        )
    )
    return {
        "answers": [
            {
                "strands": each.spec.strands, "made": each.spec.made, "tie": each.spec.tie, "words": each.spec.words,
                "for": list(each.speaks_for), "against": list(each.speaks_against), "rules": list(each.rules),
            }
            for each in found.answers
        ],
        "excluded": [{"spec": {"words": each.spec.words}, "because": each.because, "rule": each.rule} for each in found.excluded],
    }  # fmt: skip


def _beater(said: Fields) -> dict[str, Any]:
    """`"side": "beater"`: which beater on which patch."""
    head = _now(said.object("now")) if said.has("now") else None
    answers, out = choose_beater(_kind(said.object("drum")), _list(said, "sound", tuple(WORDS)), head)
    return {
        "answers": [
            {"beater": each.beater.id, "patch": each.patch.id, "for": list(each.speaks_for), "against": list(each.speaks_against)}
            for each in answers
        ],
        "excluded": [{"spec": {"words": words}, "because": because} for words, because in out],
    }  # fmt: skip


def _spec(spec: Spec) -> dict[str, Any]:
    return {
        "plies": spec.plies,
        "mil": spec.mil,
        "finish": spec.finish,
        "damping": spec.damping,
        "vent": spec.vent,
        "mesh": spec.mesh,
    }


def _told(found: Choice) -> dict[str, Any]:
    return {
        "answers": [
            {
                **_spec(each.spec),
                "words": each.spec.words,
                "for": list(each.speaks_for),
                "against": list(each.speaks_against),
                "rules": list(each.rules),
                "changes": each.changes,
            }
            for each in found.answers
        ],
        "excluded": [
            {"spec": {**_spec(each.spec), "words": each.spec.words}, "because": each.because, "rule": each.rule}
            for each in found.excluded
        ],
    }


def _run(args: argparse.Namespace) -> None:
    answer_each(request(), _answer)


def _answer(asked: Any) -> dict[str, Any]:
    said = Fields(asked)
    other = {"wires": _wires, "beater": _beater}.get(str(said.value.get("side")))
    return other(said) if other else _told(choose(wanted_of(asked)))
