"""The shelf's arithmetic. That nothing goes below nought unasked and that used heads lie apart is common practice, no source (C10, trade §3.2)."""

from __future__ import annotations

import csv
import io
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadQuantity, DrumworkError
from drumwork.findings import FINDINGS
from drumwork.quantities import Length
from drumwork.sheets import harmless
from drumwork.shelf import (
    ARRIVALS,
    COLUMNS,
    EXPLAINED,
    WAYS,
    BadRow,
    BadSheet,
    BelowNought,
    Kept,
    Need,
    Readiness,
    SheetRow,
    Sort,
    Why,
    allot,
    arrivals_for,
    fits_wires,
    moves,
    read_sheet,
    sort_of,
)

TODAY = date(2026, 3, 2)  # a Monday
whys, numbers = st.sampled_from(Why), st.integers(1, 40)


@given(st.lists(st.tuples(whys, numbers, st.sampled_from(["", *EXPLAINED]))))
def test_a_count_is_the_sum_of_its_movements_and_never_below_nought(acts: list[tuple[Why, int, str]]) -> None:
    count, summed = 0, 0
    for why, number, explained in acts:
        try:
            made = moves(count, why, number, explained)
        except BelowNought as error:
            assert not explained
            assert WAYS[why].sign < 0
            asked = error.fields
            assert asked == {"count": count, "number": number}  # any act may do it
            continue
        for each in made:
            summed += each.delta
            assert each.after == summed >= 0
        count = made[-1].after


def test_more_than_is_there_asks_what_happened_and_is_then_two_movements() -> None:
    with pytest.raises(BelowNought, match="What happened"):
        moves(1, Why.FITTED, 3)
    assert [(each.why, each.delta) for each in moves(1, Why.FITTED, 3, "miscounted")] == [
        (Why.COUNTED, 2),
        (Why.FITTED, -3),
    ]
    with pytest.raises(BadQuantity):
        moves(1, Why.FITTED, 3, "it was the cat")


@pytest.mark.parametrize("number", [0, -1, 10**9])
def test_a_movement_of_nothing_or_of_too_much_is_refused(number: int) -> None:
    with pytest.raises(BadQuantity):
        moves(5, Why.BOUGHT, number)


def test_a_count_may_find_nothing() -> None:
    assert moves(3, Why.COUNTED, 0)[0].delta == -3


def test_every_sort_is_looked_over_on_arrival_in_the_one_vocabulary() -> None:
    assert all(arrivals_for(sort) for sort in Sort)
    assert {each.finding for each in ARRIVALS if each.finding} <= set(FINDINGS)


def need(key: str, line: str = "a", days: int = 1, promised: bool = False) -> Need:
    return Need(key, line, f"thing {line}", f"D-{key}", f"Drum {key}", TODAY + timedelta(days=days), promised)


def test_what_is_free_goes_to_the_soonest_and_the_rest_is_bought_with_its_reason() -> None:
    kept = [Kept("a", "single, 14 in", free=1, minimum=2), Kept("b", "double, 16 in", free=3, minimum=2)]
    found = allot(kept, [need("late", days=9), need("soon"), need("mine", "b", promised=True), need("new", "")], TODAY)
    assert found.stands == {
        "soon": Readiness.FREE,
        "late": Readiness.SHORT,
        "mine": Readiness.PROMISED,
        "new": Readiness.SHORT,
    }
    first, second = found.buy
    assert (first.what, first.count, first.reasons) == ("thing ", 1, ("for Drum new, tomorrow",))
    assert (second.what, second.count) == ("single, 14 in", 3)
    assert second.reasons == ("for Drum late, 11 March", "2 to keep 2 there")
    assert (second.drums, second.kept) == (("D-late",), 2)


lines = st.lists(
    st.builds(Kept, st.sampled_from("abc"), st.just("w"), st.integers(0, 5), st.integers(0, 4)),
    unique_by=lambda each: each.line,
)


@given(lines, st.lists(st.tuples(st.sampled_from("abcd"), st.integers(-3, 20), st.booleans()), max_size=12))
def test_after_buying_every_need_is_met_and_every_minimum_kept(
    kept: list[Kept], asked: list[tuple[str, int, bool]]
) -> None:
    needs = [need(str(n), line, days, promised) for n, (line, days, promised) in enumerate(asked)]
    found = allot(kept, needs, TODAY)
    bought = sum(each.count for each in found.buy)
    lines = {each.line for each in kept}
    open_needs = [each for each in needs if not each.promised]
    for each in kept:
        wanted = sum(one.line == each.line for one in open_needs)
        count = sum(one.count for one in found.buy if one.line == each.line)
        assert each.free + count - wanted >= each.minimum if count else each.free - wanted >= each.minimum
        assert count == max(0, wanted + each.minimum - each.free)
    unknown = sum(each.line not in lines for each in open_needs)
    assert bought == unknown + sum(
        max(0, sum(one.line == each.line for one in open_needs) + each.minimum - each.free) for each in kept
    )
    assert {key for key, stands in found.stands.items() if stands is Readiness.PROMISED} == {
        each.key for each in needs if each.promised
    }


