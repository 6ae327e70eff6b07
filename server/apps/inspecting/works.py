"""A walk's end: what it comes to, the work to plan with the heads that fit, and what is to be bought."""

from __future__ import annotations

import uuid
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from datetime import timedelta
from typing import Any, Final

from django.db import transaction
from django.db.models import Count, QuerySet
from django.utils import timezone

from apps.heads.models import Fitting, HeadLine, StockItem
from apps.heads.wires import WIRES, fitting_wires
from apps.inspecting.models import Verdict, Walk, WalkDrum
from apps.inspecting.record import fitted_on
from apps.inspecting.schemas import (
    BuyLine,
    HeadChoice,
    PlanIn,
    PlannedOut,
    PlanWork,
    TakeBackIn,
    ToPlan,
    WalkSum,
)
from apps.planned.flows import Wanted, drop, plan_work
from apps.planned.models import PlannedJob
from apps.planned.schemas import shape_planned
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, SAME_SIZE_M, length_words, size_words
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from drumwork.deciding import Verdict as Said
from drumwork.errors import DrumworkError
from drumwork.inspecting import takes_new_wires
from drumwork.procedures.catalogue import work_named
from drumwork.shelf import Sort
from drumwork.work.plan import Part

__all__ = ["plan_walk", "sum_of", "take_back"]

_NUMBERS: Final = (
    "no",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
)


def _number(count: int) -> str:
    return _NUMBERS[count] if count < len(_NUMBERS) else str(count)


def _many(count: int, one: str, more: str) -> str:
    return f"{_number(count)} {one if count == 1 else more}"


class _Shelf:
    """The heads on the shelf that fit, with how many of each are free."""

    def __init__(self) -> None:
        rows = (
            StockItem.objects.filter(sort=Sort.HEAD, used=False)
            .select_related("line")
            .annotate(promised=Count("promises"))
        )
        self.rows = [(row, max(0, row.count - row.promised)) for row in rows]
        self.lines = {line.name: line for line in HeadLine.objects.all()}
        self.sets = list(
            StockItem.objects.filter(sort=Sort.WIRES, used=False)
            .select_related("wires", "line")
            .annotate(promised=Count("promises"))
        )

    def _unlike(self, head: str, now: str) -> tuple[bool, bool, float]:
        """How far a line is from the one that is on: other plies, another finish, more or less film."""
        one, other = self.lines[head], self.lines.get(now)
        if other is None:
            return (False, False, 0.0)
        return (one.plies != other.plies, one.finish != other.finish, abs(one.film_mil - other.film_mil))

    def fitting(self, drum: Drum, side: str, now: str) -> list[HeadChoice]:
        """Those of its size for this side: the line that is on first, then what is free, the likest to it first."""
        found = [
            HeadChoice(stock_item=row.pk, head=row.named, free=free, shelf=row.shelf, same=row.named == now)
            for row, free in self.rows
            if abs(row.width_m - drum.diameter_m) <= SAME_SIZE_M and row.head.side in (side, "either")
        ]
        return sorted(found, key=lambda each: (not each.same, each.free == 0, self._unlike(each.head, now), each.head))

    def wires(self, drum: Drum, now: str) -> tuple[str, int]:
        """The set that would go under this drum, by its name, and how many of it are free."""
        found = fitting_wires(drum, now, self.sets)
        return (f"{found[0][0].named}, wires", max(0, found[0][1])) if found else ("snare wires", 0)


def _works(row: Verdict) -> list[dict[str, Any]]:
    """The work that answers a verdict; turning it over is for tonight and is not planned with the rest."""
    return [work for work in row.told["works"] if not work.get("tonight")]


