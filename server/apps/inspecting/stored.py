"""A walk's entries as they lie in the database: each with its version."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import cache
from typing import Any, Final

from cattrs import Converter

from apps.inspecting.models import WalkEvent
from drumwork.errors import BadEvent
from drumwork.inspecting import ENTRIES, Entered, WalkEntry

__all__ = ["ENTRY_VERSION", "entered", "entry_from"]

ENTRY_VERSION: Final = 1
_KINDS: Final[Mapping[str, type[WalkEntry]]] = {each.kind: each for each in ENTRIES}


@cache
def _converter() -> Converter:
    return Converter(detailed_validation=False)  # an error of the core stays itself


def entry_from(body: Mapping[str, Any], version: int = ENTRY_VERSION) -> WalkEntry:
    """An entry as it was stored or sent.

    Raises
    ------
    BadEvent
        for a kind or a version this server does not know, which a newer one wrote.
    """
    if version != ENTRY_VERSION or body["kind"] not in _KINDS:
        raise BadEvent(
            "This walk has entries of a newer version of Red Tally; nothing is lost. Update this server.",
            kind=body["kind"],
        )
    fields = {name: value for name, value in body.items() if name != "kind"}
    return _converter().structure(fields, _KINDS[body["kind"]])


def entered(rows: Iterable[WalkEvent]) -> list[Entered]:
    """Stored rows as the core folds them."""
    return [Entered(str(row.pk), entry_from(row.body, row.version), row.by_name, row.made_at) for row in rows]
