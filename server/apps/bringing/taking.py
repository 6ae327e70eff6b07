"""A list of drums taken in: new ones entered together, those that are there brought up to date by their tag, each bad row told."""

from __future__ import annotations

import hashlib
import uuid
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, time
from itertools import chain, islice
from typing import Any, BinaryIO, Final

from django.db import transaction
from django.utils import timezone
from pydantic import ValidationError

from apps.bringing.models import ReadSo
from apps.bringing.schemas import ColumnSeen, DrumsSeen, FieldKnown
from apps.drums.flows import edit_drum, search_text
from apps.drums.stands import say_what_stands
from apps.drums.stands_schemas import FoundOn, StandsIn
from apps.heads.models import Fitting
from apps.history.models import LogEntry
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.register.schemas import DrumEdit, DrumIn, shape_form, size_words, to_fields
from apps.sheets.steps import Steps
from apps.sheets.tally import Tally, within_reason
from apps.workshops.counting import MUCH, count_anew
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.bringing import FIELDS, BroughtDrum, Since, guess, lacking, read_row
from drumwork.drums import traits_of
from drumwork.sheets import BadRow, BadSheet, Table, read_table, several_of

__all__ = ["reading_drums"]

FROM: Final = "Entered from a list"
_SAMPLE: Final = 3
_BATCH: Final = 500
"""Rows that are looked up, checked and written together; so many are ever held at once."""


_Cells = tuple[int, list[str]] | BadRow
"""A line of the file by its number, or why it cannot be read."""


@dataclass
class _Fresh:
    """A drum the list enters, and what is on it."""

    drum: Drum
    kits: list[str]
    on_it: Mapping[str, tuple[str, Since]]


def _noon(since: Since, now: datetime) -> datetime:
    """When that was; of what nobody knows, now, when it was seen on."""
    if since.on is None or since.on >= timezone.localdate(now):
        return now
    return timezone.make_aware(datetime.combine(since.on, time(12)))


def _sentence(error: ValidationError) -> str:
    first = error.errors()[0]
    name = str(first["loc"][0])
    words = FIELDS[name].words if name in FIELDS else name.replace("_", " ")
    return f"{words}: {'it is missing' if first['type'] in ('missing', 'string_too_short') else first['msg']}."


