"""Answers the drum's record keeps, and what pull passes taught of a rope."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import asdict
from typing import Any

from apps.bench.effects.closing import Closing
from apps.register.sides import ROPE_PASSES
from drumwork.quantities import Length, Pitch
from drumwork.work.asks import Question
from drumwork.work.effects import KeepAnswers
from drumwork.work.state import Answer
from drumwork.work.told import passes_made

__all__ = ["answer_words", "keep_answers"]

MOST_PASSES = 8
"""Pull passes of a rope drum kept to learn from: a rope stretches, old ones say less; the figure is our own."""


def answer_words(question: Question, answer: Answer, a4_hz: float) -> str:
    """An answer as it is said: its words, or the pitch, length or number it was read as."""
    if answer.amount is None:
        return question.words_of(answer.values)
    if question.unit == "pitch":
        pitch = Pitch(answer.amount)
        return f"{pitch.hz:.1f} Hz, {pitch.note(a4_hz)}"
    return f"{answer.amount:.0f}" if question.unit == "count" else f"{Length(answer.amount).mm:.0f} mm"


def _kept(closing: Closing) -> Iterator[tuple[str, str]]:
    state = closing.state
    for step in state.plan.steps:
        for question in step.asks:
            mark = state.answers.get(question.name)
            if mark and question.keeps:
                yield question.keeps, answer_words(question, mark.value, state.plan.ways.a4_hz)


def keep_answers(closing: Closing, effect: KeepAnswers) -> None:
    """Each goes under its name into what the drum's record keeps; an empty answer takes it out."""
    drum, passes = closing.job.drum, passes_made(closing.state)
    kept: dict[str, Any] = dict(drum.kept)
    for name, words in _kept(closing):
        kept.pop(name, None)
        if words:
            kept[name] = words
    if passes:
        kept[ROPE_PASSES] = [*kept.get(ROPE_PASSES, []), *map(asdict, passes)][-MOST_PASSES:]
    if kept != drum.kept:
        drum.kept = kept
        drum.save(update_fields=["kept"])