def _buying(plans: Sequence[ToPlan], drums: Mapping[str, Drum], shelf: _Shelf, unit: str) -> list[BuyLine]:
    """What the shelf does not have for all of it: heads of the line that is on, and sets of wires."""
    wanted: dict[tuple[str, float, str], list[str]] = defaultdict(list)
    free: dict[tuple[str, float, str], int] = {}
    for plan in plans:
        for work in plan.works:
            if work.new_wires:
                named, there = shelf.wires(drums[plan.tag], plan.now.get(WIRES, ""))
                key = (named, drums[plan.tag].diameter_m, WIRES)
                wanted[key].append(plan.tag)
                free[key] = there
            for side in work.new_heads:
                choices = plan.heads.get(side.value, [])
                best = next((each for each in choices if each.free), choices[0] if choices else None)
                key = (
                    best.head if best else plan.now.get(side.value) or f"{side.value} head",
                    drums[plan.tag].diameter_m,
                    side.value,
                )
                wanted[key].append(plan.tag)
                free[key] = best.free if best else 0
    return [
        BuyLine(what=f"{head}, {length_words(diameter, unit)} {unit}", count=len(tags) - free[head, diameter, side], drums=tags[free[head, diameter, side]:])
        for (head, diameter, side), tags in sorted(wanted.items())
        if len(tags) > free[head, diameter, side]
    ]  # fmt: skip


def _still_to_buy(drums: Mapping[str, Drum], fitted: Mapping[int, Mapping[str, Fitting]], unit: str) -> list[BuyLine]:
    """What planned jobs of these drums wait for: heads nobody promised them, and wires."""
    wanted: dict[str, list[str]] = defaultdict(list)
    for row in _planned_for(drums.values()):
        if takes_new_wires(row.work, Part(row.part)) and WIRES not in row.heads:
            size = f"{length_words(row.drum.diameter_m, unit)} {unit}"
            wanted[f"snare wires, {size}"].append(row.drum.tag)
        for side in Part(row.part).sides if work_named(row.work).changes_heads else ():
            if side.value not in row.heads:
                on = fitted[row.drum_id].get(side.value)
                size = f"{length_words(row.drum.diameter_m, unit)} {unit}"
                wanted[f"{on.head if on else f'{side.value} head'}, {size}"].append(row.drum.tag)
    return [BuyLine(what=what, count=len(tags), drums=tags) for what, tags in sorted(wanted.items())]


def _together(lines: Iterable[BuyLine]) -> list[BuyLine]:
    """One line for one thing."""
    kept: dict[str, BuyLine] = {}
    for line in lines:
        if first := kept.get(line.what):
            line = BuyLine(what=line.what, count=first.count + line.count, drums=[*first.drums, *line.drums])
        kept[line.what] = line
    return list(kept.values())


def _words(counts: Counter[str], rows: Sequence[Verdict]) -> str:
    """'Forty looked at: eleven to clear, four heads, two sets of wires.'"""
    works = [work for row in rows for work in _works(row)]
    heads, wires = sum(len(work["new_heads"]) for work in works), sum(work.get("new_wires", False) for work in works)
    clears = counts[Said.CLEAR.value] + counts[Said.CLEAR_RECHECK.value]
    parts = [
        f"{_number(clears)} to clear" if clears else "",
        _many(heads, "head", "heads") if heads else "",
        _many(wires, "set of wires", "sets of wires") if wires else "",
        f"{_number(counts[Said.REPAIR.value])} to repair" if counts[Said.REPAIR.value] else "",
        f"{_number(counts[Said.OUT_OF_SERVICE.value])} out of service" if counts[Said.OUT_OF_SERVICE.value] else "",
    ]
    said = ", ".join(each for each in parts if each) or "nothing to do"
    whole = _number(len(rows))
    return f"{whole[0].upper()}{whole[1:]} looked at: {said}."


def _planned_for(drums: Iterable[Drum]) -> QuerySet[PlannedJob]:
    return PlannedJob.objects.filter(drum__in=drums, state=PlannedJob.State.OPEN).select_related("drum")


