"""The facts Today is made from: of every group its first lines and its true count, however many drums there are.

One statement, written by hand: it is what everybody’s tablet asks for every half minute, and put together from queries it took ten times as long.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from types import SimpleNamespace
from typing import Any, Final, cast

from django.db import connection
from django.utils import timezone

from apps.heads.lives import Group, laws_of
from apps.register.models import Drum
from apps.workshops.models import Workshop
from drumwork.condition import last_past_life
from drumwork.drums import Side
from drumwork.lives import Expected
from drumwork.planning import (
    AgedHead,
    CallOutAhead,
    CheckDue,
    JobInHand,
    NoteOwed,
    OwedKind,
    PartLent,
    ShelfShort,
    ToFetch,
    Undecided,
    WorkPlanned,
)
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.work.plan import Part

__all__ = ["PAGE", "Fact", "Facts", "facts_of", "more_of"]

PAGE: Final = 25
SOON: Final = 12
MOST_IN_HAND: Final = 200
COMING: Final = timedelta(days=60)
GOING_ON: Final = timedelta(hours=12)
"""So long after its show began a call-out nobody ended is still told."""
MONTH: Final = timedelta(days=365.2425 / 12)
MINUTES_WHEN_NEW: Final = {work.id: work.minutes for work in CATALOGUE.values()}  # until the workshop has its own
Fact = (
    CallOutAhead
    | NoteOwed
    | CheckDue
    | JobInHand
    | AgedHead
    | Undecided
    | WorkPlanned
    | PartLent
    | ShelfShort
    | ToFetch
)

_DRUM: Final = (
    "tag", "name", "kind", "rods_batter", "rods_resonant", "lost_batter", "lost_resonant", "bed_rods", "port_rods", "snare_bed", "port_m", "thread",
    "diameter_m", "depth_m", "kept",
)  # fmt: skip
_OF_DRUM: Final = "json_build_object(" + ", ".join(f"'{name}', d.{name}" for name in _DRUM) + ")"
# On whose side a job is in hand, what it was owed is being seen to. A job takes up a stretch of its drum: see apps.bench.models.PARTS.
# And where work on that head is planned, that is what is owed.
_TAKER: Final = _OF_DRUM.replace("d.", "t.")
_FREE: Final = "not exists (select from taken where taken.drum_id = {0}.drum_id and taken.takes @> case {0}.side when 'batter' then 0 else 1 end)"
_AGED: Final = f"""
    select h.id, h.drum_id, h.side, h.head, h.fitted_at, h.fitted_at + %({{side}}_life)s as ended from heads_fitting h
    where h.retired_at is null and h.side = '{{side}}' and h.fitted_at < %({{side}}_before)s and {_FREE.format("h")}
    and h.drum_id not in (select id from register_drum where state = 'retired')"""
_FACTS: Final = f"""
with hand as materialized (
    select id, drum_id, takes, "where", touched_at, resting_until from bench_job where state = 'open'),
plan as materialized (
    select id, drum_id, work, part, due_on, heads, lacks from planned_plannedjob where state = 'open'),
taken as materialized (
    select drum_id, takes from hand union all
    select drum_id, case part when 'heads' then int4range(0, 2) when 'batter' then int4range(0, 1) else int4range(1, 2) end from plan
    where part in ('heads', 'batter', 'resonant')),
unanswered as not materialized (
    select * from callouts_callout where over_at is not null and answered_at is null and owing > 0),
lent as not materialized (select * from stock_loan where ended = ''),
decide as not materialized (
    select v.id, v.drum_id, v.walk_id, v.told ->> 'headline' as headline, v.at,
        v.drum_verdict in ('replace-now', 'out-of-service') as urgent from inspecting_verdict v where v.answered_at is null),
late as not materialized (
    select c.id, c.drum_id, c.side, c.due_at, c.why from followups_followup c
    where c.done_at is null and c.due_at <= %(now)s and {_FREE.format("c")}),
soon as (
    select c.id, c.drum_id, c.side, c.due_at, c.why from followups_followup c
    where c.done_at is null and c.due_at > %(now)s and c.due_at <= %(until)s and {_FREE.format("c")}
    order by c.due_at, c.id limit %(soon)s),
aged as not materialized ({_AGED.format(side="batter")} union all {_AGED.format(side="resonant")}),
decide_page as (select * from decide order by urgent desc, at, id limit %(page)s offset %(offset)s),
plan_page as (
    (select * from plan where due_on <= %(today)s order by due_on, id limit %(page)s offset %(offset)s) union all
    (select * from plan where due_on > %(today)s and due_on <= %(until)s::date order by due_on, id limit %(soon)s)),
