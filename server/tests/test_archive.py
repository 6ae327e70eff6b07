"""A workshop's whole record out and in again: nothing lost, nothing half taken."""

from __future__ import annotations

import csv
import io
import json
import math
import re
import uuid
import zipfile
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

import jsonschema_rs
import pytest
from archived import empty_workshop, taken, told, written
from django.apps import apps
from django.contrib.postgres.fields import ArrayField, IntegerRangeField
from django.db import models
from django.db.backends.postgresql.psycopg_any import NumericRange
from house import Api, Hands, House, start_body
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from photographed import picture, send

from apps.archive import values
from apps.archive.schema import schema
from apps.archive.tables import LEFT_OUT, TABLES, columns
from apps.audit.models import Change
from apps.photos.models import Photo
from apps.register.models import Drum, Place
from apps.workshops.errors import Refused
from apps.workshops.models import Workshop
from apps.workshops.scope import enter_workshop

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture
def full(house: House, api: Api) -> House:
    """A job begun, heard and photographed, beside what every house has."""
    status, bench = api("POST", "/bench/jobs", start_body(house.drum, "settling-check", stock_item=None))
    assert status == 201, bench
    hands = Hands(api, bench["id"])
    hands.do(kind="note", text="=looked at, “twice”")
    with house.as_demo():
        api("POST", f"/hearing/jobs/{bench['id']}/simulated", {"step": "clear", "lap": 0, "rod": 1})
    assert send(api, house.drum.tag, picture(), bench["id"])[0] == 200
    house.enter()
    return house


def test_every_table_of_a_workshop_is_in_it_or_left_out_for_a_reason() -> None:
    owned = {
        model._meta.label
        for model in apps.get_models()
        if any(field.name == "workshop" for field in model._meta.concrete_fields)
    }
    written_out = {model._meta.label for model in TABLES.values()}
    left_out = set().union(*LEFT_OUT.values())
    assert owned == written_out | left_out
    assert not written_out & left_out


def test_what_is_written_is_as_the_schema_has_it(full: House) -> None:
    """Held against an independent reader of JSON Schema (draft 2020-12)."""
    kept = (ROOT / "docs" / "formats" / "archive.schema.json").read_text()
    assert json.loads(kept) == schema(), (
        "The tables changed: run tools/client, and say in docs/formats/archive.md what is new."
    )
    checked = jsonschema_rs.Draft202012Validator(schema(), validate_formats=True)
    whole = json.loads(written(full.workshop))
    assert [f"{error.instance_path}: {error.message}" for error in checked.iter_errors(whole)] == []
    whole["tables"]["drums"][0]["tag"] = 5
    assert not checked.is_valid(whole)


def test_it_comes_back_whole_beside_the_one_it_is_of(full: House) -> None:
    text = written(full.workshop)
    owner = empty_workshop("Mill")
    counts = taken(text, owner)
    assert counts["drums"] == 1
    again = written(owner.workshop)
    assert told(again) == told(text, as_in=owner.workshop)
    assert json.loads(again)["workshop"]["name"] == "Mill"  # the other still bears its own
    drum = Drum.objects.get()
    assert (drum.search.split()[0], drum.workshop_id) == (full.drum.tag.lower(), owner.workshop_id)
    line = Change.objects.latest("id")
    assert (line.by_name, line.what) == ("Owner", "workshop")
    assert not Change.objects.filter(what="drum").exists()
    photo = Photo.objects.get()
    enter_workshop(full.workshop.pk)
    assert bytes(photo.jpeg) == bytes(Photo.objects.get().jpeg)
    assert told(written(full.workshop)) == told(text)


def test_the_documented_example_is_one_and_comes_in(db: None) -> None:
    """docs/formats/archive.example.json, and the lines of it that archive.md shows."""
    folder = ROOT / "docs" / "formats"
    text = (folder / "archive.example.json").read_text(encoding="utf-8")
    jsonschema_rs.validator_for(json.loads((folder / "archive.schema.json").read_text())).validate(json.loads(text))
    shown = (folder / "archive.md").read_text(encoding="utf-8").split("```json\n")[1].split("```")[0]
    for piece in re.split(r"…|\n", shown):
        assert piece.strip(" ,") in text
    assert set(re.findall(r'"([a-z_]+)":\[', text)) >= set(TABLES)
    by = empty_workshop("Taking")
    counted = taken(text, by)
    assert {name: count for name, count in counted.items() if count} == {
        name: len(rows) for name, rows in json.loads(text)["tables"].items() if rows
    }
    drum = Drum.objects.get(tag="RT-2")
    assert (drum.name, drum.place.name, [kit.name for kit in drum.kits.all()]) == ("Coot", "loft", ["school kit"])
    assert told(written(by.workshop)) == told(text)


