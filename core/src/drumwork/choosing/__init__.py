"""Choosing: from drum, use and wanted sound to two or three heads, with reasons, and what is excluded and why."""

from drumwork.choosing.changes import changes
from drumwork.choosing.choose import Answer, Choice, Excluded, alike, choose, judge
from drumwork.choosing.rules import RULES, Rule
from drumwork.choosing.specs import SPECS, Spec
from drumwork.choosing.wanted import NEEDS, USES, WORDS, Wanted

__all__ = [
    "NEEDS", "RULES", "SPECS", "USES", "WORDS", "Answer", "Choice", "Excluded", "Rule", "Spec", "Wanted", "alike", "changes", "choose", "judge",
]  # fmt: skip
