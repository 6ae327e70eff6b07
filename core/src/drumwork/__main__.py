"""The core on the command line: `bin/drumwork VERB …`."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Sequence

from drumwork.commands import (
    callout,
    choose,
    clear,
    film,
    findings,
    kit_plan,
    listen,
    pattern,
    pitch,
    rope,
    settle,
    simulate,
    twoheads,
    verdict,
    work,
)
from drumwork.errors import DrumworkError

VERBS = (
    pattern,
    pitch,
    film,
    twoheads,
    settle,
    clear,
    listen,
    simulate,
    rope,
    work,
    findings,
    verdict,
    choose,
    kit_plan,
    callout,
)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="drumwork", description="Computation for drum work.")
    verbs = parser.add_subparsers(dest="verb", required=True)
    for module in VERBS:
        module.add(verbs)
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    args = _parser().parse_args(argv)
    try:
        args.run(args)
    except DrumworkError as error:
        print(f"drumwork: {error.message}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
