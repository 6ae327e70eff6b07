"""Deciding: what the findings on a drum come to, for each head, the wires, the hardware and the drum as a whole."""

from drumwork.deciding.decide import Because, Decision, decide
from drumwork.deciding.evidence import Drum, HeadSeen, Lives, Seen
from drumwork.deciding.rules import RULES, Part, Rule
from drumwork.deciding.verdicts import Verdict

__all__ = ["Because", "Decision", "Drum", "HeadSeen", "Lives", "RULES", "Part", "Rule", "Seen", "Verdict", "decide"]