late_page as (select * from late order by due_at, id limit %(page)s offset %(offset)s),
aged_page as (select * from (({_AGED.format(side="batter")} order by h.fitted_at, h.id limit %(reach)s) union all
    ({_AGED.format(side="resonant")} order by h.fitted_at, h.id limit %(reach)s)) either order by ended, id limit %(page)s offset %(offset)s)
select
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, j.id, j."where", j.touched_at, j.resting_until)), '[]')
     from (select * from hand order by touched_at desc limit %(hand)s) j join register_drum d on d.id = j.drum_id),
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, c.side, c.due_at, c.why) order by c.due_at, c.id), '[]')
     from (select * from late_page union all select * from soon) c join register_drum d on d.id = c.drum_id),
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, h.side, h.head, h.fitted_at) order by h.ended, h.id), '[]')
     from aged_page h join register_drum d on d.id = h.drum_id),
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, v.walk_id, v.headline, v.at) order by v.urgent desc, v.at, v.id), '[]')
     from decide_page v join register_drum d on d.id = v.drum_id),
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, p.work, p.part, p.due_on, p.heads) order by p.due_on, p.id), '[]')
     from plan_page p join register_drum d on d.id = p.drum_id),
    (select coalesce(json_agg(json_build_array(case when t.id is null then null else {_TAKER} end, l.what, l.number,
        coalesce(g.name, nullif(l.from_words, ''), 'the shelf'), coalesce(t.name, l.to_words), l.lent_at, l.due_on) order by l.lent_at, l.id), '[]')
     from (select * from lent order by lent_at, id limit %(page)s offset %(offset)s) l
     left join register_drum t on t.id = l.to_drum_id left join register_drum g on g.id = l.from_drum_id),
    (select coalesce(json_agg(json_build_array({_OF_DRUM}, coalesce(hl.name, wl.name, s.name), s.shelf, p.due_on) order by p.due_on, p.id), '[]')
     from (select * from plan where due_on <= %(tomorrow)s order by due_on, id limit %(soon)s) p join heads_promise m on m.for_what = p.id
     join heads_stockitem s on s.id = m.stock_item_id left join heads_headline hl on hl.id = s.line_id
     left join heads_wireline wl on wl.id = s.wires_id join register_drum d on d.id = p.drum_id),
    (select coalesce(json_agg(json_build_array(c.id, c.name, c.at, c.owing, c.over_at, c.reported_at) order by c.over_at, c.id), '[]')
     from (select * from unanswered order by over_at, id limit %(page)s offset %(offset)s) c),
    (select coalesce(json_agg(json_build_array(c.id, c.name, c.at, c.show_at, c.minutes, c.began_at is not null) order by c.show_at, c.id), '[]')
     from (select * from callouts_callout where over_at is null and show_at between %(past)s and %(until)s order by show_at, id limit %(soon)s) c),
    (select count(*) from unanswered),
    (select count(*) from heads_stockitem s where s.minimum > 0 and s.minimum > s.count - (
        select count(*) from heads_promise m where m.stock_item_id = s.id)),
    (select count(*) from plan where lacks > 0),
    (select count(*) from lent),
    (select count(*) from decide),
    (select count(*) from plan where due_on <= %(today)s),
    (select count(*) from late),
    (select count(*) from hand where resting_until <= %(now)s),
    (select count(*) from aged),
    (select coalesce(json_object_agg(work, seconds), '{{}}') from (
        select work, percentile_cont(0.5) within group (order by extract(epoch from closed_at - opened_at)) as seconds
        from (select work, closed_at, opened_at from bench_job where state = 'closed' order by closed_at desc limit 100) last group by work) usual)
