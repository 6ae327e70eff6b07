"""Parts lent, until they are back (N13)."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import TYPE_CHECKING

from django.db import transaction
from django.dispatch import Signal
from django.utils import timezone

from apps.heads.models import StockItem
from apps.register.lookup import drums_by_tag
from apps.register.models import Drum
from apps.stock.models import Loan
from apps.stock.moving import Act, move
from apps.stock.schemas import LoanIn
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.shelf import Why

if TYPE_CHECKING:
    from collections.abc import Iterable

__all__ = ["Borrowed", "begun", "end_loan", "ended", "give_back_to", "keep_of_job", "lend", "undone"]


begun, ended, undone = Signal(), Signal(), Signal()
"""A loan began, is over, or never was: sent with `loan`. Whoever keeps more of it than the Shelf does listens."""


BATTER = "batter"
"""Rods are lent from batters only."""


class Borrowed:
    """A part a job on the bench borrowed, as its log has it."""

    def __init__(self, key: uuid.UUID, what: str, from_tag: str, from_rod: int | None, by: str, at: datetime) -> None:
        self.key, self.what, self.from_tag, self.from_rod, self.by, self.at = key, what, from_tag, from_rod, by, at


def _drum(tag: str, field: str) -> Drum | None:
    if not tag:
        return None
    found = Drum.objects.filter(tag__iexact=tag).first()
    if found is None:
        raise Refused("unknown_drum", f"There is no drum {tag} here.", 422, **{field: "No drum of this workshop."})
    return found


@transaction.atomic
def lend(asked: LoanIn, member: Membership) -> Loan:
    """Enter a loan, once; what comes from the shelf leaves its count.

    Raises
    ------
    Refused
        where nobody can tell what is lent, from where, or to whom.
    BelowNought
        where more is lent than the shelf has, and nobody says what happened.
    """
    if found := Loan.objects.filter(pk=asked.id).first():
        return found
    giver, taker = _drum(asked.from_tag, "from_tag"), _drum(asked.to_tag, "to_tag")
    item = StockItem.objects.select_related("line", "wires").get(pk=asked.line) if asked.line is not None else None
    if giver is None and item is None:
        raise Refused("from_where", "Say which drum it comes from.", 422, from_tag="Say which drum it comes from.")
    if taker is None and not asked.to_words:
        raise Refused("to_whom", "Say which drum or who it goes to.", 422, to_tag="Say which drum or who it goes to.")
    if giver is not None and giver == taker:
        raise Refused("same_drum", "A drum cannot lend to itself.", 422, to_tag="Another drum.")
    what = asked.what or (item.named if item else "")
    if not what:
        raise Refused("what", "Say what is lent.", 422, what="Say what is lent.")
    if item is not None:
        act = Act(asked.id, Why.LENT, asked.number, explained=asked.explained, drum=taker, words=asked.to_words)
        move(item.pk, act, member)
    loan = Loan.objects.create(
        id=asked.id,
        workshop=member.workshop,
        what=what,
        number=asked.number,
        from_drum=giver,
        from_side=BATTER if giver and asked.from_rod else "",
        from_rod=asked.from_rod if giver else None,
        stock_item=item,
        to_drum=taker,
        to_words=asked.to_words,
        lent_at=timezone.now(),
        lent_by_name=member.shown_name,
        due_on=asked.due_on,
    )
    begun.send(Loan, loan=loan)
    return loan


@transaction.atomic
def end_loan(key: uuid.UUID, how: str, member: Membership) -> None:
    """Back, lost, or kept for good; said twice, it holds once. What came from the shelf and is back lies there again."""
    row = Loan.objects.select_for_update().get(pk=key)
    if row.ended:
        return
    row.ended, row.ended_at, row.ended_by_name = how, timezone.now(), member.shown_name
    row.save(update_fields=["ended", "ended_at", "ended_by_name"])
    ended.send(Loan, loan=row)
    if how == Loan.Ended.BACK and row.stock_item_id is not None:
        act = Act(uuid.uuid5(key, "back"), Why.BROUGHT_BACK, row.number, drum=row.to_drum, words=row.to_words)
        move(row.stock_item_id, act, member)


def keep_of_job(job: uuid.UUID, drum: Drum, borrowed: Iterable[Borrowed]) -> None:
    """The loans a job's log tells, as it stands: what is new is entered, what was taken back there was never lent."""
    told = {each.key: each for each in borrowed}
    for gone in Loan.objects.filter(job_id=job, ended="").exclude(pk__in=told):
        undone.send(Loan, loan=gone)
        gone.delete()
    known = set(Loan.objects.filter(pk__in=told).values_list("pk", flat=True))
    lenders = drums_by_tag({each.from_tag for each in told.values()})
    made = Loan.objects.bulk_create(
        Loan(
            id=key,
            workshop_id=drum.workshop_id,
            what=each.what,
            from_drum=lenders.get(each.from_tag),
            from_side=BATTER if each.from_rod and each.from_tag in lenders else "",
            from_rod=each.from_rod if each.from_tag in lenders else None,
            from_words="" if each.from_tag in lenders else each.from_tag,
            to_drum=drum,
            job_id=job,
            lent_at=each.at,
            lent_by_name=each.by,
        )
        for key, each in told.items()
        if key not in known
    )
    for loan in made:
        begun.send(Loan, loan=loan)


def give_back_to(drum: Drum, what: str, member: Membership) -> None:
    """A part of this sort came home to the drum that lent it: the oldest such loan is over."""
    lent = Loan.objects.filter(from_drum=drum, ended="", what__icontains=what).order_by("lent_at").first()
    if lent is not None:
        end_loan(lent.pk, Loan.Ended.BACK, member)
