"""Events in words, for undo and for conflicts."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from apps.bench.ledger import Ledger
from apps.bench.schemas import ConflictOut, UndoOut
from apps.bench.shapes import EAR_WORDS
from drumwork.quantities import Turns

__all__ = ["conflicts_of", "undo_list", "what"]
UNDO_DEPTH = 40
_EAR: dict[str, str] = {judged.value: words for judged, words in EAR_WORDS.items()}


def what(body: Mapping[str, Any], titles: Mapping[str, str]) -> str:
    """One entry as a person would say it."""
    match body["kind"]:
        case "step_done":
            return f"“{titles.get(body['step'], body['step'])}” done"
        case "turned":
            return f"rod {body['rod']} {Turns(body['turns_32']).words()}"
        case "skipped":
            return f"rod {body['rod']} skipped"
        case "pass_added":
            return f"one more pass, {Turns(body['each_32']).words()}"
        case "reading":
            return f"rod {body['rod']} " + _EAR.get(body["typed"], f"at {body['typed']}")
        case "order":
            return "readings brought to their rods"
        case "centre":
            return f"middle at {body['typed']}"
        case "means":
            return f"reading by {body['means']}"
        case "whole":
            return f"whole head {_EAR[body['judged']]}"
        case "uneven":
            return "left uneven on purpose" if body["what"] else "even everywhere"
        case "target":
            return f"wanted pitch {body['typed']}" if body["typed"] else "wanted pitch: hold the mean"
        case "plan":
            return "turns worked out"
        case "step_size":
            return f"steps of {Turns(body['step_32']).amount()} turn"
        case "rest":
            return f"rest of {body['minutes']} minutes"
        case "note":
            return "note"
        case _:
            return str(body["kind"])


def _titles(ledger: Ledger) -> dict[str, str]:
    return {step.id: step.title for step in ledger.state.plan.steps}


def undo_list(ledger: Ledger) -> list[UndoOut]:
    """What can be taken back, newest first."""
    titles = _titles(ledger)
    live = [event for event in reversed(ledger.state.live) if ledger.rows[event.id]["kind"] != "close"]
    return [UndoOut(event=event.id, words=what(ledger.rows[event.id]["body"], titles)) for event in live[:UNDO_DEPTH]]


def conflicts_of(ledger: Ledger) -> list[ConflictOut]:
    titles = _titles(ledger)
    found = []
    for row in ledger.open_conflicts:
        first = ledger.rows[str(row["against"])]
        turns = {row["kind"], first["kind"]} == {"turned"}
        said = [f"{r['by_name']}: {what(r['body'], titles)}" for r in (first, row)]
        about = f"rod {row['body']['rod']}" if "rod" in row["body"] else row["slot"].split(":")[0]
        found.append(ConflictOut(event=str(row["id"]), about=about, first=said[0], second=said[1], can_be_both=turns))
    return found
