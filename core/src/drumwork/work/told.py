"""What the answers of a job come to, said at the step that asks: how long a rope, how much more to pull,
which pairs to correct (trade §14)."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping

from drumwork.errors import DrumworkError
from drumwork.rope import Lacing, Pass, Range, Squeeze, correct_segments, how_much_more, rope_length
from drumwork.work.state import BenchState

__all__ = ["passes_made", "told"]

_WANTED, _BEFORE = ("wanted-low", "wanted-high"), ("low-before", "high-before")
_PASSES = (("pulled", "low", "high"), ("pulled-again", "low-again", "high-again"))
"""Questions of each pull pass: how far, and the range read after it."""


def _amount(state: BenchState, question: str) -> float | None:
    mark = state.answers.get(question)
    return mark.value.amount if mark else None


def _range(state: BenchState, low: str, high: str) -> Range | None:
    lowest, highest = _amount(state, low), _amount(state, high)
    return Range(lowest, highest) if lowest and highest else None


def passes_made(state: BenchState) -> tuple[Pass, ...]:
    """The pull passes of this job, as far as both ranges and the pull were written down."""
    made, before = [], _amount(state, _BEFORE[0])
    for pulled, low, _ in _PASSES:
        far, after = _amount(state, pulled), _amount(state, low)
        if far and before and after:
            made.append(Pass(far, before, after))
        before = after or before
    return tuple(made)


def _pull_words(state: BenchState) -> str:
    try:
        ranges = [_range(state, *_BEFORE), *(_range(state, low, high) for _, low, high in _PASSES)]
        now = next((each for each in reversed(ranges) if each), None)
        wanted = _range(state, *_WANTED)
        if now is None or wanted is None:
            return ""
        return how_much_more(now, wanted, (*state.plan.drum.rope_passes, *passes_made(state))).words
    except DrumworkError as error:
        return error.message


def told(state: BenchState) -> Mapping[str, str]:
    """By step, what the answers so far come to; only where there is something to say."""
    return {
        **_at(state, {"rope-holes"}, _rope_words),
        **_at(state, {"pairs-slack"}, _segment_words),
        **_at(state, {name for of in _PASSES for name in of}, _pull_words),
    }


def _rope_words(state: BenchState) -> str:
    drum, holes, hoop = state.plan.drum, _amount(state, "rope-holes"), _amount(state, "rope-hoop")
    if not (holes and drum.diameter_m and drum.depth_m):
        return ""
    try:
        lacing = Lacing(drum.diameter_m, drum.depth_m, int(holes), **({"hoop_m": hoop} if hoop else {}))
        rope = rope_length(lacing)
    except DrumworkError as error:
        return error.message
    return (
        f"A new rope measures {rope.total_m:.1f} m: {rope.segments} segments of {rope.segment_m * 100:.1f} cm, "
        f"{rope.turns_m:.1f} m round the hoops, {rope.ends_m:.1f} m for splice, pigtail and drag rope."
    )


def _pairs(state: BenchState, question: str) -> list[int]:
    """Pairs as they were written down: any numbers in the answer, counted from the splice."""
    mark = state.answers.get(question)
    return [int(each) for each in re.findall(r"\d+", " ".join(mark.value.values))] if mark else []


def _segment_words(state: BenchState) -> str:
    count = _amount(state, "pairs")
    felt = dict.fromkeys(_pairs(state, "pairs-slack"), Squeeze.A_LITTLE_SLACK)
    felt |= dict.fromkeys(_pairs(state, "pairs-tight"), Squeeze.A_LITTLE_TIGHT)
    if not count or not felt:
        return ""
    try:
        found = correct_segments(int(count), felt)
    except DrumworkError as error:
        return error.message
    return (
        " ".join(each.words for each in found)
        or "Left as it is: the first pair after the splice is usually the tight one."
    )


def _at(state: BenchState, asking: set[str], said: Callable[[BenchState], str]) -> dict[str, str]:
    steps = [step.id for step in state.plan.steps if any(each.name in asking for each in step.asks)]
    words = said(state) if steps else ""
    return dict.fromkeys(steps, words) if words else {}
