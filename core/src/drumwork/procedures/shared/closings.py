"""What follows from closing, where several procedures end alike."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.work import effects
from drumwork.work.effects import Effect

__all__ = ["fitted", "new_head_on", "read_on"]


def read_on(side: Side) -> tuple[Effect, ...]:
    """A head was read and cleared: its pitch and how it answered are kept."""
    return effects.RecordPitch(side), effects.KeepAnswer(side)


def new_head_on(side: Side) -> tuple[Effect, ...]:
    """From the shelf onto the drum, read, and its pitch kept as the drum's where it had none."""
    return (
        effects.TakeFromShelf(side),
        effects.ChangeHead(side),
        *read_on(side),
        effects.KeepTarget(side),
    )


def fitted(side: Side) -> tuple[Effect, ...]:
    """One new head, from its taking off the shelf to the check it earns."""
    return (
        *new_head_on(side),
        effects.CarryFindings(),
        effects.KeepAnswers(),
        effects.Log("fitted"),
        effects.AnswerChecks(side),
        effects.BookCheck(side),
    )
