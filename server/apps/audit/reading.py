"""The trail in words: who did what to which, and what was there before."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from datetime import datetime
from typing import Any, Final

from django.db.models import Q
from django.utils import timezone
from ninja import Schema

from apps.audit.followed import FOLLOWED
from apps.audit.models import Change
from apps.heads.models import HeadLine, WireLine
from apps.register.models import Drum, Kit, Owner, Place
from apps.register.schemas import length_words
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.sheets import line_of

__all__ = ["PAGE", "TrailEntry", "TrailPage", "changes", "written_rows"]

PAGE: Final = 60
MOST_WRITTEN: Final = 200_000
_WORDS: Final = {each.what: each.words for each in FOLLOWED.values()}
_NAMES: Final[Mapping[str, tuple[type[Any], tuple[str, ...]]]] = {
    "drum_id": (Drum, ("tag", "name")),
    "place_id": (Place, ("name",)),
    "owner_id": (Owner, ("name",)),
    "kit_id": (Kit, ("name",)),
    "line_id": (HeadLine, ("name",)),
    "wires_id": (WireLine, ("name",)),
}
_FIELDS: Final = {
    "bed_rods": "rods beside the bed", "port_rods": "rods beside the port", "port_m": "port", "rods_batter": "rods, batter",
    "rods_resonant": "rods, resonant", "lost_batter": "lost rods, batter", "lost_resonant": "lost rods, resonant", "hours_week": "hours a week",
    "wanted_batter_hz": "usual pitch, batter", "wanted_resonant_hz": "usual pitch, resonant", "line_id": "line", "wires_id": "wires",
    "fitted_by_name": "fitted by", "retired_at": "came off", "retired_because": "came off because", "step_32": "smallest turn (1/32)", "until": "good until",
    "made_by_name": "by", "used_by_name": "used by", "withdrawn_at": "taken back", "done_at": "done", "due_at": "due", "due_on": "due",
}  # fmt: skip


class TrailLine(Schema):
    """One thing that changed; empty for nothing there."""

    field: str
    was: str
    now: str


class TrailEntry(Schema):
    """`tag` of the drum it is about, where there is one to open."""

    id: int
    at: datetime
    by: str
    what: str
    did: str
    named: str
    tag: str
    lines: list[TrailLine]


class TrailPage(Schema):
    """A page of the trail, the newest first; `more`: older ones follow. `people` and `whats` are what it may be narrowed to."""

    changes: list[TrailEntry]
    more: bool
    people: list[str]
    whats: list[str]


class _Known:
    """Names of what changes point at, read once a page."""

    def __init__(self, rows: Iterable[Change]) -> None:
        wanted: dict[str, set[int]] = {column: set() for column in _NAMES}
        for row in rows:
            for told in (row.about, row.before, row.after):
                for column in wanted.keys() & told.keys():
                    if isinstance(told[column], int):
                        wanted[column].add(told[column])
        self.names = {
            (column, values[0]): values[1:]
            for column, (model, fields) in _NAMES.items()
            if wanted[column]
            for values in model._default_manager.filter(pk__in=wanted[column]).values_list("pk", *fields)
        }

    def of(self, column: str, value: object) -> str:
        found = self.names.get((column, value))
        return " ".join(found) if found else "one that is gone"

    def tag(self, drum: object) -> str:
        found = self.names.get(("drum_id", drum))
        return found[0] if found else ""


def _moment(text: str) -> str:
    return f"{timezone.localtime(datetime.fromisoformat(text)):%d %b %Y %H:%M}".lstrip("0")


def _said(column: str, value: Any, known: _Known, unit: str) -> str:
    """A stored value as this workshop says it."""
    if value is None or value == "" or value == [] or value == {}:
        return ""
    if column in _NAMES:
        return known.of(column, value)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if column.endswith("_m") and isinstance(value, int | float):
        return f"{length_words(value, unit)} {unit}"
    if column.endswith("_hz") and isinstance(value, int | float):
        return f"{value:.1f} Hz"
    if column.endswith("_at") or column == "until":
        return _moment(str(value))
    if column == "work" and value in CATALOGUE:
        return CATALOGUE[value].title.replace("{part} ", "").replace(", {part}", "")
    if isinstance(value, list):
        return ", ".join(str(each) for each in value)
    if isinstance(value, dict):
        return ", ".join(f"{key} {_inside(each)}" for key, each in value.items())
    return str(value)


def _inside(value: object) -> str:
    return ", ".join(str(each) for each in value.values()) if isinstance(value, dict) else str(value)


def _field(column: str) -> str:
    return _FIELDS.get(column) or column.removesuffix("_id").removesuffix("_m").removesuffix("_at").replace("_", " ")


def _named(row: Change, known: _Known, unit: str) -> str:
    said = [_said(column, row.about.get(column), known, unit) for column in _order(row)]
    return (" " if row.what == "drum" else ", ").join(each for each in said if each)


def _order(row: Change) -> Sequence[str]:
    table = next((each for each in FOLLOWED.values() if each.what == row.what), None)
    return table.about.split(",") if table else sorted(row.about)


_SAY_NOTHING: Final = {"user_id"}
"""Numbers of rows nobody sees; the name stands beside them."""


def _lines(row: Change, known: _Known, unit: str) -> list[TrailLine]:
    columns = [
        each
        for each in {**row.before, **row.after}
        if each not in _SAY_NOTHING and (row.did == Change.Did.CHANGED or each not in row.about)
    ]
    told = [
        TrailLine(
            field=_field(column),
            was=_said(column, row.before.get(column), known, unit),
            now=_said(column, row.after.get(column), known, unit),
        )
        for column in columns
    ]
    return [each for each in told if each.was or each.now]


def _shape(row: Change, known: _Known, unit: str) -> TrailEntry:
    about_drum = row.about.get("drum_id")
    own = str(row.about.get("tag", "")) if row.what == "drum" and row.did != Change.Did.REMOVED else ""
    return TrailEntry(
        id=row.pk,
        at=row.at,
        by=row.by_name,
        what=_WORDS.get(row.what, row.what),
        did=row.did,
        named=_named(row, known, unit),
        tag=own or known.tag(about_drum),
        lines=_lines(row, known, unit),
    )


def changes(unit: str, before: int | None, what: str, by: str, text: str) -> TrailPage:
    """A page of the trail, the newest first, narrowed to a sort of thing, a person, or what its name says."""
    rows = Change.objects.order_by("-id")
    if before is not None:
        rows = rows.filter(id__lt=before)
    if what:
        rows = rows.filter(what__in=[key for key, words in _WORDS.items() if words == what])
    if by:
        rows = rows.filter(by_name="" if by == MACHINE else by)
    if text:
        drums = Drum.objects.filter(Q(tag__icontains=text) | Q(name__icontains=text)).values_list("pk", flat=True)[:200]
        named = Q(about__name__icontains=text) | Q(about__tag__icontains=text) | Q(about__shown_name__icontains=text)
        rows = rows.filter(named | Q(about__drum_id__in=list(drums)))
    page = list(rows[: PAGE + 1])
    known = _Known(page)
    people = Change.objects.order_by("by_name").values_list("by_name", flat=True).distinct()
    return TrailPage(
        changes=[_shape(row, known, unit) for row in page[:PAGE]],
        more=len(page) > PAGE,
        people=[each or MACHINE for each in people],
        whats=list(_WORDS.values()),
    )


MACHINE: Final = "the machine"
"""Who a command on the machine is said to be."""


def written_rows(unit: str) -> Iterator[str]:
    """The whole trail as comma-separated values, the oldest first, a line for each thing that changed."""
    yield line_of(["at", "by", "did", "what", "which", "field", "was", "now"])
    rows = Change.objects.order_by("id")[:MOST_WRITTEN].iterator(chunk_size=2000)
    batch = list[Change]()
    for row in rows:
        batch.append(row)
        if len(batch) == PAGE * 10:
            yield from _written(batch, unit)
            batch = []
    yield from _written(batch, unit)


def _written(batch: list[Change], unit: str) -> Iterator[str]:
    known = _Known(batch)
    for row in batch:
        told = _shape(row, known, unit)
        first = [
            f"{timezone.localtime(told.at):%Y-%m-%d %H:%M:%S}",
            told.by or MACHINE,
            told.did,
            told.what,
            told.named,
        ]
        for line in told.lines or [TrailLine(field="", was="", now="")]:
            yield line_of((*first, line.field, line.was, line.now))
