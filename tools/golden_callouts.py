"""Logs of call-outs with where the core says they stand and the most that can be won, and the note to the owner: the phone's fold, planner and writer are held against them.

Writes one JSON file: {book, form, cases of {log, stands, open, parts, minutes, worth, needs, letter}}.
"""

from __future__ import annotations

import json
import random
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "core" / "src"))

from cattrs import Converter  # noqa: E402

from drumwork.callout import (  # noqa: E402
    Book,
    Donor,
    DrumThere,
    Entered,
    HeadThere,
    LetterForm,
    fold_callout,
    letter_form,
    letter_of,
    make_book,
    open_steps,
    parts_left,
    plan_now,
    tick_key,
)
from drumwork.callout.entries import (  # noqa: E402
    Bagged,
    CalloutEntry,
    CannotDo,
    ClockSet,
    DidStep,
    NotSo,
    OwnerAnswered,
    OwnerTold,
    PutOff,
    ShowBegins,
    SoundsFine,
    StepOpenAgain,
    Ticked,
    TookStep,
    WordToOwner,
)
from drumwork.drums import DrumKind, Side  # noqa: E402
from drumwork.kits import Role  # noqa: E402
from drumwork.membrane import Film, Head  # noqa: E402
from drumwork.quantities import Length, Pitch  # noqa: E402
from drumwork.rods.layout import RodLayout  # noqa: E402

CASES = 120
_KIT = (
    ("MQ-011", "Petrel", DrumKind.SNARE, Role.SNARE, 14, 10),
    ("MQ-012", "Skua", DrumKind.RACK_TOM, Role.TOM, 12, 6),
    ("MQ-013", "Gannet", DrumKind.FLOOR_TOM, Role.TOM, 16, 8),
    ("MQ-014", "Trawler", DrumKind.BASS, Role.BASS, 22, 10),
)


def _book() -> Book:
    drums, donors = [], list[Donor]()
    for tag, name, kind, role, inches, rods in _KIT:
        layout = RodLayout(rods)
        size = Length(inches * 0.0254)
        head, lug = Head(Film.from_mil(10), size, rods), Pitch(2800.0 / inches)
        bed = frozenset({1, rods}) if kind is DrumKind.SNARE else frozenset()
        heads = {
            Side.BATTER: HeadThere(layout, head, lug),
            Side.RESONANT: HeadThere(RodLayout(rods, beside_bed=bed), head, lug),
        }
        known = (tick_key("MQ-013", "rod-missing", "resonant", 3),) if tag == "MQ-013" else ()
        drums.append(DrumThere(tag, name, kind, role, f"{inches} in", heads, "M6", known=known))
        donors.append(Donor(tag, head, layout, lug, "M6", plays_tonight=True, kind=kind))
    return make_book(drums, donors, {each[0]: each[1] for each in _KIT})


def _entry(draw: random.Random, book: Book) -> CalloutEntry:
    drum = draw.choice(book.drums)
    usual = [each for each in drum.ticks if each.usual] or list(drum.ticks)
    tick = draw.choice(usual if draw.random() < 0.8 else list(drum.ticks))
    side = Side(tick.side) if tick.side else None
    rods = drum.rods_resonant if side is Side.RESONANT else drum.rods_batter
    rod = draw.randint(1, rods) if tick.rod and rods else None
    step = draw.choice(book.steps).id
    match draw.randint(0, 24):
        case 0 | 1:
            return ClockSet(draw.choice([4, 7, 12, 20]))
        case 2 | 3 | 4:
            parts = sorted(
                {part for each in book.steps for part in each.uses if not part.startswith(("one:", "giver:"))}
            )
            return Bagged(draw.choice([*parts, "own snare"]), draw.randint(0, 2))
        case 5:
            return NotSo(drum.tag, tick.finding, side, rod)
        case 6:
            return SoundsFine(drum.tag)
        case 7:
            return draw.choice(
                [ShowBegins(), OwnerTold(), OwnerAnswered("yes"), WordToOwner(drum.tag, draw.choice(["", "a word"]))]
            )
        case 8 | 9:
            return draw.choice([TookStep, DidStep, PutOff, CannotDo, StepOpenAgain])(step)
        case _:
            return Ticked(drum.tag, tick.finding, side, rod)


def _about(draw: random.Random, book: Book, log: list[Entered]) -> CalloutEntry:
    """Often something about a step that is open."""
    steps = open_steps(book, fold_callout(book, log))
    if steps and draw.random() < 0.3:
        kind = draw.choice([TookStep, TookStep, DidStep, DidStep, PutOff, CannotDo, StepOpenAgain])
        return kind(draw.choice(steps).id)
    return _entry(draw, book)


def _case(draw: random.Random, book: Book, form: LetterForm) -> dict[str, Any]:
    to_json, start = Converter(), datetime(2026, 4, 1, 19, tzinfo=UTC)
    log: list[Entered] = []
    for n in range(draw.randint(1, 30)):
        at = start + timedelta(seconds=20 * n)
        log.append(
            Entered(
                f"e{n}",
                _about(draw, book, log) if n else ClockSet(draw.choice([6, 9, 12, 20])),
                "Ines",
                draw.choice("abb"),
                at,
            )
        )
    now = start + timedelta(seconds=20 * len(log) + draw.randint(0, 120))
    stands = fold_callout(book, log)
    plan = plan_now(book, stands, now, "b")
    return {
        "log": [
            {"id": each.id, "by": each.by, "device": each.device, "at": each.at.isoformat(), "body": {"kind": each.entry.kind, **to_json.unstructure(each.entry)}}
            for each in log
        ],
        "now": now.isoformat(),
        "stands": {
            "ticks": sorted(stands.ticks), "looked": sorted(stands.looked), "bag": stands.bag, "done": sorted(stands.done),
            "skipped": sorted(stands.skipped), "cannot": sorted(stands.cannot), "words": stands.words, "over": bool(stands.over),
            "reported": bool(stands.reported), "answered": bool(stands.answered),
            "hand": {device: step for device, (step, _) in stands.hand.items()},
        },
        "open": [each.id for each in open_steps(book, stands)],
        "parts": parts_left(book, stands),
        "minutes": plan.minutes,
        "current": plan.current,
        "worth": plan.plan.worth,
        "proved": plan.plan.proved,
        "needs": plan.needs,
        "letter": to_json.unstructure(letter_of(form, book, stands, start.date())),
    }  # fmt: skip


def main(path: str) -> None:
    draw, book = random.Random(20261128), _book()
    form = letter_form(book, "house kit", "Tide Hall", "Ines", "Marrow Quay")
    cases = [_case(draw, book, form) for _ in range(CASES)]
    to_json = Converter()
    Path(path).write_text(
        json.dumps({"book": to_json.unstructure(book), "form": to_json.unstructure(form), "cases": cases})
    )
    print(f"{len(cases)} call-outs, {len(book.steps)} steps, up to {max(len(each['open']) for each in cases)} open")


if __name__ == "__main__":
    main(sys.argv[1])
