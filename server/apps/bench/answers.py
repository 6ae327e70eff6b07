"""How each head answered to its rods, kept from one job for the next; and what to expect before it is known."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from apps.bench.models import Job, KeptAnswer
from apps.heads.limits import fitted_head, head_of
from apps.register.models import Drum
from apps.workshops.schemas import to_even_rule
from drumwork.errors import BadQuantity, DrumworkError
from drumwork.membrane import ExpectedAnswer, Head, assess_target, expect_answer
from drumwork.procedures.bench import BenchState
from drumwork.procedures.rounds import clearing_task
from drumwork.quantities import Pitch
from drumwork.rods.clearing import Learned, LearnedKind, Means, propose

__all__ = [
    "expected_answer",
    "expected_hz_per_turn",
    "film_in_hand",
    "keep_answer",
    "kept_answer",
    "learned_of",
    "target_words",
]
WORTH_SAYING = 0.02
"""Nearer than this to the wanted pitch, the way there is not worth a sentence."""


def learned_of(stored: KeptAnswer) -> Learned:
    """As the core knows it."""
    kinds = tuple(
        LearnedKind(each["name"], each["weight"], tuple(each["mean"]), tuple(tuple(row) for row in each["covariance"]))
        for each in stored.kinds
    )
    return Learned(tuple(stored.rods), stored.rounds, kinds)


def _head_in_hand(job: Job) -> str:
    return job.new_head or job.old_head


def kept_answer(job: Job) -> Learned | None:
    """What earlier jobs taught of this head; nothing when another head was fitted since."""
    found = KeptAnswer.objects.filter(drum=job.drum, side=job.side, head=_head_in_hand(job)).first()
    return learned_of(found) if found else None


def film_in_hand(job: Job) -> Head | None:
    """The head being worked on, as far as its film is known."""
    return head_of(job.stock_item, job.frozen["rods"]) if job.stock_item else fitted_head(job.drum, job.side)


def expected_answer(head: Head, drum: Drum, learned: Learned | None) -> ExpectedAnswer:
    """What a turn should do on this drum, by film, thread and what it did before."""
    seen = (learned.hz2_per_turn, learned.hz2_per_turn_sd) if learned else None
    rounds = learned.rounds if learned else 0
    try:
        return expect_answer(head, drum.thread, seen, rounds)
    except BadQuantity:  # a thread written in a way the core does not know
        return expect_answer(head, seen=seen, rounds=rounds)


def expected_hz_per_turn(job: Job, state: BenchState) -> float | None:
    """What one turn of every rod should do, by film and thread; None where the film is not known."""
    head, wanted = film_in_hand(job), state.target.value if state.target else None
    return expected_answer(head, job.drum, None).hz_per_turn(wanted) if head and wanted else None


def _mean_now(state: BenchState) -> Pitch | None:
    read = [lap for lap in state.laps.get("clear", []) if lap.readings]
    if not read:
        return None
    heard = [mark.value.hz for mark in read[-1].readings.values()]
    return Pitch(sum(heard) / len(heard))


def target_words(job: Job, state: BenchState) -> str:
    """What the wanted pitch asks of film and rods, and how many turns it is likely to take from where the head stands."""
    head, wanted = film_in_hand(job), state.target.value if state.target else None
    if head is None or wanted is None:
        return ""
    words = assess_target(head, wanted).words
    now = _mean_now(state)
    if now is None or abs(now.hz / wanted.hz - 1) < WORTH_SAYING:
        return f"{words[0].upper()}{words[1:]}."
    expected = expected_answer(head, job.drum, kept_answer(job))
    turns, low, high = expected.turns(now, wanted)
    return (
        f"{words[0].upper()}{words[1:]}. From {now.hz:.0f} Hz about {turns:+.2f} turns of every rod "
        f"({low:+.2f} to {high:+.2f}), {expected.words}."
    )


def _last_planned(state: BenchState) -> int | None:
    laps = state.laps.get("clear", [])
    return next((n for n in reversed(range(len(laps))) if laps[n].plan), None)


def _learned(job: Job, state: BenchState) -> Learned | None:
    lap = _last_planned(state)
    if lap is None or state.means is not Means.PITCH:
        return None
    try:
        rule = to_even_rule(job.workshop)
        task = clearing_task(state, lap, rule, expected_hz_per_turn(job, state), kept_answer(job))
        return propose(task).learned
    except DrumworkError:  # readings undone since leave too little to learn from
        return None


def keep_answer(job: Job, state: BenchState) -> None:
    """On closing: what this job taught."""
    learned = _learned(job, state)
    if learned is None:
        return
    kinds: list[dict[str, Any]] = [asdict(kind) for kind in learned.kinds]
    KeptAnswer.objects.update_or_create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        side=job.side,
        defaults={"head": _head_in_hand(job), "rods": list(learned.rods), "rounds": learned.rounds, "kinds": kinds},
    )
