"""Archives somebody changed by hand: refused whole with reasons, or every page of the workshop they make opens."""

from __future__ import annotations

import io
import json
import os
import random
import subprocess
import sys
import textwrap
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from archived import empty_workshop, taken, written
from django.db import transaction
from house import Api, House
from tampering import tampered
from test_archive import full  # noqa: F401 — the fixture

from apps.archive import proving
from apps.archive.bounds import LONGEST_TEXT, events
from apps.archive.proving import LEFT_OUT, PAGES, prove
from apps.archive.reading import _rows
from apps.archive.tables import TABLES
from apps.register.models import Drum
from apps.workshops.bounded import bounded_json
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from config.api import api as whole_api

DEEP = bool(os.environ.get("RT_DEEP"))
CASES = 500 if DEEP else 25


def gets() -> Iterator[str]:
    """Every address of the API that is read, as its routers have it."""
    for prefix, router in whole_api._routers:
        for path, view in router.path_operations.items():
            if any("GET" in each.methods for each in view.operations):
                yield f"/{prefix.strip('/')}/{path.strip('/')}".rstrip("/").replace("//", "/")


def test_every_page_that_is_read_is_proved_or_left_out_for_a_reason() -> None:
    """Held against the router itself: a page more is a page proved."""
    proved = {each.partition("?")[0] for each in PAGES}

    def shape(address: str) -> tuple[int, tuple[str, ...]]:
        parts = address.strip("/").split("/")
        return len(parts), tuple(
            each for each in parts if "{" not in each and each not in {"batter", "resonant", "settling-check"}
        )

    there = {shape(each) for each in proved | LEFT_OUT.keys()}
    missing = [each for each in gets() if shape(each) not in there]
    assert missing == []
    assert len(list(gets())) > 50


def test_the_workshop_as_it_is_opens(full: House) -> None:  # noqa: F811
    full.technician.role = "owner"
    full.technician.save()
    prove(full.technician)


def test_what_a_page_writes_by_the_way_is_not_kept(full: House, monkeypatch: pytest.MonkeyPatch) -> None:  # noqa: F811
    real = proving._open

    def writes(address: str, by: Membership) -> Any:
        Drum.objects.update(note="written by the way")
        return real(address, by)

    monkeypatch.setattr(proving, "_open", writes)
    full.technician.role = "owner"
    prove(full.technician)
    assert not Drum.objects.filter(note="written by the way").exists()


def refused(text: str, by: Membership) -> str:
    with pytest.raises(Refused) as error, transaction.atomic():
        taken(text, by)
    assert error.value.message.endswith("Nothing was taken.")
    return error.value.message


def change(text: str, path: str, value: Any) -> str:
    whole = json.loads(text)
    *way, last = path.split(".")
    at: Any = whole
    for each in way:
        at = at[int(each)] if isinstance(at, list) else at[each]
    at[last] = value
    return json.dumps(whole)


BAD = [
    ("workshop.pattern", "nope", "workshop, pattern: "),
    ("workshop.rest_minutes", 1, "workshop, rest_minutes: "),
    ("workshop.a4_hz", 1e9, "workshop, a4_hz: "),
    ("workshop.name", "\u200b ", "workshop, name: "),
    ("workshop.name", "…", "workshop, name: "),
    ("tables.places.0.name", "a\nb", "name: use one line"),
    ("tables.drums.0.name", "Wr\u0007en", "cannot be kept"),
    ("tables.drums.0.tag", "../x", "tag: "),
    ("tables.drums.0.lost_batter", [99], "tables.drums"),
    ("tables.photos.0.jpeg", "QUJD", "is no photo"),
    ("tables.photos.0.width", 7, "is no photo"),
    ("tables.taps.0.sound", "QUJD", "is no sound"),
    ("tables.taps.0.picture", [], "cannot be shown"),
    ("tables.taps.0.partials", {"a": 1}, "cannot be shown"),
    ("tables.entries_of_jobs.0.body", {"kind": "note"}, "is none the Bench can read"),
]