def test_wires_are_never_longer_than_the_bed() -> None:
    inch = 0.0254
    assert fits_wires(14 * inch, 14 * inch)
    assert not fits_wires(14 * inch, 13 * inch)
    assert not fits_wires(12 * inch, 14 * inch)


def sheet(*rows: str, head: str = "sort,line,size,place,batch,count,minimum,used") -> list[SheetRow | BadRow]:
    return list(read_sheet(io.BytesIO("\n".join([head, *rows]).encode())))


def test_good_rows_are_read_and_each_bad_one_is_told_by_line_and_reason() -> None:
    found = sheet(
        'head,single 10 coated,"14""",B4,x1,3,2,',
        "head,single 10 coated,,B4,,3,,",
        "",
        "rod,7/32-24,52 mm,R2,,ten,,",
        "trumpet,loud,,,,1,,",
        "rod,7/32-24,52 mm,R2,,12,4,no",
        "head,double 7+7 clear,13 1/2,C1,,1,,yes",
    )
    good = [each for each in found if isinstance(each, SheetRow)]
    bad = {each.number: each.because for each in found if isinstance(each, BadRow)}
    assert [(each.number, each.count, each.used) for each in good] == [(2, 3, False), (7, 12, False), (8, 1, True)]
    assert good[0].size == Length.from_inches(14)
    assert good[2].size == Length.from_inches(13.5)
    assert sorted(bad) == [3, 5, 6]
    assert "size is missing" in bad[3]
    assert "“ten”" in bad[5]
    assert "trumpet" in bad[6]


@pytest.mark.parametrize(
    ("head", "row"),
    [
        ("sort;line;size;count", "head;zwölf klar;12 in;2"),
        ("Kind\tName\tDiameter\tQty", "head\tzwölf klar\t304,8 mm\t2"),
    ],
)
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252", "utf-16"])
def test_separators_names_of_columns_and_encodings_people_meet(head: str, row: str, encoding: str) -> None:
    (one,) = read_sheet(io.BytesIO(f"{head}\r\n{row}\r\n".encode(encoding)))
    assert isinstance(one, SheetRow)
    assert one.size is not None
    assert (one.line, one.count, one.size.inches) == ("zwölf klar", 2, 12)


@pytest.mark.parametrize("raw", [b"", b"\n\n", b"a,b,c\n1,2,3\n", b"PK\x03\x04rest", b"sort,line\nhead,x\n"])
def test_what_is_no_sheet_is_refused_with_what_to_do(raw: bytes) -> None:
    with pytest.raises(BadSheet):
        list(read_sheet(io.BytesIO(raw)))


@given(st.binary(max_size=400))
def test_no_file_breaks_the_reader(raw: bytes) -> None:
    try:
        found = list(read_sheet(io.BytesIO(b"sort,line,count\n" + raw)))
    except BadSheet:
        return
    assert all(isinstance(each, SheetRow | BadRow) for each in found)


words = st.text(st.characters(codec="utf-8", exclude_categories=["Cc", "Cs"]), min_size=1, max_size=20).map(str.strip)


@given(words.filter(bool), st.integers(0, 500), words)
def test_what_is_written_is_no_formula_and_comes_back_as_it_was(line: str, count: int, note: str) -> None:
    """A cell that begins with one of = + - @ may be run as a formula: OWASP, "CSV Injection" (from memory)."""
    out = io.StringIO()
    written = [harmless(cell) for cell in ("part", line, "", "", "", count, "", "", note)]
    assert not any(cell.startswith(("=", "+", "-", "@", "\t", "\r")) for cell in written)
    csv.writer(out).writerows([COLUMNS[:9], written])
    (row,) = read_sheet(io.BytesIO(out.getvalue().encode()))
    assert isinstance(row, SheetRow)
    assert (row.line, row.count, row.note) == (line, count, note)


def test_a_new_head_line_says_what_it_is_made_of() -> None:
    (row,) = sheet(
        "head,dotted,14,3,1,10,coated,dot,yes,batter", head="sort,line,size,count,plies,mil,finish,damping,vent,side"
    )
    assert isinstance(row, SheetRow)
    assert row.facts == {
        "plies": 1,
        "film_mil": 10.0,
        "finish": "coated",
        "damping": "dot",
        "vent": True,
        "side": "batter",
    }


def test_a_sort_nobody_keeps_is_refused() -> None:
    with pytest.raises(DrumworkError, match="head, wires, rod, claw, part"):
        sort_of("cymbal")