def sum_of(walk: Walk, workshop: Workshop) -> WalkSum:
    """What a walk comes to so far."""
    rows = list(Verdict.objects.filter(walk=walk).select_related("drum").order_by("drum__tag"))
    drums = {row.drum.tag: row.drum for row in rows}
    fitted, shelf, unit = fitted_on(drums.values()), _Shelf(), workshop.length_unit
    plans = []
    for row in rows:
        if row.answered_at is not None or not _works(row):
            continue
        drum, on = row.drum, fitted[row.drum_id]
        sides = {side for work in _works(row) for side in work["new_heads"]}
        now = {side: on[side].head if side in on else "" for side in ("batter", "resonant", WIRES)}
        plans.append(
            ToPlan.model_validate(
                {
                    "tag": drum.tag, "name": drum.name, "kind_words": KIND_WORDS[drum.kind], "headline": row.told["headline"],
                    "size": size_words(drum.diameter_m, drum.depth_m, unit), "works": _works(row), "now": now,
                    "heads": {side: shelf.fitting(drum, side, now[side]) for side in sorted(sides)},
                }
            )
        )  # fmt: skip
    counts = Counter(row.drum_verdict for row in rows)
    planned = list(_planned_for(drums.values()))
    busy = {each.drum_id for each in planned}
    left = WalkDrum.objects.filter(walk=walk).exclude(drum__in=drums.values())
    return WalkSum(
        words=_words(counts, rows),
        counts=dict(counts),
        to_plan=plans,
        buy=_together([*_buying(plans, drums, shelf, unit), *_still_to_buy(drums, fitted, unit)]),
        left=list(left.values_list("drum__tag", flat=True)),
        planned=[shape_planned(row, timezone.localdate()) for row in planned],
        left_so=[
            row.drum.tag for row in rows if row.answered_at is not None and _works(row) and row.drum_id not in busy
        ],
    )


def _wanted(each: PlanWork, row: Verdict) -> Wanted:
    works = [work for work in row.told["works"] if work["work"] == each.work and work["part"] == each.part.value]
    why = row.told["headline"] if not works else Said(works[0]["verdict"]).words
    return Wanted(
        each.id,
        row.drum,
        each.work,
        each.part,
        each.due_on,
        why,
        {head.side.value: head.stock_item for head in each.heads},
    )


def _plan_one(each: PlanWork, rows: Mapping[str, Verdict], member: Membership) -> None:
    row = rows.get(each.tag)
    if row is None:
        raise Refused("not_looked", f"{each.tag} was not looked at on this walk.", 422)
    today = timezone.localdate()
    if not today - timedelta(days=1) <= each.due_on <= today + timedelta(days=730):
        raise Refused("bad_date", "Choose a day from today on, within two years.", 422)
    with transaction.atomic():
        plan_work(_wanted(each, row), member)


def _answer(rows: Iterable[Verdict]) -> None:
    for row in rows:
        row.answered_at = row.answered_at or timezone.now()
        row.save(update_fields=["answered_at"])


@transaction.atomic
def plan_walk(walk_id: uuid.UUID, asked: PlanIn, member: Membership) -> PlannedOut:
    """Plan work for drums of a walk; asked twice, planned once. What is refused is told with its reason and leaves the rest as it is."""
    walk = Walk.objects.select_for_update().get(pk=walk_id)
    rows = {row.drum.tag: row for row in Verdict.objects.filter(walk=walk).select_related("drum")}
    planned, refused = [], []
    for each in asked.works:
        try:
            _plan_one(each, rows, member)
            planned.append(str(each.id))
        except (Refused, DrumworkError) as error:
            refused.append({"id": str(each.id), "tag": each.tag, "code": error.code, "message": error.message})
    held_up = {each["tag"] for each in refused}
    done = ({each.tag for each in asked.works} - held_up) | set(asked.leave)
    _answer(rows[tag] for tag in done if tag in rows)
    return PlannedOut(planned=planned, refused=refused)


@transaction.atomic
def take_back(walk_id: uuid.UUID, asked: TakeBackIn) -> None:
    """What was planned is not, its heads are free again, and what the walk found is to be decided anew. Work begun meanwhile stays as it is."""
    walk = Walk.objects.select_for_update().get(pk=walk_id)
    rows = {row.drum_id: row for row in Verdict.objects.filter(walk=walk).select_related("drum")}
    dropped = list(_planned_for(row.drum for row in rows.values()).filter(pk__in=asked.planned))
    for each in dropped:
        drop(each.pk, "taken back")
    still = set(_planned_for(row.drum for row in rows.values()).values_list("drum", flat=True))
    anew = {each.drum_id for each in dropped} - still
    for row in rows.values():
        if row.drum_id in anew or row.drum.tag in asked.left_so:
            row.answered_at = None
            row.save(update_fields=["answered_at"])
