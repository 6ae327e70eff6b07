"""docs/coverage.md is true: every step it names exists, every line of the trade notes is on it (common practice, no source)."""

import re
from collections.abc import Iterator
from pathlib import Path

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern
from drumwork.work.plan import DrumFacts
from drumwork.work.schools import SCHOOLS
from drumwork.work.ways import BedRods, Evenness, Ways

PAGE = (Path(__file__).parents[3] / "docs" / "coverage.md").read_text()
ROWS = re.findall(r"^\| (§[^|]+|P\d+) \| [^|]+ \| ([^|]+) \|$", PAGE, re.MULTILINE)
NEEDED = [
    *(f"§3.{n}" for n in range(1, 21)),
    *(f"P{n}" for n in range(1, 21)),
    *(f"§8.{n}" for n in range(1, 7)),
    *(f"§17.{n}" for n in range(1, 14)),
]
BY_SECTION = {"§4": 9, "§6": 7, "§7": 4, "§9": 7, "§14": 15, "§18": 11}


def _steps() -> Iterator[str]:
    ways = [Ways(), Ways(bed_rods=BedRods.EASED, evenness=Evenness.SOME_DOWN)]
    for kind in DrumKind:
        layouts = {side: RodLayout(8) for side in Side} if traits_of(kind).rods else {}
        drum = DrumFacts(kind, layouts, snare_bed=traits_of(kind).wires, port=True)
        for work in CATALOGUE.values():
            for part in work.parts:
                if not work.why_not(drum, part):
                    yield from (f"{work.id}:{step.id}" for each in ways for step in work.steps(part, each, drum))


def test_every_step_the_page_names_exists() -> None:
    known = {
        *_steps(),
        *(f"ways:{each.way}" for each in SCHOOLS),
        "ways:cadence",
        "command:rope",
        *(f"rods:P{n}" for n in range(1, 8)),
    }
    named = {name for _, where in ROWS for name in re.findall(r"`([^`]+)`", where)}
    assert named - known == set()


def test_no_line_of_the_trade_is_missing() -> None:
    lines = [line.strip() for line, _ in ROWS]
    assert not [each for each in NEEDED if each not in lines]
    for section, count in BY_SECTION.items():
        assert sum(line.startswith(f"{section} ") for line in lines) == count, section


def test_every_school_has_its_answers_and_they_are_ways() -> None:
    assert [each.number for each in sorted(SCHOOLS, key=lambda each: each.number)] == list(range(1, 14))
    for each in SCHOOLS:
        hint = type(getattr(Ways(), each.way))
        values = [str(value) for value in hint if value is not Pattern.ROUND]
        assert sorted(choice.value for choice in each.choices) == sorted(values), each.way
        assert all(choice.speaks_for and choice.against for choice in each.choices)
