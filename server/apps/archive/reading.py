"""An archive taken into an empty workshop: all of it, or nothing."""

from __future__ import annotations

import io
import json
import re
import uuid
from collections import Counter
from collections.abc import Iterator, Mapping
from typing import Annotated, Any, BinaryIO, Final

import ijson  # type: ignore[import-untyped]
import soundfile  # type: ignore[import-untyped]
from django.db import DataError, IntegrityError, connection, transaction
from django.db.models import AutoField, Field, ForeignKey, Model, UUIDField
from django.utils import timezone
from PIL import Image
from pydantic import Field as Bounds
from pydantic import TypeAdapter, ValidationError

from apps.archive.bounds import MOST_BYTES, MOST_ROWS, bad, events
from apps.archive.proving import prove
from apps.archive.tables import FORMAT, LATER, LATER_SETTINGS, SETTINGS, TABLES, VERSION, columns, name_of
from apps.archive.values import taken
from apps.audit.models import Change
from apps.bench.models import Job, JobEvent
from apps.bench.stored import entry_from, plan_from
from apps.drums.flows import search_text
from apps.hearing.keeping import LONGEST_S
from apps.hearing.models import HeardTap
from apps.photos.models import Photo
from apps.photos.pictures import LONGEST_SIDE
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.register.schemas import DrumIn, shape_form
from apps.workshops.counting import count_anew
from apps.workshops.errors import Refused
from apps.workshops.models import Membership, Workshop
from apps.workshops.names import fit_name
from apps.workshops.once import is_alone
from apps.workshops.schemas import WaysIn
from apps.workshops.scope import without_trail
from apps.workshops.typed import Name

__all__ = ["Taken", "require_empty", "take"]

MOST_IN_A_ROW: Final = 200_000
"""Values of one row."""
_STEPS: Final = {"start_map": 1, "start_array": 1, "end_map": -1, "end_array": -1}
_AT_ONCE: Final = 500
_BYTES_AT_ONCE: Final = 8_000_000
_UUID: Final = re.compile(r"\b[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}\b")
_NAMES: Final[tuple[type[Any], ...]] = (Place, Owner, Kit)
_NAME: Final = TypeAdapter(Annotated[Name, Bounds(max_length=80)])
_NO_RECORDS: Final = ("places", "owners", "kits", "sheets_read")
"""What a workshop may hold and be empty all the same: names no drum bears yet, of which it begins with two; and how sheets were read."""
Taken = Mapping[str, int]
"""How many rows of each table came in."""


