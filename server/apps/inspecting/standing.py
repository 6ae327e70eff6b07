"""Where a walk stands when entries come in: its row is locked, then all is read in one statement, since it is asked at every tick."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Final

from django.db import connection
from psycopg.types.json import Jsonb

from apps.inspecting.models import Walk, WalkDrum, WalkEvent
from apps.register.models import Drum

__all__ = ["Stands", "drum_of_walk", "stands_of", "store"]

_OF_DRUM: Final = ("id", "tag", "kind", "rods_batter", "rods_resonant", "bed_rods", "port_rods")
_STANDS: Final = f"""
    select w.name, w.state, w.going_out, w.last_seq, w.touched_at,
        (select json_agg(json_build_array({", ".join(f"d.{name}" for name in _OF_DRUM)})) from inspecting_walkdrum wd
            join register_drum d on d.id = wd.drum_id where wd.walk_id = w.id and d.tag = any(%s)),
        (select json_agg(json_build_array(e.id, e.walk_id, e.seq)) from inspecting_walkevent e where e.id = any(%s)),
        (select json_agg(distinct e.tag) from inspecting_walkevent e where e.walk_id = w.id and e.tag = any(%s) and e.kind = 'looked')
    from inspecting_walk w where w.id = %s
"""


@dataclass
class Stands:
    """A walk with its row locked, the drums entries are about as far as they are needed to judge them, which entries are stored already
    (with the walk they belong to), and which of the drums were looked at."""

    walk: Walk
    drums: dict[str, Drum]
    known: dict[uuid.UUID, tuple[uuid.UUID, int]]
    looked: set[str]


def _drum(row: list[Any]) -> Drum:
    return Drum(**dict(zip(_OF_DRUM, row, strict=True)))


def stands_of(walk_id: uuid.UUID, workshop_id: int, tags: Iterable[str], ids: Iterable[uuid.UUID]) -> Stands:
    """Where a walk stands; Walk.DoesNotExist where there is none here.

    The lock is waited for in a statement of its own: one that read beside it would show what was there before somebody else was let go.
    """
    about = list(tags)
    with connection.cursor() as cursor:
        cursor.execute("select 1 from inspecting_walk where id = %s for update", [walk_id])
        cursor.execute(_STANDS, [about, list(ids), about, walk_id])
        row = cursor.fetchone()
    if row is None:
        raise Walk.DoesNotExist
    name, state, going_out, last_seq, touched_at, drums, known, looked = row
    walk = Walk(
        id=walk_id,
        workshop_id=workshop_id,
        name=name,
        state=state,
        going_out=going_out,
        last_seq=last_seq,
        touched_at=touched_at,
    )
    walk._state.adding = False
    return Stands(
        walk,
        {each[1]: _drum(each) for each in drums or ()},
        {uuid.UUID(key): (uuid.UUID(of), seq) for key, of, seq in known or ()},
        set(looked or ()),
    )


_COLUMNS: Final = (
    "id", "workshop_id", "walk_id", "seq", "tag", "kind", "version", "body", "by_id", "by_name", "device", "made_at", "received_at",
)  # fmt: skip


def store(walk: Walk, rows: Sequence[WalkEvent]) -> None:
    """New entries, and the walk's number brought up to the last of them, in one statement."""
    places = ", ".join([f"({', '.join(['%s'] * len(_COLUMNS))})"] * len(rows))
    values: list[Any] = [
        Jsonb(row.body) if name == "body" else getattr(row, name) for row in rows for name in _COLUMNS
    ]  # as the columns stand
    with connection.cursor() as cursor:
        cursor.execute(
            "with walked as (update inspecting_walk set last_seq = %s, touched_at = %s where id = %s) "
            f"insert into inspecting_walkevent ({', '.join(_COLUMNS)}) values {places}",
            [walk.last_seq, rows[-1].received_at, walk.pk, *values],
        )


def drum_of_walk(walk: Walk, tag: str) -> WalkDrum:
    """A drum of a walk with everything a verdict needs."""
    return WalkDrum.objects.select_related("drum").get(walk=walk, drum__tag=tag)