def test_names_given_before_stay_beside_those_that_come(full: House) -> None:
    text = written(full.workshop)
    came = set(Place.objects.values_list("name", flat=True))
    owner = empty_workshop("Mill")
    for name in ("Attic", next(iter(came)).upper()):
        Place.objects.create(workshop=owner.workshop, name=name)
    taken(text, owner)
    assert set(Place.objects.values_list("name", flat=True)) == came | {"Attic"}


def test_only_owners_have_it_and_nothing_goes_into_a_book_with_records(full: House, api: Api) -> None:
    for path in ("/api/archive/archive.json", "/api/archive/tables.zip"):
        assert api.client.get(path).status_code == 403
    full.technician.role = "owner"
    full.technician.save()
    answer = api.client.get("/api/archive/archive.json")
    assert answer["Content-Disposition"].startswith('attachment; filename="wharf-')
    text = b"".join(answer.streaming_content)
    refused = api("POST", "/archive/upload", {"key": "abcdef12", "size": len(text)})
    assert (refused[0], refused[1]["code"]) == (409, "not_empty")


def _changed(text: str, change: Any) -> str:
    whole = json.loads(text)
    change(whole)
    return json.dumps(whole)


def _first(table: str, **change: Any) -> Any:
    return lambda whole: whole["tables"][table][0].update(change)


