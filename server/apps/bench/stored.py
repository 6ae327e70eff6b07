"""Plans and entries as they lie in the database: every shape has its version, and an older one is brought up step by step."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import cache
from typing import Any, Final

from cattrs import Converter

from drumwork.errors import BadEvent
from drumwork.quantities import Interval, Turns
from drumwork.rods.layout import RodLayout
from drumwork.work.conditions import Condition, condition_from, condition_to
from drumwork.work.effects import EFFECTS, Effect
from drumwork.work.kinds.registry import ENTRY_KINDS
from drumwork.work.kinds.steps import STEP_DATA, StepData
from drumwork.work.log import Entry
from drumwork.work.plan import Plan
from drumwork.work.ways import Grease
from drumwork.work.words import Point

__all__ = [
    "ENTRY_VERSION",
    "PLAN_SHAPE",
    "entry_from",
    "entry_of_device",
    "entry_to",
    "plan_from",
    "plan_to",
    "upcast_entry",
]

PLAN_SHAPE: Final = 6
ENTRY_VERSION: Final = Entry.version


@cache
def _converter() -> Converter:
    made = Converter()
    made.register_unstructure_hook(Turns, lambda turns: turns.thirtyseconds)
    made.register_structure_hook(Turns, lambda stored, _: Turns(stored))
    made.register_unstructure_hook_func(
        lambda t: isinstance(t, type) and issubclass(t, Condition), lambda when: condition_to(when)
    )
    made.register_structure_hook_func(
        lambda t: isinstance(t, type) and issubclass(t, Condition), lambda stored, _: condition_from(stored)
    )
    made.register_unstructure_hook(Point, lambda point: {"text": point.text, "when": condition_to(point.when)})
    made.register_structure_hook(Point, lambda stored, _: Point(stored["text"], condition_from(stored["when"])))
    made.register_unstructure_hook(RodLayout, _layout_to)
    _by_kind(made, StepData, tuple(STEP_DATA.values()))
    _by_kind(made, Effect, EFFECTS)
    return made


@cache
def _entry_converter() -> Converter:
    """Entries that brought a new plan hold it with its shape."""
    made = _converter().copy()
    made.register_unstructure_hook(Plan, lambda plan: {"shape": PLAN_SHAPE, **plan_to(plan)})
    made.register_structure_hook(
        Plan, lambda stored, _: plan_from({k: v for k, v in stored.items() if k != "shape"}, stored["shape"])
    )
    return made


def _by_kind(made: Converter, union: Any, of: Iterable[type]) -> None:
    """Classes of a union told apart by their `kind`."""
    known = {each.__dataclass_fields__["kind"].default: each for each in of}  # type: ignore[attr-defined]
    made.register_structure_hook(union, lambda stored, _: made.structure(stored, known[stored["kind"]]))
    made.register_unstructure_hook(union, lambda value: made.unstructure(value, unstructure_as=type(value)))


def _layout_to(layout: RodLayout) -> dict[str, Any]:
    return {
        "count": layout.count,
        "lost": sorted(layout.lost),
        "beside_bed": sorted(layout.beside_bed),
        "beside_port": sorted(layout.beside_port),
    }


def plan_to(plan: Plan) -> dict[str, Any]:
    """A plan as it is kept with its job."""
    stored: dict[str, Any] = _converter().unstructure(plan, unstructure_as=Plan)
    return stored


def _more_schools(plan: dict[str, Any]) -> dict[str, Any]:
    """1 to 2: a tool says when it is taken; grease is one of four ways. Ways nobody was asked for yet stand at their usual."""
    steps = [{**step, "tools": [{"text": tool, "when": True} for tool in step["tools"]]} for step in plan["steps"]]
    ways = {**plan["ways"], "grease": Grease.DRY if plan["ways"]["grease_dry_threads"] else Grease.NEVER}
    del ways["grease_dry_threads"]
    return {**plan, "steps": steps, "ways": ways}


def _questions(plan: dict[str, Any]) -> dict[str, Any]:
    """2 to 3: steps ask and recall; a plan keeps the workshop's lists it asked among, and what was learned of a rope."""
    steps = [{**step, "asks": [], "recalls": []} for step in plan["steps"]]
    return {
        **plan,
        "steps": steps,
        "lists": {},
        "drum": {**plan["drum"], "rope_passes": [], "diameter_m": None, "depth_m": None},
    }


def _as_the_drum_wants(plan: dict[str, Any]) -> dict[str, Any]:
    """3 to 4: “resonant first” was obeyed on toms only, which is now said as it is; no new head was left above its pitch from the start."""
    ways = plan["ways"]
    first = "usual" if ways["first_head"] == "resonant" else ways["first_head"]
    return {**plan, "ways": {**ways, "first_head": first}, "above_cents": {}}


def _told_why(plan: dict[str, Any]) -> dict[str, Any]:
    """4 to 5: a step says why, and how it finds the drum; older plans did not know."""
    return {**plan, "steps": [{**step, "why": "", "before": None} for step in plan["steps"]]}


