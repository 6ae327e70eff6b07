"""A call-out's entries and its book as they lie in the database."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import cache
from typing import Any, Final

from cattrs import Converter

from apps.callouts.models import CallOut, CallOutEvent
from drumwork.callout import CALLOUT_ENTRIES, Book, CalloutEntry, Entered
from drumwork.errors import BadEvent

__all__ = ["ENTRY_VERSION", "as_stored", "book_from", "entered", "entry_of"]

ENTRY_VERSION: Final = 1
_KINDS: Final[Mapping[str, type[CalloutEntry]]] = {each.kind: each for each in CALLOUT_ENTRIES}


@cache
def _converter() -> Converter:
    return Converter(detailed_validation=False)  # an error of the core stays itself


def entry_of(body: Mapping[str, Any], version: int = ENTRY_VERSION) -> CalloutEntry:
    """An entry as it was stored or sent.

    Raises
    ------
    BadEvent
        for a kind or a version this server does not know, which a newer one wrote.
    """
    if version != ENTRY_VERSION or body["kind"] not in _KINDS:
        raise BadEvent(
            "This call-out has entries of a newer version of Red Tally; nothing is lost. Update this server.",
            kind=body["kind"],
        )
    fields = {name: value for name, value in body.items() if name != "kind"}
    return _converter().structure(fields, _KINDS[body["kind"]])


def entered(rows: Iterable[CallOutEvent]) -> list[Entered]:
    """Stored rows as the core folds them."""
    return [Entered(str(row.pk), entry_of(row.body, row.version), row.by_name, row.device, row.made_at) for row in rows]


def as_stored(book: Book) -> dict[str, Any]:
    stored: dict[str, Any] = _converter().unstructure(book)
    return stored


def book_from(callout: CallOut) -> Book:
    return _converter().structure(callout.book, Book)
