"""JSON as it comes from outside, read within bounds: nobody types a thousand lists into one another."""

from __future__ import annotations

import json
from typing import Any, Final, NoReturn

__all__ = ["DEEPEST", "bounded_json"]

DEEPEST: Final = 40
"""So many lists and objects within one another; the deepest an app of ours sends is below ten."""


def bounded_json(raw: str | bytes) -> Any:
    """
    Raises
    ------
    ValueError
        for what is no JSON (RFC 8259: no NaN, no infinity), or nests deeper than `DEEPEST`.
    """
    try:
        found = json.loads(raw, parse_constant=_no_number)
    except RecursionError:
        raise ValueError(_TOO_DEEP) from None
    layer, depth = [found], 0
    while layer:  # a layer at a time: what asks for depth must not itself go deep
        depth += 1
        if depth > DEEPEST:
            raise ValueError(_TOO_DEEP)
        layer = [
            inner
            for each in layer
            if isinstance(each, list | dict)
            for inner in (each.values() if isinstance(each, dict) else each)
            if isinstance(inner, list | dict)
        ]
    return found


_TOO_DEEP: Final = "it nests too deep"


def _no_number(name: str) -> NoReturn:
    raise ValueError(f"{name} is no number in JSON")
