"""Rows of lists people kept elsewhere. Headings and players' words are common practice, no source."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.bringing import FIELDS, BroughtDrum, Since, guess, kind_named, lacking, read_row, since_when
from drumwork.drums import TRAITS, DrumKind
from drumwork.errors import BadQuantity
from drumwork.quantities import Length, parse_length
from drumwork.sheets import BadRow

TODAY = date(2026, 11, 27)


def read(**cells: str) -> BroughtDrum | BadRow:
    return read_row(7, list(cells.values()), {name: n for n, name in enumerate(cells)}, "in", TODAY)


@pytest.mark.parametrize(
    ("header", "found"),
    [
        (["Asset No", "Drum", "Type", "Size", "Lugs", "Colour"], {"tag": 0, "name": 1, "kind": 2, "size": 3, "rods": 4}),
        (["TAG", "Name", "Kind", "Diameter", "Depth", "rods_batter", "rods_resonant"], {"tag": 0, "name": 1, "kind": 2, "diameter": 3, "depth": 4, "rods_batter": 5, "rods_resonant": 6}),
        (["id", "id", "Location:", "top head", "Snares"], {"tag": 0, "place": 2, "batter": 3, "wires": 4}),
    ],
)  # fmt: skip
def test_headings_are_recognised(header: list[str], found: dict[str, int]) -> None:
    assert guess(header) == found


def test_every_heading_means_one_thing() -> None:
    said = [words for field in FIELDS.values() for words in {field.name.replace("_", " "), *field.also}]
    twice = {words for words in said if said.count(words) > 1}
    assert not twice
    assert guess([field.words for field in FIELDS.values()]) == {name: n for n, name in enumerate(FIELDS)}


def test_what_is_lacking_is_said_and_two_columns_do_for_one() -> None:
    assert lacking(FIELDS) == []
    assert lacking({"tag", "name", "kind", "diameter", "depth", "rods_batter", "rods_resonant"}) == []
    assert lacking({"tag", "name", "kind", "diameter"}) == ["size, as 14 x 5 1/2", "rods, both sides"]


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("Snare Drum", "snare"), ("kick", "bass"), ("Bass Drum", "bass"), ("floor tom", "floor-tom"), ("Rack Toms", "rack-tom"), ("marching snare", "marching-snare"),
        ("rack-tom", "rack-tom"), ("concert tom", "concert-tom"), ("orchestral snare", "orchestral-snare"),
    ],
)  # fmt: skip
def test_kinds_in_players_words(text: str, kind: str) -> None:
    assert kind_named(text).value == kind


def test_a_mere_tom_stands_where_it_is_big_enough() -> None:
    small, big = Length.from_inches(12), Length.from_inches(16)
    assert kind_named("Tom", small, Length.from_inches(8)) is DrumKind.RACK_TOM
    assert kind_named("toms", big, big) is DrumKind.FLOOR_TOM
    assert {kind_named(traits.words) for traits in TRAITS.values()} == set(TRAITS)
    with pytest.raises(BadQuantity, match="Write one of"):
        kind_named("gong")


@pytest.mark.parametrize(
    ("text", "diameter_mm", "depth_mm"),
    [
        ("14 x 5 1/2", 355.6, 139.7), ('14" × 5,5"', 355.6, 139.7), ("356x140 mm", 356, 140), ("14x5.5in", 355.6, 139.7), ("14 in by 140 mm", 355.6, 140),
        ("13 1/2 X 6", 342.9, 152.4), ("35.6 cm * 14 cm", 356, 140),
    ],
)  # fmt: skip
def test_sizes_in_one_cell(text: str, diameter_mm: float, depth_mm: float) -> None:
    """International inch, 25.4 mm."""
    row = read(tag="A", size=text)
    assert isinstance(row, BroughtDrum), row
    assert [parse_length(row.said[name]).mm for name in ("diameter", "depth")] == pytest.approx(
        [diameter_mm, depth_mm], abs=0.01
    )


@pytest.mark.parametrize(
    ("text", "on", "dated"),
    [
        ("2024-03-05", date(2024, 3, 5), "known"), ("5.3.2024", date(2024, 3, 5), "known"), ("25/03/2024", date(2024, 3, 25), "known"),
        ("03/25/2024", date(2024, 3, 25), "known"), ("5/5/2024", date(2024, 5, 5), "known"), ("5 March 2024", date(2024, 3, 5), "known"),
        ("March 5th, 2024", date(2024, 3, 5), "known"), ("Mar 2024", date(2024, 3, 15), "guessed"), ("03/2024", date(2024, 3, 15), "guessed"),
        ("2024-03", date(2024, 3, 15), "guessed"), ("2024", date(2024, 7, 1), "guessed"), ("2024-03-05T10:11", date(2024, 3, 5), "known"),
        ("12 months", date(2025, 11, 27), "guessed"), ("2 years ago", date(2024, 11, 27), "guessed"), ("2026", date(2026, 7, 1), "guessed"),
        ("Nov 2026", date(2026, 11, 15), "guessed"), ("?", None, "unknown"), ("", None, "unknown"),
    ],
)  # fmt: skip
def test_days_are_as_exact_as_they_are_written(text: str, on: date | None, dated: str) -> None:
    assert since_when(text, TODAY) == Since(on, dated)  # type: ignore[arg-type]


@pytest.mark.parametrize(("text", "says"), [("3/5/2024", "two days"), ("31.2.2024", "is no day"), ("2027-01-01", "between 1900"), ("soon", "is no day"), ("12 2099", "is no day")])  # fmt: skip
def test_what_is_no_day_or_two_is_said(text: str, says: str) -> None:
    with pytest.raises(BadQuantity, match=says):
        since_when(text, TODAY)


def test_the_middle_of_a_month_not_over_is_today_at_the_latest() -> None:
    assert since_when("Nov 2026", date(2026, 11, 3)) == Since(date(2026, 11, 3), "guessed")
    assert since_when("2026", date(2026, 2, 3)) == Since(date(2026, 2, 3), "guessed")


@given(st.dates(min_value=date(1900, 1, 1), max_value=TODAY))
def test_iso_days_are_what_they_are(day: date) -> None:
    assert since_when(day.isoformat(), TODAY) == Since(day, "known")


def test_a_row_says_what_it_says_and_no_more() -> None:
    row = read(
        tag="MQ-1",
        name="Reed",
        kind="snare",
        size="14x5",
        rods="10.0",
        state="On loan",
        batter="single 10 coated",
        batter_since="2024",
        wires="20 strands",
    )
    assert isinstance(row, BroughtDrum), row
    assert row.said == {
        "tag": "MQ-1", "name": "Reed", "kind": "snare", "diameter": "14", "depth": "5", "rods_batter": "10", "rods_resonant": "10", "state": "out",
    }  # fmt: skip
    assert row.on_it == {
        "batter": ("single 10 coated", Since(date(2024, 7, 1), "guessed")),
        "wires": ("20 strands", Since(None, "unknown")),
    }


@pytest.mark.parametrize(
    ("cells", "says"),
    [
        ({"tag": "", "name": "x"}, "tag"), ({"tag": "A", "kind": "gong"}, "kind"), ({"tag": "A", "size": "14"}, "diameter × depth"),
        ({"tag": "A", "depth": "deep"}, "depth"), ({"tag": "A", "rods": "many"}, "rods"), ({"tag": "A", "state": "lost at sea"}, "state"),
        ({"tag": "A", "batter": "x", "batter_since": "1/2/2024"}, "two days"),
    ],
)  # fmt: skip
def test_a_bad_row_says_which_and_why(cells: dict[str, str], says: str) -> None:
    row = read(**cells)
    assert isinstance(row, BadRow)
    assert (row.number, says in row.because) == (7, True)


@given(st.dictionaries(st.sampled_from(sorted(FIELDS)), st.text(max_size=20), min_size=1))
def test_whatever_the_cells_hold_a_row_or_a_reason_comes_of_it(cells: dict[str, str]) -> None:
    found = read(**cells)
    assert isinstance(found, BroughtDrum) or found.because