BAD = {
    "no JSON": (lambda text: text[: len(text) // 2], "no JSON"),
    "another file": (lambda text: '{"drums": []}', "no archive of Red Tally"),
    "a newer one": (lambda text: text.replace('"version":1', '"version":2', 1), "of version 2"),
    "a number for a name": (lambda text: _changed(text, _first("drums", name=5)), "tables.drums, row 1, name: must be text"),
    "a kind nobody knows": (lambda text: _changed(text, _first("drums", kind="gong")), "tables.drums, row 1, kind"),
    "a row that is gone": (lambda text: _changed(text, lambda whole: whole["tables"]["places"].clear()), "speaks of one of tables.places"),
    "a column too many": (lambda text: _changed(text, _first("drums", colour="red")), "says colour"),
    "a column too few": (lambda text: _changed(text, lambda whole: whole["tables"]["drums"][0].pop("tag")), "says nothing of tag"),
    "a table nobody knows": (lambda text: _changed(text, lambda whole: whole["tables"].update(gongs=[])), "tables.gongs"),
    "the same row twice": (lambda text: _changed(text, lambda whole: whole["tables"]["drums"].append(whole["tables"]["drums"][0])), "the id of another row"),
    "a plan nobody can read": (lambda text: _changed(text, _first("jobs", plan={})), "tables.jobs, row 1: is none the Bench can read"),
    "an entry nobody can read": (lambda text: _changed(text, _first("entries_of_jobs", body={"kind": "sung"})), "is none the Bench can read"),
    "bytes that are none": (lambda text: _changed(text, _first("photos", jpeg="***")), "tables.photos, row 1, jpeg: must be bytes in base64"),
    "a way nobody knows": (lambda text: _changed(text, lambda whole: whole["workshop"].update(step_32=3)), "workshop, step_32: "),
    "settings that are none": (lambda text: _changed(text, lambda whole: whole.update(workshop=[])), "workshop: is no object"),
    "settings left out": (lambda text: _changed(text, lambda whole: whole.update(workshop={})), "workshop: says nothing of name, "),
    "a setting too many": (lambda text: _changed(text, lambda whole: whole["workshop"].update(colour="red")), "workshop: says colour"),
}  # fmt: skip


def test_what_cannot_be_taken_is_said_and_leaves_nothing(full: House) -> None:
    text = written(full.workshop)
    owner = empty_workshop("Mill")
    for name, (change, said) in BAD.items():
        with pytest.raises(Refused) as refused:
            taken(change(text), owner)
        assert said in refused.value.message, (name, refused.value.message)
        assert not any(model._default_manager.exists() for model in TABLES.values()), name
    kept = Workshop.objects.get(pk=owner.workshop_id)
    assert (kept.name, kept.step_32) == ("Mill", Workshop(name="x").step_32)


def test_as_tables_it_has_every_row_and_pictures_beside(full: House) -> None:
    from apps.archive.writing import tables

    whole = json.loads(written(full.workshop))
    with tables() as file, zipfile.ZipFile(file) as packed:
        for name, rows in whole["tables"].items():
            sheet = list(csv.DictReader(io.TextIOWrapper(packed.open(f"{name}.csv"), "utf-8-sig", newline="")))
            assert [row["id"] for row in sheet] == [str(row["id"]) for row in rows]
        (photo,) = Photo.objects.all()
        assert packed.read(f"photos/{photo.pk}.jpg") == bytes(photo.jpeg)
        (tap,) = whole["tables"]["taps"]
        assert (f"sounds/{tap['id']}.flac" in packed.namelist()) is (tap["sound"] is not None)
        texts = packed.read("entries_of_jobs.csv").decode("utf-8-sig")
    assert "looked at" in texts
    assert not any(cell.startswith(("=", "+", "@")) for row in csv.reader(io.StringIO(texts)) for cell in row)


def _any(field: Any) -> st.SearchStrategy[Any]:
    """Whatever a column may hold."""
    if field.null:
        return st.none() | _any_there(field)
    return _any_there(field)


def _in_json(inside: st.SearchStrategy[Any]) -> st.SearchStrategy[Any]:
    return st.lists(inside, max_size=3) | st.dictionaries(st.text(), inside, max_size=3)


def _any_there(field: Any) -> st.SearchStrategy[Any]:
    if isinstance(field, ArrayField):
        return st.lists(_any_there(field.base_field), max_size=4)
    if isinstance(field, IntegerRangeField):
        return st.integers(0, 9).flatmap(lambda low: st.builds(NumericRange, st.just(low), st.integers(low + 1, 99)))
    if isinstance(field, models.JSONField):  # where a column may not be empty, nothing is none
        leaf = (
            st.none()
            | st.booleans()
            | st.integers(-(2**53), 2**53)
            | st.floats(allow_nan=False, allow_infinity=False)
            | st.text()
        )
        return st.recursive(leaf, _in_json, max_leaves=6).filter(lambda value: value is not None)
    if isinstance(field, models.BooleanField):
        return st.booleans()
    if isinstance(field, models.ForeignKey | models.AutoField | models.IntegerField):
        return st.integers(0, 32_767)
    if isinstance(field, models.FloatField):
        return st.floats(allow_nan=False, allow_infinity=False)
    if isinstance(field, models.UUIDField):
        return st.uuids()
    if isinstance(field, models.DateTimeField):
        return st.datetimes(datetime(1990, 1, 1), datetime(2100, 1, 1), timezones=st.just(UTC))
    if isinstance(field, models.DateField):
        return st.dates(date(1990, 1, 1), date(2100, 1, 1))
    if isinstance(field, models.BinaryField):
        return st.binary(max_size=40)
    if field.choices:
        return st.sampled_from([value for value, _ in field.choices])
    return st.text(st.characters(exclude_categories=["Cs", "Cc"]), min_size=1, max_size=min(field.max_length or 60, 60))


FIELDS = [(name, field) for name, model in TABLES.items() for field in columns(model)]


@settings(suppress_health_check=[HealthCheck.too_slow])  # the first text drawn loads every character there is
@given(st.data())
def test_whatever_a_column_holds_comes_back(data: st.DataObject) -> None:
    """Over every column of every table, through JSON as text."""
    name, field = data.draw(st.sampled_from(FIELDS))
    if isinstance(field, models.ForeignKey | models.AutoField):
        return
    value = data.draw(_any(field))
    back = values.taken(field, json.loads(json.dumps(values.said(field, value), allow_nan=False)))
    if isinstance(value, float):
        assert math.isclose(back, value, rel_tol=0, abs_tol=0), name
    else:
        assert back == value or (isinstance(field, models.UUIDField) and uuid.UUID(str(back)) == value), name