class _Taker:
    """Rows of an archive on their way into a workshop, each under a number of its own here."""

    def __init__(self, workshop: Workshop, fresh: bool) -> None:
        self.workshop, self.fresh = workshop, fresh
        self.count: Counter[str] = Counter()
        self._numbers: dict[type[Model], dict[int, int]] = {}
        self._free: dict[type[Model], list[int]] = {}
        self._there: dict[type[Model], set[Any]] = {}
        self._meant: dict[tuple[type[Model], Any], str] = {}

    def row(self, name: str, row: Any) -> Model:
        """One row as the database takes it, or why not."""
        model = TABLES[name]
        self.count[name] += 1
        where = f"tables.{name}, row {self.count[name]}"
        if not isinstance(row, dict):
            raise bad(where, "is no object")
        if self.fresh:
            row = self._renamed(row)
        fields = columns(model)
        missing = {field.name for field in fields} - row.keys() - LATER.get(name, frozenset())
        if missing:
            raise bad(where, f"says nothing of {', '.join(sorted(missing))}")
        if unknown := row.keys() - {field.name for field in fields}:
            raise bad(where, f"says {', '.join(sorted(unknown))}, which version {VERSION} does not have")
        made = model(workshop_id=self.workshop.pk)
        for field in fields:
            if field.name not in row:
                continue
            try:
                setattr(made, field.attname, self._value(field, row[field.name], where))
            except ValueError as error:
                raise bad(f"{where}, {field.name}", str(error)) from None
        there = self._there.setdefault(model, set())
        if made.pk in there:
            raise bad(where, f"has the id of another row: {row['id']}")
        there.add(made.pk)
        _readable(made, where)
        return made

    def nothing_missing(self) -> None:
        """Every row that others speak of has come."""
        for (model, key), where in self._meant.items():
            if key not in self._there.get(model, ()):
                raise bad(where, f"speaks of one of tables.{name_of(model)} that is not in the archive")

    def _value(self, field: Field[Any, Any], value: Any, where: str) -> Any:
        if isinstance(field, AutoField):
            return self._number(field.model, value)
        if isinstance(field, ForeignKey):
            if value is None:
                return taken(field, value)
            model = field.related_model
            key = uuid.UUID(str(value)) if isinstance(model._meta.pk, UUIDField) else self._number(model, value)
            self._meant.setdefault((model, key), f"{where}, {field.name}")
            return key
        return taken(field, value)

    def _number(self, model: type[Model], said: Any) -> int:
        """The number a row has here, by the one it has in the archive."""
        if not isinstance(said, int) or isinstance(said, bool):
            raise ValueError("must be a whole number")
        known = self._numbers.setdefault(model, {})
        if said not in known:
            free = self._free.setdefault(model, [])
            if not free:
                with connection.cursor() as cursor:
                    cursor.execute(
                        "select nextval(pg_get_serial_sequence(%s, 'id')) from generate_series(1, %s)",
                        [model._meta.db_table, _AT_ONCE],
                    )
                    free.extend(number for (number,) in reversed(cursor.fetchall()))
            known[said] = free.pop()
        return known[said]

    def _renamed(self, row: dict[str, Any]) -> dict[str, Any]:
        """The same with every key that is meant to be the only one in the world made another, in texts and in logs too."""
        space = uuid.uuid5(uuid.NAMESPACE_OID, f"red-tally-workshop-{self.workshop.pk}")
        text = json.dumps({key: value for key, value in row.items() if key not in ("jpeg", "sound")})
        changed: dict[str, Any] = json.loads(_UUID.sub(lambda found: str(uuid.uuid5(space, found[0])), text))
        return row | changed


def _readable(made: Model, where: str) -> None:
    """What only the Bench reads is read here once, so that no job comes in which it could not open; pictures and sounds too."""
    if isinstance(made, Photo):
        require_picture(made, where)
    if isinstance(made, HeardTap):
        require_sound(made, where)
    try:
        if isinstance(made, Job):
            plan_from(made.plan, made.plan_shape)
        elif isinstance(made, JobEvent):
            entry_from(made.body, made.version)
    except Exception as error:  # whatever its reading stumbles over: all of it is the file's
        raise bad(where, f"is none the Bench can read: {error}") from None


def require_picture(photo: Photo, where: str) -> None:
    """A JPEG of the size that is said, and no larger than any we keep."""
    try:
        with Image.open(io.BytesIO(bytes(photo.jpeg)), formats=("JPEG",)) as picture:
            fits = max(picture.size) <= LONGEST_SIDE and picture.size == (photo.width, photo.height)
            if fits:
                picture.load()
    except (OSError, SyntaxError, ValueError, Image.DecompressionBombError):
        fits = False
    if not fits or len(photo.jpeg) != photo.jpeg_bytes:
        raise bad(f"{where}, jpeg", "is no photo as they are kept here")


def require_sound(tap: HeardTap, where: str) -> None:
    """Such samples as are kept of a tap, which can be played."""
    if tap.sound is None:
        return
    try:
        with soundfile.SoundFile(io.BytesIO(bytes(tap.sound))) as sound:
            fits = sound.channels == 1 and sound.frames <= LONGEST_S * sound.samplerate + 1
            if fits:
                sound.read()
    except (RuntimeError, ValueError, TypeError):
        fits = False
    if not fits or len(tap.sound) != tap.sound_bytes:
        raise bad(f"{where}, sound", "is no sound as they are kept here")


