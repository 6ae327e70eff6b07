"""Named reads of the shelf."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from datetime import date, datetime, timedelta
from typing import Final
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from apps.heads.models import StockItem
from apps.planned.models import PlannedJob
from apps.stock.bare import beside, foretells
from apps.stock.models import BareNote, GoesBack, Heap, Loan, Movement, ShelfCode
from apps.stock.moving import heaps_of, last_act
from apps.stock.needs import Standing, Wish, standing_of
from apps.stock.schemas import (
    ArrivalOut,
    BareOut,
    BuyOut,
    FoundCode,
    GoesBackOut,
    HeapOut,
    LineOut,
    LoanOut,
    MovementOut,
    PlaceLine,
    PlaceOut,
    PromiseOut,
    Ready,
    ReadyJob,
    ReadyPiece,
    ShelfOut,
    ShelfRow,
)
from apps.stock.wording import called, order_of, size_of
from apps.workshops.models import Workshop
from drumwork.procedures.catalogue import work_named
from drumwork.quantities import Pitch
from drumwork.shelf import ARRIVALS, WAYS, Buy, Readiness, Sort, Why, arrivals_for
from drumwork.work.plan import Part

__all__ = ["buying", "found_code", "going_back", "line_of", "loans", "places", "shelf_of"]

_SHOWN_MOVEMENTS: Final = 100
_ARRIVED: Final = {each.id: each.words for each in ARRIVALS}
_NUMBERS: Final = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")  # fmt: skip


def _number(count: int) -> str:
    return _NUMBERS[count] if count < len(_NUMBERS) else str(count)


def _many(count: int, one: str, more: str) -> str:
    return f"{_number(count)} {one if count == 1 else more}"


def _capital(words: str) -> str:
    return words[:1].upper() + words[1:]


def _elsewhere(item: StockItem, heaps: Iterable[Heap]) -> list[str]:
    return [f"{heap.count} in {heap.place or item.shelf or 'its place'}{f', batch {heap.batch}' if heap.batch else ''}" for heap in heaps]  # fmt: skip


def _bought(buy: Buy | None) -> str:
    if buy is None:
        return ""
    if buy.kept == buy.count:
        return f"buy {buy.count} {buy.reasons[-1].removeprefix('one ').removeprefix(f'{buy.count} ')}"
    few = [*buy.reasons[:2], *(["and more"] if len(buy.reasons) > 2 else [])]
    return f"buy {buy.count}: {', '.join(few)}"


def _said(item: StockItem, back: Iterable[GoesBack], lent: Iterable[Loan]) -> str:
    """What else there is to know of a line, shortest first."""
    said = [f"{_ARRIVED.get(each.what, each.what)} on arrival: {each.count} to go back" for each in back]
    said += [f"{_number(loan.number)} lent to {_borrower(loan)}" for loan in lent]
    return "; ".join([*said, *([item.note] if item.note else [])])


def _borrower(loan: Loan) -> str:
    return loan.to_drum.name if loan.to_drum else loan.to_words


def _row(item: StockItem, standing: Standing, unit: str, notes: _Notes) -> ShelfRow:
    promised = standing.promised_of(item)
    buy = next((each for each in standing.found.buy if each.line == str(item.pk)), None)
    return ShelfRow.model_validate(
        {
            "id": item.pk, "sort": item.sort, "what": item.named, "size": size_of(item, unit), "place": item.shelf, "used": item.used,
            "elsewhere": _elsewhere(item, notes.heaps[item.pk]), "there": item.count, "promised": promised,
            "free": max(0, item.count - promised), "minimum": item.minimum, "owed": _bought(buy),
            "said": _said(item, notes.back[item.pk], notes.lent[item.pk]),
        }
    )  # fmt: skip


class _Notes:
    """Heaps, pieces that go back and loans, by line."""

    def __init__(self) -> None:
        self.heaps: dict[int, list[Heap]] = defaultdict(list)
        self.back: dict[int, list[GoesBack]] = defaultdict(list)
        self.lent: dict[int, list[Loan]] = defaultdict(list)
        for heap in Heap.objects.all():
            self.heaps[heap.stock_item_id].append(heap)
        for back in GoesBack.objects.filter(ended=""):
            self.back[back.stock_item_id].append(back)
        for loan in Loan.objects.filter(ended="", stock_item__isnull=False).select_related("to_drum"):
            self.lent[loan.stock_item_id or 0].append(loan)


def _state(states: list[str]) -> Ready:
    if not states:
        return "nothing"
    return "short" if Readiness.SHORT in states else "free" if Readiness.FREE in states else "promised"


def _ready(job: PlannedJob, wishes: list[Wish], standing: Standing, today: date) -> ReadyJob:
    states = {wish.key: _there(wish, standing) for wish in wishes}
    return ReadyJob.model_validate(
        {
            "id": str(job.pk), "tag": job.drum.tag, "name": job.drum.name, "title": work_named(job.work).titled(Part(job.part)),
            "work": job.work, "part": job.part, "due_on": job.due_on, "days_late": max(0, (today - job.due_on).days),
            "state": _state(list(states.values())),
            "pieces": [
                ReadyPiece(what=wish.what, place=wish.item.shelf if wish.item else "", state=states[wish.key].value) for wish in wishes
            ],
        }
    )  # fmt: skip


def _there(wish: Wish, standing: Standing) -> Readiness:
    """How a wish stands; what was promised and is not there any more is short, the last promise first."""
    if not wish.promised or wish.item is None:
        return standing.found.stands[wish.key]
    line = standing.promised[wish.item.pk]
    rank = next(n for n, each in enumerate(line) if (each.for_what, each.side) == (wish.job.pk, wish.place))
    return Readiness.PROMISED if rank < wish.item.count else Readiness.SHORT


def _until(jobs: Iterable[PlannedJob], today: date) -> date:
    """The day jobs are shown up to: tomorrow, or the first day that has any."""
    tomorrow = today + timedelta(days=1)
    first = min((job.due_on for job in jobs), default=tomorrow)
    return max(tomorrow, first)


def _jobs_words(jobs: list[ReadyJob]) -> str:
    if not jobs:
        return "No work is planned."
    can = sum(job.state != "short" for job in jobs)
    which = "all of them" if can == len(jobs) and can > 1 else "it" if len(jobs) == 1 and can else _number(can)
    return _capital(f"{_many(len(jobs), 'job', 'jobs')}; {'none' if not can else which} can start")


def shelf_of(workshop: Workshop) -> ShelfOut:
    """Every line, whether the next jobs can start, and how much is to be bought."""
    unit, today = workshop.length_unit, timezone.localdate()
    standing, notes = standing_of(unit, today), _Notes()
    by = _until(standing.wishes, today)
    jobs = [_ready(job, wishes, standing, today) for job, wishes in standing.wishes.items() if job.due_on <= by]
    return ShelfOut(
        lines=[_row(item, standing, unit, notes) for item in sorted(standing.items, key=order_of)],
        words=_many(len(standing.items), "line", "lines"),
        by=by,
        jobs=jobs,
        jobs_words=_jobs_words(jobs),
        to_buy=len(standing.found.buy),
        going_back=sum(each.count for of in notes.back.values() for each in of),
        lent=Loan.objects.filter(ended="").count(),
    )


def buying(workshop: Workshop) -> list[BuyOut]:
    """What to buy, the soonest wanted first, each with its reasons."""
    standing = standing_of(workshop.length_unit, timezone.localdate())
    return [
        BuyOut(
            line=int(each.line) if each.line else None,
            what=each.what,
            count=each.count,
            due=each.due,
            drums=list(each.drums),
            reasons=list(each.reasons),
        )
        for each in standing.found.buy
    ]


def _moved(row: Movement, last: UUID | None) -> MovementOut:
    return MovementOut(
        act=row.act if row.act == last else None,
        why=WAYS[Why(row.why)].words,
        words=row.words,
        delta=row.delta,
        after=row.after,
        place=row.place,
        batch=row.batch,
        drum=f"{row.drum.name} {row.drum.tag}" if row.drum else "",
        job=row.job_id,
        by=row.by_name,
        at=row.at,
    )


def _goes_back(row: GoesBack, unit: str) -> GoesBackOut:
    return GoesBackOut(
        id=row.pk,
        line=row.stock_item_id,
        called=called(row.stock_item, unit),
        count=row.count,
        what=_ARRIVED.get(row.what, row.what),
        words=row.words,
        batch=row.batch,
        by=row.by_name,
        at=row.at,
    )


def going_back(workshop: Workshop) -> list[GoesBackOut]:
    """What lies apart to be sent back where it was bought."""
    rows = GoesBack.objects.filter(ended="").select_related("stock_item__line", "stock_item__wires")
    return [_goes_back(row, workshop.length_unit) for row in rows]


def _loan(row: Loan, today: date, unit: str) -> LoanOut:
    days = (today - timezone.localdate(row.lent_at)).days
    from_line = f"{row.stock_item.shelf or 'the shelf'}, {called(row.stock_item, unit)}" if row.stock_item else ""
    return LoanOut(
        id=row.pk,
        what=row.what,
        number=row.number,
        from_words=row.from_drum.name if row.from_drum else from_line or row.from_words,
        from_tag=row.from_drum.tag if row.from_drum else "",
        to_words=_borrower(row),
        to_tag=row.to_drum.tag if row.to_drum else "",
        lent_at=row.lent_at,
        days=days,
        late=row.due_on is not None and row.due_on < today,
        due_on=row.due_on,
        by=row.lent_by_name,
    )


def loans(workshop: Workshop, tag: str = "") -> list[LoanOut]:
    """What is lent and not back, the longest first; of one drum, as lender or borrower, if its tag is given."""
    rows = Loan.objects.filter(ended="").select_related("from_drum", "to_drum", "stock_item__line", "stock_item__wires")
    today = timezone.localdate()
    found = [_loan(row, today, workshop.length_unit) for row in rows]
    return [each for each in found if not tag or tag in (each.from_tag, each.to_tag)]


def _bare(row: BareNote, workshop: Workshop) -> BareOut:
    note = Pitch(row.hz).note(workshop.a4_hz)
    return BareOut(hz=row.hz, note=note, heard=row.heard, by=row.by_name, at=row.at)


def line_of(stock_item: int, workshop: Workshop) -> LineOut:
    """One line with its movements, the last first."""
    unit, today = workshop.length_unit, timezone.localdate()
    standing, notes = standing_of(unit, today), _Notes()
    item = next((each for each in standing.items if each.pk == stock_item), None)
    if item is None:
        raise StockItem.DoesNotExist
    last = last_act(item.pk)
    moved = Movement.objects.filter(stock_item=item).select_related("drum")[:_SHOWN_MOVEMENTS]
    rows = Loan.objects.filter(ended="", stock_item=item).select_related("from_drum", "to_drum")
    heaps, bare = heaps_of(item), list(item.bare_notes.all()[:20])
    return LineOut(
        row=_row(item, standing, unit, notes),
        called=called(item, unit),
        note=item.note,
        heaps=[
            HeapOut(place=place or (item.shelf if not batch or not place else ""), batch=batch, count=count)
            for (place, batch), count in heaps.items()
            if count
        ],
        promises=[
            PromiseOut(tag=each.drum.tag, name=each.drum.name, place=each.side, by=each.by_name, at=each.at)
            for each in standing.promised.get(item.pk, ())
        ],
        movements=[_moved(row, last[0].act if last else None) for row in moved],
        going_back=[_goes_back(row, unit) for row in notes.back[item.pk]],
        loans=[_loan(row, today, unit) for row in rows],
        codes=list(ShelfCode.objects.filter(stock_item=item).values_list("code", flat=True)),
        bare=[_bare(note, workshop) for note in bare],
        foretells=foretells(item, bare, beside(item)) if bare else "",
        arrivals=[ArrivalOut(id=each.id, words=each.words, look=each.look) for each in arrivals_for(Sort(item.sort))],
    )


def places(workshop: Workshop) -> list[PlaceOut]:
    """Every place with what should lie there, the one counted longest ago first."""
    unit = workshop.length_unit
    lying: dict[str, list[PlaceLine]] = defaultdict(list)
    items = StockItem.objects.select_related("line", "wires").prefetch_related("heaps")
    for item in sorted(items, key=order_of):
        for (place, batch), count in heaps_of(item).items():
            if count or (place, batch) == ("", ""):
                lying[place or item.shelf].append(
                    PlaceLine(line=item.pk, called=called(item, unit), batch=batch, count=count)
                )
    counted = _counted()
    found = [
        PlaceOut(place=place, lines=lines, counted_at=counted[place][0] if place in counted else None, counted_by=counted[place][1] if place in counted else "")
        for place, lines in lying.items()
    ]  # fmt: skip
    now = timezone.now()
    return sorted(found, key=lambda each: (each.counted_at is not None, each.counted_at or now, each.place))


def _counted() -> Mapping[str, tuple[datetime, str]]:
    """When each place was last counted, and by whom."""
    last = (
        Movement.objects.filter(why=Why.COUNTED.value)
        .exclude(by_name="")
        .values("place", "stock_item__shelf")
        .annotate(latest=Max("id"))
    )
    rows = Movement.objects.in_bulk([row["latest"] for row in last])
    found: dict[str, tuple[datetime, str]] = {}
    for row in last:
        place, moved = row["place"] or row["stock_item__shelf"], rows[row["latest"]]
        if place not in found or found[place][0] < moved.at:
            found[place] = (moved.at, moved.by_name)
    return found


def found_code(code: str, workshop: Workshop) -> FoundCode:
    """What a label is of."""
    row = ShelfCode.objects.filter(code=code).select_related("stock_item__line", "stock_item__wires").first()
    if row:
        return FoundCode(line=row.stock_item_id, called=called(row.stock_item, workshop.length_unit))
    lying = Counter(place.place for place in places(workshop))
    named = next((place for place in lying if place and place.lower() == code.lower()), "")
    return FoundCode(place=named)
