"""Choosing: from drum, use and wanted sound to two or three heads, with reasons, and what is excluded and why."""

from drumwork.choosing.beaters import BEATERS, PATCHES, Beater, BeaterAnswer, Patch, choose_beater
from drumwork.choosing.changes import changes
from drumwork.choosing.choose import Answer, Choice, Excluded, alike, choose, judge
from drumwork.choosing.rules import RULES, Rule
from drumwork.choosing.specs import SPECS, Spec
from drumwork.choosing.wanted import BUDGETS, NEEDS, USES, WORDS, Wanted
from drumwork.choosing.wires import (
    MADE,
    TIES,
    WIRE_RULES,
    WIRE_SPECS,
    WireAnswer,
    WireChoice,
    WireExcluded,
    WireSpec,
    WiresWanted,
    choose_wires,
    judge_wires,
)

__all__ = [
    "BEATERS", "BUDGETS", "MADE", "NEEDS", "PATCHES", "RULES", "SPECS", "TIES", "USES", "WIRE_RULES", "WIRE_SPECS", "WORDS", "Answer", "Beater",
    "BeaterAnswer", "Choice", "Excluded", "Patch", "Rule", "Spec", "Wanted", "WireAnswer", "WireChoice", "WireExcluded", "WireSpec", "WiresWanted",
    "alike", "changes", "choose", "choose_beater", "choose_wires", "judge", "judge_wires",
]  # fmt: skip