@pytest.mark.parametrize(("path", "value", "said"), BAD, ids=[f"{path}={value!r}"[:60] for path, value, _ in BAD])
def test_what_no_page_would_take_is_refused_by_name(full: House, path: str, value: Any, said: str) -> None:  # noqa: F811
    text = change(written(full.workshop), path, value)
    owner = empty_workshop("Mill")
    assert said in refused(text, owner)
    assert not any(model._default_manager.exists() for model in TABLES.values())


def test_any_archive_is_refused_or_every_page_it_makes_opens(full: House) -> None:  # noqa: F811
    text = written(full.workshop)
    dice = random.Random(20261202)
    owner = empty_workshop("Mill")
    came, reasons = 0, list[str]()
    for _ in range(CASES):
        changed = tampered(text, dice)
        try:
            with transaction.atomic():
                taken(changed, owner)
                came += 1
                raise _Back
        except _Back:
            continue
        except Refused as error:
            reasons.append(error.message)
    assert all(each.endswith("Nothing was taken.") for each in reasons)
    assert 0 < came < CASES


class _Back(Exception):
    """Undone, for the next."""


class TestBounds:
    @pytest.mark.parametrize(
        "raw", ["[" * 3_000 + "]" * 3_000, "[" * 200_000, '{"a":' * 3_000 + "1" + "}" * 3_000, "[NaN]", "[1e", "{"]
    )
    def test_json_from_outside(self, raw: str, api: Api, house: House) -> None:
        with pytest.raises(ValueError, match=r"."):
            bounded_json(raw)
        path = "/api/register/drums"
        answer = api.client.generic("POST", path, raw, content_type="application/json")
        assert answer.status_code == 400
        entry = '{"events": [{"id": "' + "0" * 8 + '", "body": ' + raw + "}]}"
        assert api.client.generic(
            "POST", "/api/bench/jobs/x/events", entry, content_type="application/json"
        ).status_code in (400, 404, 422)
        assert (
            api.client.post("/api/register/sheet", {"sheet": io.BytesIO(b"tag\n1\n"), "columns": raw}).status_code
            == 422
        )

    @pytest.mark.parametrize(
        "raw",
        [
            b"[" * 200_000, b'{"a":' * 200_000, b'{"format":"' + b"x" * (LONGEST_TEXT + 100_000) + b'"}', b'{"format":"' + b'\\"' * LONGEST_TEXT + b'"}',
            b"[" + b"1" * 20_000 + b"]", b'{"format":' + b" " * (LONGEST_TEXT + 100_000) + b"1}",
        ],
        ids=["lists", "objects", "a text", "a text of quotes", "a number", "blanks"],
    )  # fmt: skip
    def test_an_archive(self, raw: bytes) -> None:
        with pytest.raises(Refused):
            for _ in events(io.BytesIO(raw)):
                pass

    def test_memory_does_not_grow_with_what_is_sent(self, tmp_path: Path) -> None:
        """In a process of its own, held to 300 MB above what it has loaded: before, 0.2 MB of brackets took 22 GB."""
        code = """
            import io, resource, sys
            from apps.archive.bounds import events
            from apps.workshops.errors import Refused
            import django; django.setup()
            with open('/proc/self/status') as status:
                now = next(int(line.split()[1]) for line in status if line.startswith('VmData'))
            most = (now + 300_000) * 1024
            resource.setrlimit(resource.RLIMIT_DATA, (most, most))
            for raw in (b'[' * 200_000, b'[' * 10_000_000, b'{"a":[' + b'"b",' * 1_000_000, b'"' + b'\\\\"' * 10_000_000):
                try:
                    for _ in events(io.BytesIO(raw)): pass
                except Refused as error: print(error.code)
        """
        done = subprocess.run(
            [sys.executable, "-c", textwrap.dedent(code)], capture_output=True, text=True, cwd=Path(__file__).parents[1],
            env={**os.environ, "PYTHONPATH": f"{Path(__file__).parents[1]}:{Path(__file__).parents[2] / 'core/src'}"},
        )  # fmt: skip
        assert done.stdout.split() == ["bad_archive"] * 4, done.stderr

    def test_a_row_that_has_no_end(self, db: None) -> None:
        head = b'{"format":"red-tally-archive","version":1,"workshop":{},"tables":{"places":[{"id":[' + b"1," * 300_000
        with pytest.raises(Refused, match="larger than any"):
            for _ in _rows(io.BytesIO(head)):
                pass
