"""Clearing: bringing a head in tune with itself while holding, or reaching, the wanted pitch."""

from drumwork.rods.clearing.findings import Finding, FindingKind
from drumwork.rods.clearing.learned import Learned, LearnedKind, taught_by_others
from drumwork.rods.clearing.misread import Misread, misread
from drumwork.rods.clearing.propose import Approach, Predicted, Proposal, cents_read, propose
from drumwork.rods.clearing.readings import EAR_CENTS, EAR_WORDS, Ear, Means, hears
from drumwork.rods.clearing.session import STRICT, ClearingSession, Step
from drumwork.rods.clearing.task import ClearingTask, EvenRule, PairHeard, Round, Tap
from drumwork.rods.clearing.tension import EdgeTension
from drumwork.rods.clearing.under_way import Ask, GoOn, go_on
from drumwork.rods.clearing.verdict import Verdict, at_pitch, judge

__all__ = [
    "EAR_CENTS",
    "EAR_WORDS",
    "STRICT",
    "Approach",
    "Ask",
    "ClearingSession",
    "ClearingTask",
    "Ear",
    "EdgeTension",
    "EvenRule",
    "Finding",
    "FindingKind",
    "GoOn",
    "Learned",
    "LearnedKind",
    "Means",
    "Misread",
    "PairHeard",
    "Predicted",
    "Proposal",
    "Round",
    "Step",
    "Tap",
    "Verdict",
    "at_pitch",
    "cents_read",
    "go_on",
    "hears",
    "judge",
    "misread",
    "propose",
    "taught_by_others",
]
