"""What a step does, in one closed list: by these tags the order of the work is checked, whatever a step is called."""

from __future__ import annotations

from typing import Final, Literal, get_args

__all__ = ["TAGS", "Tag"]

Tag = Literal[
    "lay-out", "wires-off", "slacken", "lift-off", "clean-edge", "check-hardware", "muffle-inside", "set-head", "align-gate", "set-hoop",
    "start-rods", "finger-tight", "seat", "stretch", "rest", "tension", "tension-bed-rods", "ring-out", "ring-in", "read", "clear",
    "other-head", "target", "port", "patch", "wires-fit", "wires-level", "wires-test", "muffle", "mount", "listen-mounted", "write-date",
    "book", "close", "unlace", "slide-head", "take-up-slack", "align-shell", "ears-on", "range-check", "pull-pass", "pigtail", "chain",
    "mark", "look", "repair", "stop", "ears-off", "segment-map", "turn", "lever", "re-thread", "inside-out",
]  # fmt: skip
TAGS: Final[tuple[str, ...]] = get_args(Tag)