def _head(file: BinaryIO) -> dict[str, Any]:
    """What stands before the tables."""
    head, depth = ijson.ObjectBuilder(), 0
    for number, (event, value) in enumerate(events(file)):
        if number > MOST_IN_A_ROW or (depth, event, value) == (1, "map_key", "tables"):
            break
        depth += _STEPS.get(event, 0)
        head.event(event, value)
    found = getattr(head, "value", None)
    return dict(found) if isinstance(found, dict) else {}


def _rows(file: BinaryIO) -> Iterator[tuple[str, Any]]:
    """Every row with its table, one at a time: an archive need not fit into memory."""
    depth, path, row, size, rows = 0, ["", ""], None, 0, 0  # `path`: the key of the whole, the table
    for event, value in events(file):
        if row is not None:
            row.event(event, value)
            size += 1
            if size > MOST_IN_A_ROW:
                raise bad(f"tables.{path[1]}", "has a row larger than any that is written")
        elif event == "map_key" and depth <= 2:
            path[depth - 1] = value
            if depth == 2 and path[0] == "tables" and value not in TABLES:
                raise bad(f"tables.{value[:40]}", f"is none of version {VERSION}")
        elif depth == 3 and path[0] == "tables" and not event.startswith("end"):
            row, size, rows = ijson.ObjectBuilder(), 0, rows + 1
            row.event(event, value)
            if rows > MOST_ROWS:
                raise bad("it", f"has more than {MOST_ROWS} rows. Ask whoever runs this for a backup instead")
        depth += _STEPS.get(event, 0)
        if row is not None and depth == 3 and event != "map_key":
            yield path[1], row.value
            row = None


def _settings(workshop: Workshop, said: Any) -> None:
    if not isinstance(said, dict):
        raise bad("workshop", "is no object")
    if missing := [name for name in SETTINGS if name not in said and name not in LATER_SETTINGS]:
        more = f" and {len(missing) - 3} more" if len(missing) > 3 else ""
        raise bad("workshop", f"says nothing of {', '.join(missing[:3])}{more}")
    if unknown := sorted(said.keys() - set(SETTINGS)):
        raise bad("workshop", f"says {unknown[0][:40]}, which version {VERSION} does not have")
    called = workshop.name
    for name in (each for each in SETTINGS if each in said):
        try:
            setattr(workshop, name, taken(Workshop._meta.get_field(name), said[name]))  # type: ignore[arg-type]
        except ValueError as error:
            raise bad(f"workshop, {name}", str(error)) from None
    try:
        WaysIn.model_validate(workshop, from_attributes=True)
        workshop.name = fit_name(workshop.name, workshop)
    except ValidationError as error:
        raise bad(_of_schema("workshop", error), error.errors()[0]["msg"].lower()) from None
    except Refused as error:
        if error.code != "name_taken":
            raise bad("workshop, name", error.message.rstrip(".")) from None
        workshop.name = called  # the archive's own is still here
    workshop.save()


def _of_schema(where: str, error: ValidationError) -> str:
    """Where a schema found what does not fit."""
    return ", ".join([where, *(str(each) for each in error.errors()[0]["loc"])])


def _fitting(workshop: Workshop) -> None:
    """Drums and names as a person could have given them."""
    for model in _NAMES:
        for key, name in model._default_manager.values_list("pk", "name").iterator():
            try:
                _NAME.validate_python(name)
            except ValidationError as error:
                raise bad(
                    f"tables.{name_of(model)}, id {key}, name", error.errors()[0]["msg"].lower().rstrip(".")
                ) from None
    for drum in Drum.objects.select_related("place", "owner").prefetch_related("kits").iterator(chunk_size=_AT_ONCE):
        try:
            DrumIn.model_validate(shape_form(drum, workshop.length_unit).model_dump(mode="json", warnings=False))
        except ValidationError as error:
            raise bad(
                _of_schema(f"tables.drums, {drum.tag}", error), error.errors()[0]["msg"].lower().rstrip(".")
            ) from None
        except (ValueError, ArithmeticError) as error:
            raise bad(f"tables.drums, {drum.tag}", str(error)) from None


