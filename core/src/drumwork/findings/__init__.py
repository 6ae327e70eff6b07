"""What can be found on a drum: one vocabulary for the Bench, inspection and call-out."""

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

__all__ = ["FINDINGS", "Degree", "FindingKind", "Follow", "Place", "Where", "finding", "findings_for", "require_place"]
