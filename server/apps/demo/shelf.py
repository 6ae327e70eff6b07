"""The rest of the shelf: what is kept besides heads, how it came there, what is lent, what came damaged, and the jobs it is wanted for."""

from __future__ import annotations

import uuid
from datetime import datetime, timedelta
from typing import Final, NamedTuple

from django.utils import timezone

from apps.demo.build import NAMESPACE
from apps.heads.models import StockItem, WireLine
from apps.planned.flows import Wanted, plan_work
from apps.planned.models import PlannedJob
from apps.register.models import Drum
from apps.stock.flows import know_code, put_apart
from apps.stock.loans import lend
from apps.stock.models import GoesBack, Loan, Movement
from apps.stock.moving import Act, move
from apps.stock.schemas import GoesBackIn, LoanIn
from apps.workshops.models import Membership
from drumwork.quantities import Length
from drumwork.shelf import Why
from drumwork.work.plan import Part

__all__ = ["shelf"]


class Kept(NamedTuple):
    """Something kept besides heads. Size in inches for wires, millimetres for the rest."""

    sort: str
    name: str
    size: float | None
    place: str
    bought: int
    minimum: int
    note: str = ""


KEPT: Final = (
    Kept("wires", "20 strands, cord", 14, "W1", 3, 2),
    Kept("wires", "20 strands, cord", 13, "W1", 1, 1),
    Kept("wires", "16 strands, strap", 14, "W2", 1, 1),
    Kept("wires", "12 cable, cord", 14, "W3", 2, 1),
    Kept("rod", "7/32-24", 42, "R1", 16, 10),
    Kept("rod", "7/32-24", 52, "R2", 11, 10),
    Kept("rod", "7/32-24", 110, "R4", 3, 8),
    Kept("claw", "bass claw, steel", None, "R6", 6, 4),
    Kept("part", "rod washer, steel", None, "drawer 3", 140, 50),
    Kept("part", "felt strip, bass", 50, "drawer 3", 0, 2, "cut to the hoop"),
    Kept("part", "wing nut, 8 mm", None, "drawer 5", 7, 4),
)
KEEP: Final = {"single 10 coated": 1, "snare side 3": 1}
"""How many of each size of a line are to be there, where the workshop says so."""


class Work(NamedTuple):
    name: str
    work: str
    part: Part
    days: int


WORK: Final = (
    Work("Yawl", "new-batter-head", Part.BATTER, 1),
    Work("Sanderling", "new-wires", Part.WIRES, 1),
    Work("Shearwater", "new-batter-head", Part.BATTER, 1),
    Work("Lugger", "new-resonant-head", Part.RESONANT, 1),
)


def _key(words: str) -> uuid.UUID:
    return uuid.uuid5(NAMESPACE, f"shelf {words}")


def _begin(kept: Kept, member: Membership) -> StockItem:
    item = StockItem(workshop=member.workshop, sort=kept.sort, shelf=kept.place, minimum=kept.minimum, note=kept.note)
    if kept.sort == "wires":
        item.wires = WireLine.objects.get(name=kept.name)
        item.diameter_m = Length.from_inches(kept.size or 0).metres
    else:
        item.name = kept.name
        item.length_m = Length.from_mm(kept.size).metres if kept.size else None
    item.save()
    if kept.bought:
        move(item.pk, Act(_key(f"{kept.name} {kept.size}"), Why.BOUGHT, kept.bought), member)
    return item


def _begun(now: datetime, members: list[Membership]) -> None:
    """Heads were there before anybody wrote down how they came."""
    for item in StockItem.objects.select_related("line"):
        item.minimum = KEEP.get(item.named, 0)
        item.save(update_fields=["minimum"])
        Movement.objects.create(
            workshop=members[0].workshop, stock_item=item, act=_key(f"begun {item.pk}"), why=Why.COUNTED.value, delta=item.count,
            after=item.count, words="as it stood when the shelf was begun", by_name=members[0].shown_name, at=now - timedelta(days=64),
        )  # fmt: skip


def _plan(each: Work, drum: Drum, head: int | None, now: datetime, member: Membership) -> None:
    due = timezone.localdate(now) + timedelta(days=each.days)
    heads = {each.part.value: head} if head else {}
    row = plan_work(Wanted(_key(each.name), drum, each.work, each.part, due, "for the pageant", heads), member)
    PlannedJob.objects.filter(pk=row.pk).update(made_at=now - timedelta(days=2))


def _head_for(drum: Drum, side: str) -> int | None:
    """A free head that is mostly used on such a drum, if any lies there."""
    on = drum.fittings.filter(side=side, retired_at__isnull=True).first()
    row = StockItem.objects.filter(line__name=on.head if on else "", diameter_m=drum.diameter_m).first()
    return row.pk if row and row.count > row.promises.count() else None


def shelf(drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
    """Lines, a loan of nine days, a set with a frayed strap, and four jobs for tomorrow."""
    ines, bram = members[0], members[1]
    _begun(now, members)
    items = {(kept.name, kept.size): _begin(kept, bram) for kept in KEPT}
    Movement.objects.filter(why=Why.BOUGHT.value).update(at=now - timedelta(days=20))
    frayed = GoesBackIn(id=_key("frayed"), number=1, what="strap-frayed", batch="", words="straight out of the bag")
    put_apart(items["16 strands, strap", 14].pk, frayed, ines)
    GoesBack.objects.update(at=now - timedelta(days=19))
    rod = LoanIn(
        id=_key("rod"), what="tension rod", number=1, from_tag=drums["Fulmar"].tag, to_tag=drums["Bittern"].tag
    )
    lend(rod, bram)
    Loan.objects.filter(pk=rod.id).update(lent_at=now - timedelta(days=9))
    know_code(items["7/32-24", 52].pk, "ROD-52", bram)
    for each in WORK:
        drum = drums[each.name]
        _plan(each, drum, _head_for(drum, each.part.value) if each.name == "Yawl" else None, now, bram)