"""


_PAGED: Final[dict[OwedKind, type[Fact]]] = {
    OwedKind.OVERDUE_CHECK: CheckDue,
    OwedKind.TO_DECIDE: Undecided,
    OwedKind.PLANNED_WORK: WorkPlanned,
    OwedKind.LENT: PartLent,
    OwedKind.REPORTED: NoteOwed,
    OwedKind.AGED_HEAD: AgedHead,
}


@dataclass(frozen=True)
class Facts:
    """Facts to list, the drums they concern by tag (as much of them as was read), of what is owed how many there are in truth, by group, and the
    usual minutes by work: the median of the last hundred closed jobs."""

    facts: list[Fact]
    drums: dict[str, Drum]
    counts: dict[OwedKind, int]
    usual: dict[str, int]


def _asked(workshop: Workshop, now: datetime, offset: int) -> dict[str, Any]:
    asked: dict[str, Any] = {
        "now": now,
        "today": timezone.localdate(now),
        "tomorrow": timezone.localdate(now) + timedelta(days=1),
        "until": now + COMING,
        "past": now - GOING_ON,
        "page": PAGE,
        "reach": offset + PAGE,
        "offset": offset,
        "soon": SOON,
        "hand": MOST_IN_HAND,
    }
    for side, life in _lives(workshop).items():
        following = last_past_life(timezone.localdate(now), life) + timedelta(days=1)
        asked[f"{side}_before"] = timezone.make_aware(datetime.combine(following, time.min))
        asked[f"{side}_life"] = life * MONTH
    return asked


def _lives(workshop: Workshop) -> dict[Side, int]:
    return {Side.BATTER: workshop.batter_life_months, Side.RESONANT: workshop.resonant_life_months}


def _at(text: str) -> datetime:
    return timezone.localtime(datetime.fromisoformat(text))


def _read(workshop: Workshop, now: datetime, offset: int) -> Facts:
    with connection.cursor() as cursor:
        cursor.execute(_FACTS, _asked(workshop, now, offset))
        (
            jobs,
            checks,
            heads,
            looks,
            plans,
            loans,
            fetch,
            notes,
            ahead,
            unanswered,
            short,
            unmet,
            lent,
            undecided,
            planned,
            late,
            rested,
            aged,
            usual,
        ) = cursor.fetchone()
    lives, facts = _lives(workshop), list[Fact]()
    for drum, key, where, touched, resting in jobs:
        facts.append(JobInHand(drum["tag"], key, where, _at(touched), _at(resting) if resting else None))
    facts += [CheckDue(drum["tag"], side, _at(due), why) for drum, side, due, why in checks]
    laws = laws_of(workshop) if heads else {}
    facts += [
        AgedHead(
            drum["tag"],
            side,
            head,
            _at(fitted),
            lives[Side(side)],
            _gone(laws, drum["kind"], side, head, _at(fitted), now),
        )
        for drum, side, head, fitted in heads
    ]
    facts += [Undecided(drum["tag"], walk, headline, _at(looked)) for drum, walk, headline, looked in looks]
    facts += [_planned(*each) for each in plans]
    facts += [_lent(*each) for each in loans]
    facts += [
        NoteOwed(key, kit, at, owing, _at(over), _at(told) if told else None)
        for key, kit, at, owing, over, told in notes
    ]
    if offset == 0:
        facts += [CallOutAhead(key, kit, at, _at(show), minutes, began) for key, kit, at, show, minutes, began in ahead]
    facts += [ToFetch(drum["tag"], what, place, date.fromisoformat(due)) for drum, what, place, due in fetch]
    if offset == 0:
        facts.append(ShelfShort(short, unmet))
    drums = {
        drum["tag"]: cast(Drum, SimpleNamespace(**drum))
        for drum, *_ in (*jobs, *checks, *heads, *looks, *plans, *loans, *fetch)
        if drum
    }
    counts = {
        OwedKind.OVERDUE_CHECK: late,
        OwedKind.RESTED: rested,
        OwedKind.TO_DECIDE: undecided,
        OwedKind.PLANNED_WORK: planned,
        OwedKind.LENT: lent,
        OwedKind.REPORTED: unanswered,
        OwedKind.TO_BUY: int(short + unmet > 0),
        OwedKind.AGED_HEAD: aged,
    }
    return Facts(facts, drums, counts, MINUTES_WHEN_NEW | {work: round(took / 60) for work, took in usual.items()})


def _lent(
    drum: dict[str, Any] | None, what: str, number: int, giver: str, taker: str, since: str, due: str | None
) -> PartLent:
    many = f"{number} × " if number > 1 else ""
    back = date.fromisoformat(due) if due else None
    return PartLent(drum["tag"] if drum else "", many + what, giver, taker, _at(since), back)


def _planned(drum: dict[str, Any], work: str, part: str, due: str, heads: dict[str, dict[str, Any]]) -> WorkPlanned:
    title = work_named(work).titled(Part(part))
    names = tuple(str(each["head"]) for each in heads.values())
    return WorkPlanned(drum["tag"], work, part, title, date.fromisoformat(due), names)


def _gone(
    laws: Mapping[Group, Expected], kind: str, side: str, head: str, fitted: datetime, now: datetime
) -> float | None:
    """The share of such heads that is changed by its age; None while fewer than three of them ended here."""
    law = laws.get(Group(head, side, kind))
    return law.outlived((now - fitted) / MONTH) if law is not None and law.ended >= 3 else None


def facts_of(workshop: Workshop, now: datetime) -> Facts:
    """What is in hand, and the first lines of what is owed or coming."""
    return _read(workshop, now, 0)


def more_of(kind: OwedKind, workshop: Workshop, now: datetime, offset: int) -> Facts:
    """The next lines of one group."""
    found = _read(workshop, now, offset)
    wanted = _PAGED[kind]
    today = timezone.localdate(now)
    facts: list[Fact] = [
        fact
        for fact in found.facts
        if isinstance(fact, wanted)
        and not (isinstance(fact, CheckDue) and fact.due > now)
        and not (isinstance(fact, WorkPlanned) and fact.due > today)
    ]
    return replace(found, facts=facts)
