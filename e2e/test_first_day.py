"""A shop's first day: from an empty database to the first drum on the Bench, with twenty drums brought in from a list."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys

from e2e.support.browser import Browser
from e2e.support.installation import TABLES, Installation

SIZES = (
    ("snare", '14"" x 5 1/2""', 10),
    ("tom", "12 x 8", 6),
    ("floor tom", "16 x 16", 8),
    ("kick", "559 x 457 mm", 8),
)


def book(n: int) -> str:
    kind, size, rods = SIZES[n % 4]
    bottom, wires = ("single 3 clear", "20 strands") if kind == "snare" else ("single 10 clear", "")
    return (
        f'DL-{n + 1:02},Drum {n + 1},{kind},"{size}",{rods},loft,house kit,single 10 coated,March 2024,{bottom},{wires}'
    )


@pytest.fixture
def empty() -> Iterator[Installation]:
    with Installation("first-day", steps=TABLES, workers=1) as made:
        yield made


@pytest.fixture
def petra(empty: Installation) -> Iterator[Browser]:
    opened = Browser(empty.server.url)
    yield opened
    opened.close()


def test_from_an_empty_database_to_the_first_drum_on_the_bench(
    empty: Installation, petra: Browser, tmp_path: Path
) -> None:
    word, file = empty.server.printed("first_word"), tmp_path / "cupboard.csv"
    rows = ["Tag,Drum,Type,Size,Lugs,Where,Kit,Top head,Changed,Bottom head,Snares", *map(book, range(20))]
    rows[7] = rows[7].replace("floor tom", "flor tom")
    file.write_text("\n".join(rows), encoding="utf-8")

    petra.go("/")
    petra.sees("Begin your workshop")
    petra.write("The word", word)
    petra.write("Name of the workshop", "Drying Loft")
    petra.write("Your name", "Petra Lind")
    petra.write("Name to sign in", "petra")
    petra.write("Password", "low-tide-by-noon")
    petra.one("input[type=password]").send_keys(Keys.ENTER)
    petra.sees("This book is new.")

    petra.press("Bring a list of drums in")
    petra.sees("A file is looked at first")
    petra.driver.find_element("css selector", "input[type=file]").send_keys(str(file))
    petra.sees("19 new, 0 brought up to date, 0 as they are, 1 cannot be taken.")
    petra.sees("“flor tom” is not known.")
    file.write_text("\n".join(rows).replace("flor tom", "floor tom"), encoding="utf-8")
    petra.driver.find_element("css selector", "input[type=file]").send_keys(str(file))
    petra.sees("20 new, 0 brought up to date, 0 as they are, 0 cannot be taken.")
    petra.press("Take 20 drums")
    petra.sees("cupboard.csv: taken")

    petra.go("/")  # Today has something to say in the first hour
    petra.sees("months past")
    petra.go("/drums")
    petra.press("Drum 1", "a")
    petra.sees("20 strands")
    petra.press("New batter head")
    petra.press("Not from the shelf", "label")
    petra.press("past its age", "label")
    petra.press("Start on the bench")
    petra.sees("Lay out the head, the keys and the table before you touch a rod.")
    petra.keys(" ")
    petra.sees("Mark")
