"""The core on the command line: `bin/drumwork VERB …`."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Mapping, Sequence
from importlib import import_module
from typing import Final

from drumwork.errors import DrumworkError

VERBS: Final[Mapping[str, tuple[str, str]]] = {
    "pattern": ("pattern", "the order in which to turn the rods of a head"),
    "pitch": ("pitch", "a pitch in hertz and as a note, and how far it lies from another"),
    "film": ("film", "what a lug pitch asks of a head: tension, stress, rod load, highest safe pitch"),
    "twoheads": ("twoheads", "lug pitches of both heads for a wanted fundamental or batter pitch"),
    "settle": ("settle", "how far a new head will fall, where to leave it, when to come back"),
    "clear": ("clear", "work out turns from readings, round after round"),
    "listen": ("listen", "the pitch a tap settles at, from WAV, FLAC, AIFF or OGG"),
    "simulate": ("simulate", "write a round of taps on a simulated drum as WAV, a stand-in for a real one"),
    "rope": ("rope", "rope-tension drums: length, range, segments, pigtail"),
    "work": ("work", "the catalogue of work, and the plan of one piece of it on a drum"),
    "findings": ("findings", "the vocabulary of what is found on a drum"),
    "verdict": ("verdict", "what findings come to: JSON on standard input, JSON out"),
    "choose": ("choose", "what head goes on: JSON on standard input, JSON out"),
    "kit-plan": ("kit_plan", "wanted pitches for a kit: JSON on standard input, JSON out"),
    "callout": ("callout", "the best order for the minutes there are: JSON on standard input, JSON out"),
}
"""Of each verb the module in `drumwork.commands` and what it is for. Only the verb that is asked for is imported: most need nothing of the others."""


def _parser(asked: str) -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="drumwork", description="Computation for drum work.")
    verbs = parser.add_subparsers(dest="verb", required=True)
    for verb, (module, told) in VERBS.items():
        of_verb = verbs.add_parser(verb, help=told)
        if verb == asked:
            import_module(f"drumwork.commands.{module}").add(of_verb)
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    words = sys.argv[1:] if argv is None else list(argv)
    asked = next((each for each in words if not each.startswith("-")), "")
    args = _parser(asked).parse_args(words)
    try:
        args.run(args)
    except DrumworkError as error:
        print(f"drumwork: {error.message}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
