"""An archive as somebody may have changed it by hand, and a photo to make it large with: for the tests, and for `./bench doors`."""

from __future__ import annotations

import io
import json
import random
from collections.abc import Iterator
from typing import Any

import numpy as np
from PIL import Image

__all__ = ["photo_of_noise", "tampered"]


def photo_of_noise(side: int) -> bytes:
    """A JPEG that packs badly."""
    file = io.BytesIO()
    noise = np.random.default_rng(3).integers(0, 255, (side, side, 3), dtype=np.uint8)
    Image.fromarray(noise).save(file, "JPEG", quality=80)
    return file.getvalue()


NOISE: list[Any] = [
    None, True, 0, -1, 3, 7, 32_767, 10**12, 1.5, 1e308, "", "nope", "x" * 500, "../../etc", "2036-01-01", "2026-11-30T10:00:00+00:00", [], [1], ["a"],
    [[]], {}, {"a": 1}, {"kind": "nope"}, {"batter": None}, {"batter": {"hz": "x"}}, [{"hz": "x"}], "00000000-0000-0000-0000-000000000000",
]  # fmt: skip


def spots(value: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    yield path
    inner = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, each in inner:
        yield from spots(each, (*path, key))


def tampered(text: str, dice: random.Random) -> str:
    """The archive with one to three things in it other than they were."""
    whole = json.loads(text)
    for _ in range(dice.randint(1, 3)):
        rows = [(name, row) for name, rows in whole["tables"].items() for row in rows]
        table = dice.choice([*sorted({name for name, _ in rows}), "workshop"])
        row = whole["workshop"] if table == "workshop" else dice.choice([row for name, row in rows if name == table])
        way = dice.choice([each for each in spots(row) if each])
        at = row
        for key in way[:-1]:
            at = at[key]
        if isinstance(at, dict) and dice.random() < 0.1:
            del at[way[-1]]
        else:
            at[way[-1]] = dice.choice(NOISE)
    return json.dumps(whole)
