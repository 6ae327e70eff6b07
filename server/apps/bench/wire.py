"""What devices send to the bench, made from the core's entries: one definition there, its schema here."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from ninja import Schema

from apps.bench.stored import entry_to
from apps.workshops.wired import UnknownBody, schema_of, sent_fields, union_of
from drumwork.work.kinds.clear import MOST_PARTIALS, Move
from drumwork.work.kinds.registry import ENTRIES
from drumwork.work.log import Entry
from drumwork.work.rounds import Partial

__all__ = ["MOST_PARTIALS", "BodyIn", "MoveIn", "PartialIn", "UnknownBody", "body_of"]

if TYPE_CHECKING:

    class BodyIn(Schema):
        kind: str

    class MoveIn(Schema):
        rod: int
        real: int

    class PartialIn(Schema):
        hz: float
        level_db: float
else:
    BodyIn = union_of(ENTRIES)
    MoveIn = schema_of(Move)
    PartialIn = schema_of(Partial)

_SENT = {entry: sent_fields(entry) for entry in ENTRIES}


def body_of(entry: Entry, stored: dict[str, Any]) -> dict[str, Any]:
    """The stored body with only what devices send and fold; what came to an entry after it was stored is as it is when nothing is said."""
    names = _SENT[type(entry)]
    known = stored if all(name in stored for name in names) else {**entry_to(entry), **stored}
    return {"kind": entry.kind, **{name: known[name] for name in names}}