def _in_its_lengths(plan: dict[str, Any]) -> dict[str, Any]:
    """5 to 6: sentences say lengths as the workshop writes them, until then in millimetres; a stick may lie under the wires."""
    steps = [
        {**step, "before": {**step["before"], "stick": False} if step["before"] else None} for step in plan["steps"]
    ]
    return {**plan, "ways": {**plan["ways"], "lengths": "mm"}, "steps": steps}


_PLAN_UPCASTS: Final[Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]]] = {
    1: _more_schools,
    2: _questions,
    3: _as_the_drum_wants,
    4: _told_why,
    5: _in_its_lengths,
}
"""From the shape of that number to the next. Shape 1 is the first that was kept."""


def plan_from(stored: Mapping[str, Any], shape: int) -> Plan:
    """A plan as it was kept.

    Raises
    ------
    BadEvent
        for a shape this server does not know, which a newer one wrote.
    """
    now = dict(stored)
    for step in range(shape, PLAN_SHAPE):
        now = _PLAN_UPCASTS[step](now)
    if not 1 <= shape <= PLAN_SHAPE:
        raise BadEvent(
            "This job was begun by a newer version of Red Tally; nothing is lost. Update this server.", shape=shape
        )
    return _converter().structure(now, Plan)


def entry_to(entry: Entry) -> dict[str, Any]:
    """An entry as it is stored: its kind and its fields, SI beside what was typed."""
    return {"kind": entry.kind, **_entry_converter().unstructure(entry)}


def entry_from(stored: Mapping[str, Any], version: int) -> Entry:
    """An entry as it was stored.

    Raises
    ------
    BadEvent
        for a kind or a version this server does not know, which a newer one wrote.
    """
    if version != ENTRY_VERSION or stored["kind"] not in ENTRY_KINDS:
        raise BadEvent(
            "This job has entries of a newer version of Red Tally; nothing is lost. Update this server.",
            kind=stored["kind"],
            version=version,
        )
    fields = {name: value for name, value in stored.items() if name != "kind"}
    entry: Entry = _entry_converter().structure(fields, ENTRY_KINDS[stored["kind"]])
    return entry


def entry_of_device(body: Mapping[str, Any], a4_hz: float) -> Entry:
    """An entry as a device sent it, its typed text read.

    Raises
    ------
    BadQuantity
        for typed text that cannot be read.
    """
    return entry_from(body, ENTRY_VERSION).read(a4_hz)


_AT_CLEAR: Final = ("reading", "order", "centre", "whole", "plan")


def upcast_entry(body: Mapping[str, Any]) -> dict[str, Any]:
    """Version 1 to 2. In version 1 a job had one clearing step named “clear” and one rest named “rest”, and turned one rod an entry."""
    now = dict(body)
    match body["kind"]:
        case "turned" | "skipped":
            turns = now.pop("turns_32", None)
            now |= {"kind": "turned", "made": [{"rod": now.pop("rod"), "turns_32": turns}]}
        case "rest":
            now["step"] = "rest"
        case kind if kind in _AT_CLEAR:
            now["step"] = "clear"
    if now["kind"] == "plan" and now.get("found"):
        now["found"] = _plan_found(now["found"])
    return now


_HZ_NAMES: Final = ("wanted", "spread", "allowed", "mean", "predicted_spread", "predicted_mean")


def _plan_found(stored: Mapping[str, Any]) -> dict[str, Any]:
    """What a plan found: turns by their name, and plans of before there were other means than pitch filled up."""
    now = _of_pitch_alone(stored)
    now["turns_32"] = now.pop("turns")
    return now


def _of_pitch_alone(stored: Mapping[str, Any]) -> dict[str, Any]:
    if "predicted_hz" not in stored:
        return dict(stored)
    hz, sd, wanted = stored["predicted_hz"], stored["predicted_sd_hz"], stored["wanted_hz"]
    kept = {name: stored[name] for name in ("turns", "clear", "verdict", "why_round", "why_rod", "too_coarse")}
    none = dict.fromkeys(hz, 0.0)
    return (
        kept
        | {name: stored[f"{name}_hz"] for name in _HZ_NAMES}
        | {
            "means": "pitch",
            "unit": "Hz",
            "predicted": hz,
            "predicted_sd": sd,
            "predicted_cents": {rod: Interval.from_ratio(value / wanted).cents for rod, value in hz.items()},
            "predicted_sd_cents": {rod: Interval.from_ratio(1 + sd[rod] / hz[rod]).cents for rod in hz},
            "read_cents": {},
            "approach": "",
            "rounds_left": 0.0,
            "chance_even": 0.0,
            "modal": 0.0,
            "findings": [],
            "pull": {"by_pitch": none, "unheard": none, "sd": none, "told_by": [], "clear": False, "words": ""},
        }
    )
