"""What planned work needs of the shelf, and how that stands."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date

from apps.heads.models import Fitting, Promise, StockItem
from apps.heads.wires import WIRES, fitting_wires
from apps.planned.models import PlannedJob
from apps.register.models import Drum
from apps.register.schemas import SAME_SIZE_M, length_words
from apps.stock.wording import called
from drumwork.inspecting import parts_taken
from drumwork.shelf import Allotted, Kept, Need, Sort, allot
from drumwork.work.plan import Part

__all__ = ["Standing", "Wish", "standing_of"]


@dataclass(frozen=True)
class Wish:
    """One piece a planned job needs: for which place of the drum, and the line it would come from, if the shelf has it."""

    job: PlannedJob
    place: str
    item: StockItem | None
    promised: bool
    what: str

    @property
    def key(self) -> str:
        return f"{self.job.pk}:{self.place}"


@dataclass(frozen=True)
class Standing:
    """The shelf against all planned work: wishes by job, how each stands, what to buy, what is promised of each line."""

    items: list[StockItem]
    wishes: Mapping[PlannedJob, list[Wish]]
    found: Allotted
    promised: Mapping[int, list[Promise]]

    def promised_of(self, item: StockItem) -> int:
        return len(self.promised.get(item.pk, ()))


def _head_for(drum: Drum, side: str, now: str, items: Iterable[StockItem]) -> StockItem | None:
    """The line that is on, in this drum's size; new ones only (C10)."""
    for item in items:
        if item.sort != Sort.HEAD or item.used or item.named != now or item.head.side not in (side, "either"):
            continue
        if abs(item.width_m - drum.diameter_m) <= SAME_SIZE_M:
            return item
    return None


def _wish(
    job: PlannedJob, place: str, now: str, items: list[StockItem], mine: Mapping[tuple[object, str], int], unit: str
) -> Wish:
    by_key = {item.pk: item for item in items}
    if (key := mine.get((job.pk, place))) in by_key:
        item = by_key[key]
        return Wish(job, place, item, True, called(item, unit))
    if place == WIRES:
        sets = [item for item in items if item.sort == Sort.WIRES and not item.used]
        fits = fitting_wires(job.drum, now, sets)
        found = fits[0][0] if fits else None
        other = f"snare wires, {length_words(job.drum.diameter_m, unit)} {unit}"
    else:
        found = _head_for(job.drum, place, now, items)
        other = f"{now or f'{place} head'}, {length_words(job.drum.diameter_m, unit)} {unit}"
    return Wish(job, place, found, False, called(found, unit) if found else other)


def standing_of(unit: str, today: date) -> Standing:
    """How planned work and the shelf stand to each other."""
    items = list(StockItem.objects.select_related("line", "wires"))
    promised: dict[int, list[Promise]] = defaultdict(list)
    mine: dict[tuple[object, str], int] = {}
    for each in Promise.objects.select_related("drum").order_by("at", "pk"):
        promised[each.stock_item_id].append(each)
        mine[each.for_what, each.side] = each.stock_item_id
    for item in items:
        item.promised = len(promised[item.pk])  # type: ignore[attr-defined]
    jobs = list(
        PlannedJob.objects.filter(state=PlannedJob.State.OPEN)
        .select_related("drum")
        .order_by("due_on", "drum__name", "work")
    )
    on: dict[tuple[int, str], str] = {
        (row.drum_id, row.side): row.head
        for row in Fitting.objects.filter(drum__in={job.drum_id for job in jobs}, retired_at__isnull=True)
    }
    wishes = {
        job: [
            _wish(job, place, on.get((job.drum_id, place), ""), items, mine, unit)
            for place in parts_taken(job.work, Part(job.part))
        ]
        for job in jobs
    }
    kept = [Kept(str(item.pk), called(item, unit), item.count - len(promised[item.pk]), item.minimum) for item in items]
    needs = [
        Need(wish.key, str(wish.item.pk) if wish.item else "", wish.what, job.drum.tag, job.drum.name, job.due_on, wish.promised)
        for job, each in wishes.items()
        for wish in each
    ]  # fmt: skip
    return Standing(items, wishes, allot(kept, needs, today), promised)