class _Taking:
    """A list, so many rows at a time: what is there of their drums is read together, and those the list enters are written together."""

    def __init__(self, member: Membership, keep: bool) -> None:
        self.member, self.workshop, self.keep = member, member.workshop, keep
        self.now, self.tally = timezone.now(), Tally()
        self.rows: dict[str, int] = {}
        self.places = {each.name: each for each in Place.objects.all()}
        self.owners = {each.name: each for each in Owner.objects.all()}
        self.kits = {each.name: each for each in Kit.objects.all()}
        self.there = {tag.lower(): key for key, tag in Drum.objects.values_list("pk", "tag")}
        self.known: dict[str, Drum] = {}
        self.on: dict[tuple[int, str], Fitting] = {}
        self.fresh: list[_Fresh] = []

    def batch(self, rows: Sequence[BroughtDrum | BadRow]) -> None:
        tags = {row.tag.lower() for row in rows if isinstance(row, BroughtDrum)}
        keys = [self.there[tag] for tag in tags & self.there.keys()]
        self.known = {
            drum.tag.lower(): drum for drum in Drum.objects.filter(pk__in=keys).select_related("place", "owner")
        }
        self.on = {
            (each.drum_id, each.side): each for each in Fitting.objects.filter(drum__in=keys, retired_at__isnull=True)
        }
        # Two questions: joined, they cost far more while the tables are still growing under the planner.
        links = list(KitDrum.objects.filter(drum__in=keys).values_list("drum_id", "kit_id"))
        named = Kit.objects.in_bulk({kit for _, kit in links})
        kits = defaultdict[int, list[Kit]](list)
        for of, kit in links:
            kits[of].append(named[kit])
        for drum in self.known.values():
            drum._prefetched_objects_cache = {"kits": kits[drum.pk]}  # type: ignore[attr-defined]
        for row in rows:
            self.tally.refuse(row) if isinstance(row, BadRow) else self.row(row)
        if self.keep:
            self._write()
        self.fresh.clear()

    def row(self, row: BroughtDrum) -> None:
        name = row.tag.lower()
        try:
            if (first := self.rows.setdefault(name, row.number)) != row.number:
                raise Refused("twice", f"tag: {row.tag} is in row {first} already.", 422)
            drum = self.known.get(name)
            self._update(drum, row) if drum else self._enter(row)
            self.tally.good += 1
        except (Refused, ValidationError) as error:
            because = _sentence(error) if isinstance(error, ValidationError) else _refusal(error)
            self.tally.refuse(BadRow(row.number, because, f"{row.tag}, {row.said.get('name', '')}".rstrip(", ")))

    def _form(self, said: Mapping[str, str], base: Mapping[str, Any]) -> dict[str, Any]:
        kits = several_of(said["kits"]) if "kits" in said else base.get("kits", [])
        return {**base, **said, "kits": kits}

    def _enter(self, row: BroughtDrum) -> None:
        base: dict[str, Any] = {"place": "workshop", "owner": self.workshop.name[:80]}
        if "kind" in row.said and not traits_of(row.said["kind"]).rods:
            base |= {"rods_batter": 0, "rods_resonant": 0}
        body = DrumIn(**self._form(row.said, base))
        self._require_wires_fit(body.kind, row)
        _stands(row.on_it)
        drum = Drum(workshop=self.workshop, **to_fields(body, self.workshop))
        drum.place, drum.owner = self._place(body.place), self._owner(body.owner)
        drum.search = search_text(drum, body.kits)
        self.fresh.append(_Fresh(drum, body.kits, row.on_it))
        self.tally.new += 1
        self.tally.show(
            f"{drum.tag} {drum.name}: new, {size_words(drum.diameter_m, drum.depth_m, self.workshop.length_unit)}"
        )

    def _place(self, name: str) -> Place:
        if name not in self.places:
            self.places[name] = Place.objects.create(workshop=self.workshop, name=name)
        return self.places[name]

    def _owner(self, name: str) -> Owner:
        if name not in self.owners:
            self.owners[name] = Owner.objects.create(workshop=self.workshop, name=name)
        return self.owners[name]

    @staticmethod
    def _require_wires_fit(kind: str, row: BroughtDrum) -> None:
        if "wires" in row.on_it and not traits_of(kind).wires:
            raise Refused("no_wires", "snare wires: none lie under such a drum.", 422)

    def _update(self, drum: Drum, row: BroughtDrum) -> None:
        """What the row says anew of a drum that is there."""
        form = shape_form(drum, self.workshop.length_unit).model_dump(mode="json")
        asked = self._form({name: text for name, text in row.said.items() if name != "tag"}, form)
        body = DrumEdit(**asked)
        self._require_wires_fit(body.kind, row)
        differs = self._differs(drum, body)
        put = {place: on for place, on in row.on_it.items() if self._is_other(drum, place, on)}
        if not differs and not put:
            return
        told = []
        with transaction.atomic():  # a row is taken whole or not at all
            if differs:
                edit_drum(drum.tag, body, self.member)
            if put:
                say_what_stands(drum.tag, _stands(put), self.member)
        if differs:
            told.append(
                ", ".join(name.replace("_", " ") for name in row.said if asked.get(name) != form.get(name))
                or "its record"
            )
        if put:
            told.append("what is on it")
        self.tally.changed += 1
        self.tally.show(f"{drum.tag} {drum.name}: {'; '.join(told)}")

    def _differs(self, drum: Drum, body: DrumEdit) -> bool:
        fields = to_fields(body, self.workshop)
        there = {name: getattr(drum, name) for name in fields}
        same = all(_alike(value, there[name]) for name, value in fields.items())
        names = (drum.place.name, drum.owner.name, sorted(kit.name for kit in drum.kits.all()))
        return not same or names != (body.place, body.owner, sorted(body.kits))

    def _is_other(self, drum: Drum, place: str, on: tuple[str, Since]) -> bool:
        """Whether it is not what the record has there; a day that is not known leaves one that is."""
        what, since = on
        there = self.on.get((drum.pk, place))
        if there is None or there.head != what:
            return True
        if since.on is None:
            return False
        day = timezone.localdate(there.fitted_at)
        if since.dated == there.dated == "guessed":  # as exact as a guess is written
            return (day.year, day.month) != (since.on.year, since.on.month)
        return (there.dated, day) != (since.dated, since.on)

    def _write(self) -> None:
        """Write the drums these rows enter, with their kits, what is on them, and a line of history each."""
        fresh = self.fresh
        Drum.objects.bulk_create([each.drum for each in fresh])
        of = {"workshop": self.workshop}
        names = sorted({name for each in fresh for name in each.kits} - self.kits.keys())
        for kit in Kit.objects.bulk_create([Kit(**of, name=name) for name in names]):
            self.kits[kit.name] = kit
        KitDrum.objects.bulk_create(
            [KitDrum(**of, drum=each.drum, kit=self.kits[name]) for each in fresh for name in sorted(set(each.kits))]
        )
        Fitting.objects.bulk_create(
            [
                Fitting(
                    **of, drum=each.drum, side=place, head=what, fitted_at=_noon(since, self.now), dated=since.dated
                )
                for each in fresh
                for place, (what, since) in each.on_it.items()
            ]
        )
        LogEntry.objects.bulk_create(
            [
                LogEntry(**of, drum=each.drum, at=self.now, kind="register", text=FROM, by_name=self.member.shown_name)
                for each in fresh
            ]
        )


