"""Which handler an effect has."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Final

from apps.bench.effects import answers, checks, findings, heads, loans, log, pitches
from apps.bench.effects.closing import Closing
from drumwork.work import effects as core

__all__ = ["HANDLERS", "apply_effects"]

HANDLERS: Final[Mapping[type, Callable[[Closing, Any], None]]] = {
    core.TakeFromShelf: heads.take_from_shelf,
    core.ChangeHead: heads.change_head,
    core.ChangeWires: heads.change_wires,
    core.RecordPitch: pitches.record_pitch,
    core.KeepAnswer: pitches.keep_how_it_answered,
    core.KeepTarget: pitches.keep_target,
    core.AnswerChecks: checks.answer_checks,
    core.BookCheck: checks.book_check,
    core.CarryFindings: findings.carry_findings,
    core.KeepAnswers: answers.keep_answers,
    core.GiveBack: loans.give_back,
    core.Log: log.write_log,
}


def apply_effects(closing: Closing) -> None:
    """Everything the plan says follows, in its order."""
    for effect in closing.state.plan.effects:
        HANDLERS[type(effect)](closing, effect)
