"""`drumwork findings`: the vocabulary of what is found on a drum."""

from __future__ import annotations

import argparse
from typing import Any

from drumwork.commands.requests import answer
from drumwork.drums import DrumKind
from drumwork.findings import FINDINGS, findings_for

__all__ = ["add", "vocabulary"]


def vocabulary() -> list[dict[str, Any]]:
    """Every row, in order, with the kinds of drum it can be found on."""
    kinds = {kind.value: findings_for(kind) for kind in DrumKind}
    return [
        {
            "id": each.id,
            "where": each.where.value,
            "words": each.words,
            "answer": each.answer,
            "degrees": each.degrees,
            "follow": each.follow.value,
            "part": each.part or None,
            "kinds": [kind for kind, possible in kinds.items() if each in possible],
        }
        for each in FINDINGS.values()
    ]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=_run)


def _run(args: argparse.Namespace) -> None:
    if args.json:
        answer(vocabulary())
        return
    for each in FINDINGS.values():
        print(f"{each.id}\t{each.where.value}\t{each.words}\t{each.answer}")