def _store(taker: _Taker, file: BinaryIO) -> None:
    waiting: dict[type[Model], list[Model]] = {}
    held = 0  # bytes of photos and sounds that wait
    for name, row in _rows(file):
        made = taker.row(name, row)
        batch = waiting.setdefault(type(made), [])
        batch.append(made)
        held += getattr(made, "jpeg_bytes", 0) + getattr(made, "sound_bytes", 0)
        if len(batch) >= _AT_ONCE or held >= _BYTES_AT_ONCE:
            type(made)._default_manager.bulk_create(batch)
            batch.clear()
            held = 0
    for model, batch in waiting.items():
        model._default_manager.bulk_create(batch)
    taker.nothing_missing()


def require_empty() -> None:
    """
    Raises
    ------
    Refused
        where the workshop that is entered holds records already.
    """
    if any(model._default_manager.exists() for name, model in TABLES.items() if name not in _NO_RECORDS):
        raise Refused(
            "not_empty", "This workshop has records already. Begin another workshop, and bring the archive in there."
        )


def take(file: BinaryIO, size: int, by: Membership) -> Taken:
    """Into the workshop of `by`, which must hold no record yet: its settings and every row.

    Keys that are already in use on this installation (the archive's workshop is still here) are made others, everywhere alike.
    """
    if size > MOST_BYTES:
        raise Refused(
            "too_large", "An archive may have two gigabytes at most. Ask whoever runs this for a backup instead.", 422
        )
    workshop = by.workshop
    if not is_alone(uuid.uuid5(uuid.NAMESPACE_OID, f"archive into {workshop.pk}")):
        raise Refused("busy", "An archive is being read into this workshop just now. Wait until it is in, then look again.", 503)  # fmt: skip
    require_empty()
    head = _head(file)
    if head.get("format") != FORMAT:
        raise Refused(
            "no_archive", "This is no archive of Red Tally. It is the file “Everything as one file” writes.", 422
        )
    if head.get("version") != VERSION:
        raise Refused("other_version", f"This archive is of version {head.get('version')}; this Red Tally reads version {VERSION}. Bring it up to date first.", 422)  # fmt: skip
    without_trail()
    for fresh in (False, True):
        taker = _Taker(workshop, fresh)
        try:
            with transaction.atomic():
                names = [list(model._default_manager.values_list("name", flat=True)) for model in _NAMES]
                for name in _NO_RECORDS:
                    TABLES[name]._default_manager.all().delete()
                _settings(workshop, head.get("workshop"))
                _store(taker, file)
                _keep_names(workshop, names)
                _fitting(workshop)
                with connection.cursor() as cursor:
                    cursor.execute("set constraints all immediate; set constraints all deferred")
                _searchable()
                count_anew()
                prove(by)
            break
        except (IntegrityError, DataError) as error:
            if fresh or "_pkey" not in str(error):
                said = str(error).splitlines()[0]
                raise Refused(
                    "bad_archive", f"The archive contradicts itself: {said}. Nothing was taken.", 422
                ) from None
    Change.objects.create(
        workshop=workshop, at=timezone.now(), by=by.user, by_name=by.shown_name, what="workshop", row=str(workshop.pk), did="changed",
        about={"name": workshop.name}, after={"archive": f"{sum(taker.count.values())} rows brought in"},
    )  # fmt: skip
    return {name: taker.count[name] for name in TABLES}


def _keep_names(workshop: Workshop, names: list[list[str]]) -> None:
    """Names that were there before, beside those that came."""
    for model, before in zip(_NAMES, names, strict=True):
        there = {name.lower() for name in model._default_manager.values_list("name", flat=True)}
        model._default_manager.bulk_create(
            model(workshop=workshop, name=name) for name in before if name.lower() not in there
        )


def _searchable() -> None:
    names = dict(Kit.objects.values_list("pk", "name"))
    kits: dict[int, list[str]] = {}
    for key, kit in KitDrum.objects.order_by("pk").values_list("drum_id", "kit_id"):
        kits.setdefault(key, []).append(names[kit])
    drums = list(Drum.objects.select_related("place", "owner"))
    for drum in drums:
        drum.search = search_text(drum, kits.get(drum.pk, []))
    Drum.objects.bulk_update(drums, ["search"], batch_size=_AT_ONCE)
