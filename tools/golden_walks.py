"""Logs of walks with how the core says each drum was found: the device's fold and its words for spots are held against them.

Writes one JSON file: cases of {drums, log, looks, spots}.
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

from drumwork.deciding import Verdict  # noqa: E402
from drumwork.drums import Side  # noqa: E402
from drumwork.findings import FINDINGS  # noqa: E402
from drumwork.inspecting import (  # noqa: E402
    Again,
    Changed,
    DrumLook,
    Entered,
    GoesOut,
    Gone,
    Looked,
    NotHere,
    Overruled,
    Seen,
    Spot,
    TakenBack,
    WalkEntry,
    fold,
    spot_words,
)
from drumwork.rods.layout import RodLayout  # noqa: E402

CASES = 300
TAGS = ("MQ-001", "MQ-002", "MQ-003")


def _spot(draw: random.Random) -> Spot:
    while True:
        x, y = round(draw.uniform(-1, 1), 2), round(draw.uniform(-1, 1), 2)
        if x * x + y * y <= 1:
            return Spot(x, y)


def _entry(draw: random.Random, made: list[str]) -> WalkEntry:
    tag, before = draw.choice(TAGS), draw.choice(made) if made else "none"
    match draw.randint(0, 11):
        case 0 | 1 | 2 | 3:
            side = draw.choice([None, *Side])
            rod = draw.choice([None, draw.randint(1, 6)])
            return Seen(
                tag, draw.choice(list(FINDINGS)), draw.randint(1, 3), side, rod, _spot(draw) if side else None, "a word"
            )  # type: ignore[arg-type]
        case 4 | 5:
            degree, spot = draw.choice([None, 1, 2, 3]), draw.choice([None, _spot(draw)])
            return Changed(tag, before, degree, draw.choice([None, 4]), spot, draw.choice([None, "", "another"]))  # type: ignore[arg-type]
        case 6:
            return draw.choice([Again, Gone])(tag, tuple(draw.sample(range(5), 2)))
        case 7:
            return GoesOut(tag, draw.random() < 0.5)
        case 8:
            return Looked(tag)
        case 9:
            return NotHere(tag)
        case 10:
            return Overruled(tag, draw.choice(["batter", "wires"]), draw.choice(list(Verdict)), "because")  # type: ignore[arg-type]
        case _:
            return TakenBack(tag, before)


def _told(look: DrumLook) -> dict[str, Any]:
    return {
        "marks": [
            {
                "event": mark.event,
                "finding": mark.finding,
                "degree": mark.degree,
                "side": mark.side.value if mark.side else None,
                "rod": mark.rod,
                "spot": {"x": mark.spot.x, "y": mark.spot.y} if mark.spot else None,
                "note": mark.note,
            }
            for mark in look.marks.values()
        ],
        "again": sorted(look.again),
        "gone": sorted(look.gone),
        "out": look.going_out,
        "looked": look.looked.id if look.looked else None,
        "notHere": look.not_here.id if look.not_here else None,
        "overruled": {part: each.entry.verdict.value for part, each in look.overruled.items()},  # type: ignore[attr-defined]
    }


def _case(draw: random.Random) -> dict[str, Any]:
    to_json, start = Converter(), datetime(2026, 4, 1, 8, tzinfo=UTC)
    log: list[Entered] = []
    for n in range(draw.randint(1, 30)):
        entry = _entry(draw, [each.id for each in log])
        log.append(Entered(f"e{n}", entry, "Ines", start + timedelta(seconds=n)))
    looks = fold(log)
    rods, at_rod, spot = draw.randint(4, 16), draw.random() < 0.5, _spot(draw)
    return {
        "drums": list(TAGS),
        "log": [{"id": each.id, "body": {"kind": each.entry.kind, **to_json.unstructure(each.entry)}} for each in log],
        "looks": {tag: _told(looks.get(tag, DrumLook())) for tag in TAGS},
        "spot": {
            "rods": rods,
            "atRod": at_rod,
            "at": {"x": spot.x, "y": spot.y},
            "words": spot_words(spot, RodLayout(rods), at_rod),
        },
    }


def main(path: str) -> None:
    draw = random.Random(20261127)
    cases = [_case(draw) for _ in range(CASES)]
    Path(path).write_text(json.dumps(cases))
    print(f"{len(cases)} walks, {sum(len(case['log']) for case in cases)} entries")


if __name__ == "__main__":
    main(sys.argv[1])
