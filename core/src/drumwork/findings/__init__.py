"""What can be found on a drum: one vocabulary for the Bench, inspection and call-out."""

from drumwork.findings.looks import LOOKS, PARTS, Look, LookedAt, parts_for, ticks_for
from drumwork.findings.vocabulary import (
    FINDINGS,
    Degree,
    FindingKind,
    Follow,
    Place,
    Where,
    finding,
    findings_for,
    require_place,
)

__all__ = [
    "FINDINGS", "LOOKS", "PARTS", "Degree", "FindingKind", "Follow", "Look", "LookedAt", "Place", "Where", "finding", "findings_for", "parts_for",
    "require_place", "ticks_for",
]  # fmt: skip
