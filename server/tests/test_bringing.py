"""Existing drums brought in: new ones entered, known ones brought up to date, each bad row told; and all of them out again."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from house import Api, House, make_drum
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from openpyxl import Workbook

from apps.bringing.models import ReadSo
from apps.heads.models import Fitting, StockItem
from apps.history.models import LogEntry
from apps.register.models import Drum, Kit, Place
from apps.workshops.counting import count_anew
from apps.workshops.models import Workshop
from drumwork.bringing import FIELDS, guess

LIST = (
    "Asset;Drum;Type;Size;Lugs;Location;Kit;Top head;Head changed;Snares\n"
    'SD-1;Reed;Snare Drum;14 x 5,5;10;loft;"school kit, band";single 10 coated;March 2026;20 strands\n'
    "TT-1;Coot;Tom;12x8;6;loft;school kit;;;\n"
)


def send(
    api: Api, raw: bytes | str, columns: dict[str, str] | None = None, keep: bool = True, name: str = "drums.csv"
) -> tuple[int, Any]:
    file = SimpleUploadedFile(name, raw.encode() if isinstance(raw, str) else raw)
    body = {"sheet": file, **({"columns": json.dumps(columns)} if columns is not None else {})}
    answer = api.client.post(f"/api/register/sheet{'' if keep else '/look'}", body)
    return answer.status_code, answer.json()


def counts(seen: dict[str, Any]) -> tuple[int, int, int, int]:
    return seen["new"], seen["changed"], seen["same"], seen["bad"]


def test_a_list_is_looked_at_then_taken_with_what_is_on_the_drums(api: Api, house: House) -> None:
    status, seen = send(api, LIST, keep=False)
    assert (status, counts(seen), seen["taken"], seen["lacking"]) == (200, (2, 0, 0, 0), False, [])
    assert [each["field"] for each in seen["columns"]] == [
        "tag",
        "name",
        "kind",
        "size",
        "rods",
        "place",
        "kits",
        "batter",
        "batter_since",
        "wires",
    ]
    assert seen["columns"][1]["sample"] == ["Reed", "Coot"]
    assert Drum.objects.count() == 1
    assert counts(send(api, LIST)[1]) == (2, 0, 0, 0)
    drum = Drum.objects.get(tag="SD-1")
    assert (drum.kind, drum.rods_batter, drum.rods_resonant, drum.place.name, drum.owner.name) == (
        "snare",
        10,
        10,
        "loft",
        "Wharf",
    )
    assert drum.diameter_m == pytest.approx(0.3556)
    assert drum.depth_m == pytest.approx(0.1397)
    assert sorted(kit.name for kit in drum.kits.all()) == ["band", "school kit"]
    on = {each.side: (each.head, each.dated) for each in Fitting.objects.filter(drum=drum)}
    assert on == {"batter": ("single 10 coated", "guessed"), "wires": ("20 strands", "unknown")}
    assert LogEntry.objects.get(drum=drum).text == "Entered from a list"
    assert "reed" in api("GET", "/register/drums?text=reed")[1]["drums"][0]["name"].lower()
    assert counts(send(api, LIST)[1]) == (0, 0, 2, 0), "the same list twice changes nothing"


def test_a_known_tag_is_brought_up_to_date_and_what_is_not_said_stays(api: Api, house: House) -> None:
    send(api, LIST)
    more = "Asset;Drum;Location;Top head;Head changed\nsd-1;Reed Warbler;;single 10 clear;?\nTT-1;Coot;slip;;\n"
    status, seen = send(api, more)
    assert (status, counts(seen)) == (200, (0, 2, 0, 0))
    drum = Drum.objects.get(tag="SD-1")
    assert (drum.name, drum.place.name, drum.rods_batter) == ("Reed Warbler", "loft", 10)
    now = Fitting.objects.get(drum=drum, side="batter", retired_at__isnull=True)
    assert (now.head, now.dated) == ("single 10 clear", "unknown")
    assert Drum.objects.get(tag="TT-1").place.name == "slip"
    assert counts(send(api, more)[1]) == (0, 0, 2, 0)


def test_each_bad_row_is_told_and_the_good_ones_are_taken(api: Api, house: House) -> None:
    raw = (
        "tag,name,kind,size,lugs,snares\n"
        "A1,One,gong,14x5,8,\n"
        "A2,,snare,14x5,8,\n"
        "A3,Three,snare,14x5,33,\n"
        "A4,Four,snare,14x500,8,\n"
        "A5,Five,rack tom,12x8,6,20 strands\n"
        "A6,Six,snare,13 1/2 x 6,8,\n"
        "a6,Six again,snare,14x5,8,\n"
        ",Nobody,snare,14x5,8,\n"
        '/etc,Odd,snare,14x5,8,\n'
    )  # fmt: skip
    seen = send(api, raw)[1]
    assert counts(seen) == (1, 0, 0, 8)
    told = {each["line"]: each["because"] for each in seen["problems"]}
    for line, says in {
        2: "kind",
        3: "name",
        4: "rods",
        5: "depth",
        6: "wires",
        8: "row 7",
        9: "tag",
        10: "tag",
    }.items():
        assert says in told[line], (line, told[line])
    assert Drum.objects.get(tag="A6").diameter_m == pytest.approx(0.3429)


def test_columns_nobody_could_guess_are_chosen_and_remembered(api: Api, house: House) -> None:
    raw = "Nummer;Wie es heißt;Was;Größe;Schrauben\nT9;Krähe;snare;14x5;8\n"
    seen = send(api, raw, keep=False)[1]
    assert seen["lacking"] == ["tag"]
    chosen = {"0": "tag", "1": "name", "2": "kind", "3": "size", "4": "rods"}
    assert counts(send(api, raw, chosen)[1]) == (1, 0, 0, 0)
    again = send(api, raw.replace("T9", "T10"), keep=False)[1]
    assert (counts(again), [each["field"] for each in again["columns"]]) == ((1, 0, 0, 0), list(chosen.values()))
    assert ReadSo.objects.count() == 1
    assert send(api, raw, {"0": "tag", "1": "tag"})[0] == 422
    assert send(api, raw, {"9": "tag"})[0] == 422


def test_a_workbook_does_as_well(api: Api, house: House) -> None:
    book = Workbook()
    book.active.append(["tag", "name", "kind", "diameter", "depth", "rods", "batter head", "batter head since"])
    book.active.append(["X1", "Reed", "snare", 14, 5.5, 10, "single 10 coated", date(2026, 3, 5)])
    out = io.BytesIO()
    book.save(out)
    assert counts(send(api, out.getvalue(), name="drums.xlsx")[1]) == (1, 0, 0, 0)
    on = Fitting.objects.get(drum__tag="X1")
    assert (on.dated, timezone.localdate(on.fitted_at)) == ("known", date(2026, 3, 5))


@pytest.mark.parametrize("raw", [b"", b"PK\x03\x04no", b"\xd0\xcf\x11\xe0", b"\0\0\0"])
def test_what_is_no_list_is_refused(api: Api, house: House, raw: bytes) -> None:
    status, answer = send(api, raw)
    assert (status, bool(answer["message"])) == (422, True)


def test_a_list_longer_than_anybodys_is_not_taken_in_part(
    api: Api, house: House, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("apps.sheets.tally.MOST_ROWS", 2)
    raw = "tag,name,kind,size,rods\n" + "".join(f"L{n},Long,snare,14x5,8\n" for n in range(3))
    assert send(api, raw)[1]["code"] == "too_long"
    assert Drum.objects.count() == 1


def test_a_long_list_is_read_with_a_handful_of_statements(
    api: Api, house: House, django_assert_max_num_queries: Any
) -> None:
    raw = "tag,name,kind,size,rods,place,kit,batter\n" + "".join(
        f"L{n},Long,snare,14x5,8,loft,k{n % 3},x\n" for n in range(3000)
    )
    with django_assert_max_num_queries(60):
        assert counts(send(api, raw)[1]) == (3000, 0, 0, 0)
    with django_assert_max_num_queries(40):
        assert counts(send(api, raw)[1]) == (0, 0, 3000, 0)


def steps(api: Api, path: str, raw: str) -> Any:
    """The lines of an answer, as they come."""
    file = SimpleUploadedFile("list.csv", raw.encode())
    return api.client.post(f"/api{path}", {"sheet": file}, headers={"accept": "application/x-ndjson"})


def long_list(rows: int, start: int = 0) -> str:
    lines = (f"L{n},Long,snare,14x5,8,loft,k{n % 3},x\n" for n in range(start, rows))
    return "tag,name,kind,size,rods,place,kit,batter\n" + "".join(lines)


def test_a_long_list_tells_how_far_it_is_and_then_what_it_came_to(api: Api, house: House) -> None:
    answer = steps(api, "/register/sheet", long_list(1200))
    assert answer.headers["Content-Type"] == "application/x-ndjson"
    lines = [json.loads(line) for line in answer.streaming_content]
    assert [line["read"] for line in lines[:-1]] == [500, 1000, 1200]
    house.enter()
    assert (counts(lines[-1]["seen"]), Drum.objects.count()) == ((1200, 0, 0, 0), 1201)
    assert lines[-1]["seen"] == send(api, long_list(1200))[1] | {
        "new": 1200,
        "same": 0,
        "shown": lines[-1]["seen"]["shown"],
    }


@pytest.mark.parametrize("path", ["/register/sheet", "/shelf/sheet"])
def test_stopped_anywhere_it_leaves_nothing(api: Api, house: House, path: str) -> None:
    raw = long_list(1200)
    if "shelf" in path:
        raw = "sort,line,count\n" + "".join(f"part,washer {n},3\n" for n in range(1200))
    for after in (1, 2):
        answer = steps(api, path, raw)
        lines = iter(answer.streaming_content)
        assert [json.loads(next(lines))["read"] for _ in range(after)] == [500, 1000][:after]
        answer._iterator.close()  # as the server does where a caller is gone
        house.enter()
        assert (Drum.objects.count(), Place.objects.count(), StockItem.objects.count(), ReadSo.objects.count()) == (1, 1, 1, 0)  # fmt: skip
    house.enter()
    assert json.loads(list(steps(api, path, raw).streaming_content)[-1])["seen"]["new"] == 1200


def test_what_is_refused_on_the_way_is_the_last_line_and_nothing_stays(
    api: Api, house: House, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("apps.sheets.tally.MOST_ROWS", 700)
    lines = [json.loads(line) for line in steps(api, "/register/sheet", long_list(1200)).streaming_content]
    assert (lines[0], lines[-1]["status"], lines[-1]["error"]["code"]) == ({"read": 500}, 422, "too_long")
    house.enter()
    assert Drum.objects.count() == 1
    lines = [json.loads(line) for line in steps(api, "/shelf/sheet", "nothing\nof it\n").streaming_content]
    assert [set(line) for line in lines] == [{"error", "status"}]


def test_tags_differing_in_case_are_one_drum_wherever_they_stand(api: Api, house: House) -> None:
    raw = long_list(600) + "l3,Again,snare,14x5,8,loft,k1,x\n"
    status, seen = send(api, raw)
    assert (status, counts(seen), seen["problems"][0]["because"]) == (
        200,
        (600, 0, 0, 1),
        "tag: l3 is in row 5 already.",
    )


def test_tags_are_one_in_large_and_small_whatever_the_database_thinks_of_the_letter(api: Api, house: House) -> None:
    head = "tag,name,kind,size,rods\n"
    assert counts(send(api, head + "ÄØ-1,Ärmel,snare,14x5,8\n")[1]) == (1, 0, 0, 0)
    assert counts(send(api, head + "äø-1,Ärmel,snare,14x5,8\n")[1]) == (0, 0, 1, 0)
    assert counts(send(api, head + "äø-1,Hülse,snare,14x5,8\n")[1]) == (0, 1, 0, 0)


def test_a_job_in_hand_keeps_its_drum(api: Api, house: House, hands: Any) -> None:
    seen = send(api, "tag,rods\nWR-001,8\n")[1]
    assert (counts(seen), "in hand" in seen["problems"][0]["because"].lower()) == ((0, 0, 0, 1), True)


def test_another_workshops_drum_of_the_same_tag_is_not_touched(api: Api, house: House, other: House) -> None:
    send(api, "tag,name\nWR-001,Ours now\n")
    other.enter()
    assert Drum.objects.get(tag="WR-001").name == "Wren"


def test_a_viewer_brings_nothing_in(house: House) -> None:
    assert send(Api(house.viewer), LIST)[0] == 403


def out(api: Api) -> bytes:
    answer = api.client.get("/api/register/sheet.csv")
    return b"".join(answer.streaming_content)


def test_what_goes_out_comes_in_unchanged(api: Api, house: House, other: House) -> None:
    """In the workshop it came from it changes nothing; in an empty one it makes the same again."""
    send(api, LIST)
    Drum.objects.filter(tag="SD-1").update(note="=SUM(A1)", hours_week=2.5, wanted_batter_hz=301.5, state="repair")
    raw = out(api)
    assert counts(send(api, raw)[1]) == (0, 0, 3, 0)
    fresh = Api(other.technician)
    other.enter()
    Drum.objects.all().delete()
    assert counts(send(fresh, raw)[1]) == (3, 0, 0, 0)
    assert list(csv.reader(io.StringIO(out(fresh).decode("utf-8-sig")))) == list(
        csv.reader(io.StringIO(raw.decode("utf-8-sig")))
    )


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    # U+FFFD is what a character becomes that could not be read, and is refused as such.
    name=st.text(st.characters(categories=["L", "N", "P", "S", "Zs"], exclude_characters="\ufffd"), min_size=1, max_size=30).map(str.strip).filter(bool),
    eighths=st.integers(4 * 8, 40 * 8), deep=st.integers(2 * 8, 40 * 8), rods=st.integers(4, 16),
    note=st.text(st.characters(exclude_categories=["C", "Z"], exclude_characters="\ufffd"), max_size=40),
    days=st.integers(0, 20_000), dated=st.sampled_from(["known", "guessed", "unknown"]),
)  # fmt: skip
def test_whatever_a_drum_is_its_row_brings_it_back(
    api: Api, house: House, name: str, eighths: int, deep: int, rods: int, note: str, days: int, dated: str
) -> None:
    Drum.objects.exclude(pk=house.drum.pk).delete()
    drum = make_drum(
        house.workshop, "P-1", name=name, diameter_m=eighths * 0.0254 / 8, depth_m=deep * 0.0254 / 8, rods_batter=rods, rods_resonant=rods, note=note,
        wanted_batter_hz=None,
    )  # fmt: skip
    at = timezone.now() - timedelta(days=days)
    Fitting.objects.create(workshop=house.workshop, drum=drum, side="batter", head="x", fitted_at=at, dated=dated)
    raw = out(api)
    facts = [
        Drum.objects.filter(tag="P-1").values_list("name", "kind", "rods_batter", "note").get(),
        Fitting.objects.get(drum=drum).dated,
    ]
    drum.delete()
    seen = send(api, raw)[1]
    assert counts(seen) == (1, 0, 1, 0), seen["problems"]
    assert counts(send(api, raw)[1]) == (0, 0, 2, 0), "and brought again it changes nothing"
    again = Drum.objects.get(tag="P-1")
    assert [
        Drum.objects.filter(tag="P-1").values_list("name", "kind", "rods_batter", "note").get(),
        Fitting.objects.get(drum=again).dated,
    ] == facts
    assert (again.diameter_m, again.depth_m) == pytest.approx((eighths * 0.0254 / 8, deep * 0.0254 / 8))


def test_places_and_kits_are_made_once(api: Api, house: House) -> None:
    send(api, LIST)
    assert Place.objects.filter(name="loft").count() == 1
    assert Kit.objects.filter(name="school kit").count() == 1
    assert Workshop.objects.filter(pk=house.workshop.pk).exists()


def test_the_documented_format_is_the_one_that_is_read(api: Api, house: House) -> None:
    """docs/formats/drums.md: its headings are all recognised as what it says, and its example is taken whole."""
    text = (Path(__file__).parents[2] / "docs" / "formats" / "drums.md").read_text(encoding="utf-8")
    table = [line.strip("| ").split(" | ") for line in text.splitlines() if line.startswith("| ")][1:]
    assert [words for words, _ in table] == [field.words for field in FIELDS.values()]
    for field, (_, headings) in zip(FIELDS.values(), table, strict=True):
        for heading in headings.split(", "):
            assert guess([heading]) == {field.name: 0}, heading
    told = text.split("a column headed ")[1].split(" tells since when")[0]
    for heading in told.replace(" or ", ", ").split(", "):
        assert guess(["tag", "Top Head", heading]) == {"tag": 0, "batter": 1, "batter_since": 2}, heading
    example = text.split("```csv\n")[1].split("```")[0]
    assert counts(send(api, example)[1]) == (3, 0, 0, 0)
    assert Drum.objects.get(tag="RT-2").diameter_m == pytest.approx(0.33)
    on = {
        (each.drum.tag, each.side): each.dated
        for each in Fitting.objects.select_related("drum").filter(drum__tag__startswith="RT")
    }
    assert on == {
        ("RT-1", "batter"): "known",
        ("RT-1", "resonant"): "unknown",
        ("RT-1", "wires"): "unknown",
        ("RT-2", "batter"): "guessed",
    }


def test_after_a_long_list_the_database_counts_its_tables_anew(
    api: Api, house: House, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("apps.bringing.taking.MUCH", 40)
    rows = "".join(f"LN-{number:03d},Coot,Tom,12x8,6\n" for number in range(80))

    def counted() -> float:
        with connection.cursor() as cursor:
            cursor.execute("select reltuples from pg_class where relname = 'register_drum'")
            return float(cursor.fetchone()[0])

    with CaptureQueriesContext(connection) as short:
        assert send(api, "tag,name,kind,size,rods\n" + rows[: rows.index("LN-030")])[1]["new"] == 30
    assert not [each for each in short if each["sql"].startswith("analyze")]
    assert send(api, "tag,name,kind,size,rods\n" + rows)[1]["new"] == 50
    house.enter()
    assert counted() == Drum.objects.count() == 81


@pytest.mark.django_db
def test_counting_waits_longer_than_the_databases_own_sweeper_takes_to_give_way() -> None:
    """PostgreSQL manual, 19.12: who waits for a lock looks after `deadlock_timeout` whether autovacuum holds it, and ends that."""
    with CaptureQueriesContext(connection) as said:
        count_anew("register")
    (ours,) = [each["sql"].split("'")[1] for each in said if each["sql"].startswith("set local lock_timeout")]
    with connection.cursor() as cursor:
        cursor.execute("select setting::int from pg_settings where name = 'deadlock_timeout'")
        (sweeper_ms,) = cursor.fetchone()
    assert int(ours.removesuffix("s")) * 1_000 >= 2 * sweeper_ms


@pytest.mark.parametrize("unit", ["in", "mm"])
def test_what_is_written_out_comes_back_as_it_was(api: Api, house: House, unit: str) -> None:
    """330 mm in a workshop of inches, 14 in in one of millimetres, a kit with a comma in its name."""
    house.workshop.length_unit = unit
    house.workshop.save()
    Drum.objects.update(diameter_m=0.330, depth_m=14 * 0.0254, port_m=0.1016)
    kits = {"name": "A, B", "drums": [{"tag": "WR-001"}]}
    assert api("POST", "/kits", kits)[0] == 201
    sheet = b"".join(api.client.get("/api/register/sheet.csv").streaming_content)
    before = Drum.objects.values().get()
    status, seen = send(api, sheet)
    assert (status, counts(seen)) == (200, (0, 0, 1, 0)), seen
    house.enter()
    assert Drum.objects.values().get() == before
    assert [each.name for each in Kit.objects.all()] == ["A, B"]
    form = api("GET", "/register/drums/WR-001")[1]
    assert api("PUT", "/register/drums/WR-001", {**form, "note": "seen"})[0] == 200
    house.enter()
    assert Drum.objects.values_list("diameter_m", "depth_m", "port_m").get() == pytest.approx(
        (0.330, 0.3556, 0.1016), abs=1e-9
    )


@pytest.mark.parametrize(
    "columns", [{"²": "tag"}, {"-1": "tag"}, {"1e3": "tag"}, {"９": "tag"}, {"99999999999999999999": "tag"}]
)
def test_a_column_that_is_no_number_is_refused(api: Api, house: House, columns: dict[str, str]) -> None:
    status, answer = send(api, LIST, columns)
    assert (status, answer["code"]) == (422, "bad_columns")


def test_a_broken_workbook_is_refused_in_words_and_leaves_nothing(api: Api, house: House) -> None:
    book = Workbook()
    for row in (
        ["tag", "name", "kind", "size", "rods"],
        ["B-1", "Coot", "tom", "12x8", 6],
        ["B-2", "Coot", "tom", "12x8", 6],
    ):
        book.active.append(row)
    raw = io.BytesIO()
    book.save(raw)
    out = io.BytesIO()
    with zipfile.ZipFile(raw) as whole, zipfile.ZipFile(out, "w") as made:
        for name in whole.namelist():
            content = whole.read(name)
            made.writestr(
                name, content.replace(b'<row r="3"', b'<row r="900000000"') if name.endswith("sheet1.xml") else content
            )
    for keep in (False, True):
        status, answer = send(api, out.getvalue(), keep=keep, name="drums.xlsx")
        assert (status, answer["code"], "900000000" in answer["message"]) == (422, "bad_sheet", True)
    house.enter()
    assert Drum.objects.count() == 1
