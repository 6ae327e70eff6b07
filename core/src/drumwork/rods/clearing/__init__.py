"""Clearing: bringing a head in tune with itself while holding, or reaching, the wanted pitch."""

from drumwork.rods.clearing.propose import Proposal, propose
from drumwork.rods.clearing.session import STRICT, ClearingSession, Step
from drumwork.rods.clearing.task import ClearingTask, EvenRule, Round
from drumwork.rods.clearing.verdict import Verdict, judge

__all__ = [
    "STRICT",
    "ClearingSession",
    "ClearingTask",
    "EvenRule",
    "Proposal",
    "Round",
    "Step",
    "Verdict",
    "judge",
    "propose",
]