def _alike(one: object, other: object) -> bool:
    """Lengths and pitches are the same to what the form shows of them."""
    if isinstance(one, float) and isinstance(other, float):
        return abs(one - other) <= 1e-4 * max(1.0, abs(one))
    return one == other or (one in (None, "") and other in (None, ""))


def _refusal(error: Refused) -> str:
    if not error.fields:
        return error.message
    name, said = next(iter(error.fields.items()))
    return f"{FIELDS[name].words if name in FIELDS else name.replace('_', ' ')}: {said}"


def _stands(put: Mapping[str, tuple[str, Since]]) -> StandsIn:
    found = {
        place: FoundOn(what=what, on=since.on, dated=since.dated, months=None) for place, (what, since) in put.items()
    }
    batter, resonant, wires = (found.get(place) for place in ("batter", "resonant", "wires"))
    return StandsIn(id=uuid.uuid4(), batter=batter, resonant=resonant, wires=wires)


def _headings(header: list[str]) -> str:
    return hashlib.sha256("\0".join(each.lower() for each in header).encode()).hexdigest()


def _columns(header: list[str], asked: Mapping[str, str] | None) -> dict[str, int]:
    """By field, its column: as asked, else as such a list was read last, else as it seems.

    Raises
    ------
    Refused
        for a column that is not there, a field nobody knows, or one that two columns are to say.
    """
    if asked is None:
        kept = ReadSo.objects.filter(headings=_headings(header)).first()
        return dict(kept.columns) if kept else guess(header)
    found: dict[str, int] = {}
    for at, name in asked.items():
        if not name:
            continue
        if not (at.isascii() and at.isdecimal()) or int(at) >= len(header) or name not in FIELDS or name in found:
            raise Refused(
                "bad_columns",
                f"Two columns cannot both be “{FIELDS[name].words if name in FIELDS else name}”. Choose one.",
                422,
            )
        found[name] = int(at)
    return found


def _seen(table: Table, first: list[_Cells], columns: Mapping[str, int]) -> list[ColumnSeen]:
    by_column = {at: name for name, at in columns.items()}
    rows = [cells for _, cells in (each for each in first if not isinstance(each, BadRow))]
    return [
        ColumnSeen(
            heading=heading or f"column {at + 1}",
            sample=[cells[at][:40] for cells in rows[:_SAMPLE] if at < len(cells)],
            field=by_column.get(at, ""),
        )
        for at, heading in enumerate(table.header)
    ]


class _NotKept(Exception):
    """The list was only looked at."""


def reading_drums(file: BinaryIO, asked: Mapping[str, str] | None, keep: bool, member: Membership) -> Steps[DrumsSeen]:
    """Read a list so many rows at a time; good rows are taken if `keep`, else only told what they would do. The same list twice changes nothing.

    Parameters
    ----------
    asked : by number of the column, the field it says; None to have it guessed, or read as it was last

    Raises
    ------
    BadSheet
        for what is no sheet.
    Refused
        where it is longer than anybody's list; nothing of it is kept then.
    """
    table = read_table(file)
    if not any(table.header):
        raise BadSheet("The first line has to name the columns.")
    columns = _columns(table.header, asked)
    first = list(islice(table.rows, _SAMPLE))
    taking = _Taking(member, keep)
    missing = ["tag"] if "tag" not in columns else [] if taking.there else lacking(columns)
    if not missing:
        yield from _read(taking, chain(first, table.rows), columns)
        if keep:
            ReadSo.objects.update_or_create(
                workshop=member.workshop, headings=_headings(table.header), defaults={"columns": columns}
            )
    return DrumsSeen(
        **dict(taking.tally.seen(taken=keep and not missing)),
        columns=_seen(table, first, columns),
        fields=[FieldKnown(name=each.name, words=each.words) for each in FIELDS.values()],
        lacking=missing,
    )


def _read(taking: _Taking, rows: Iterator[_Cells], columns: Mapping[str, int]) -> Iterator[int]:
    """All in one transaction: the list is taken as a whole, or only looked at. How many rows were read, after so many each time."""
    today = timezone.localdate(taking.now)
    unit = taking.workshop.length_unit

    def told(found: _Cells) -> BroughtDrum | BadRow:
        return found if isinstance(found, BadRow) else read_row(*found, columns, unit, today)

    said = map(told, within_reason(rows))
    with suppress(_NotKept), transaction.atomic():
        while batch := list(islice(said, _BATCH)):
            taking.batch(batch)
            yield taking.tally.read
        if not taking.keep:
            raise _NotKept
        if taking.tally.new >= MUCH:
            count_anew("register", "heads", "history")
