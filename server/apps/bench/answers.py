"""How each head answered to its rods, kept from one job for the next; and what to expect before it is known."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from apps.bench.models import Job, JobHead, KeptAnswer
from apps.heads.limits import fitted_head, head_of
from apps.register.models import Drum
from drumwork.drums import Side
from drumwork.errors import BadQuantity, DrumworkError
from drumwork.membrane import ExpectedAnswer, Head, assess_target, expect_answer
from drumwork.quantities import Pitch
from drumwork.rods.clearing import Learned, LearnedKind, Means, propose, taught_by_others
from drumwork.work.clearing import clearing_task
from drumwork.work.state import BenchState

__all__ = [
    "answer_before",
    "expected_answer",
    "expected_hz_per_turn",
    "film_in_hand",
    "keep_answer",
    "kept_answer",
    "learned_of",
    "target_words",
]
SAME_SIZE_M = 0.006
"""Drums within a quarter of an inch are of one size."""
MOST_ALIKE = 40
WORTH_SAYING = 0.02
"""Nearer than this to the wanted pitch, the way there is not worth a sentence."""


def learned_of(stored: KeptAnswer) -> Learned:
    """As the core knows it."""
    kinds = tuple(
        LearnedKind(each["name"], each["weight"], tuple(each["mean"]), tuple(tuple(row) for row in each["covariance"]))
        for each in stored.kinds
    )
    return Learned(tuple(stored.rods), stored.rounds, kinds)


def _job_head(job: Job, side: Side) -> JobHead | None:
    return next((head for head in job.heads.all() if head.side == side), None)


def _head_in_hand(job: Job, side: Side) -> str:
    head = _job_head(job, side)
    return (head.new_head or head.old_head) if head else ""


def kept_answer(job: Job, side: Side) -> Learned | None:
    """What earlier jobs taught of this head; nothing when another head was fitted since."""
    found = KeptAnswer.objects.filter(drum=job.drum, side=side.value, head=_head_in_hand(job, side)).first()
    return learned_of(found) if found else None


def answer_before(job: Job, state: BenchState, side: Side) -> Learned | None:
    """What to expect of this head: what it did itself, else what others of its kind, size and hoops did here."""
    own = kept_answer(job, side)
    if own is not None:
        return own
    drum = job.drum
    alike = KeptAnswer.objects.filter(
        side=side.value,
        drum__kind=drum.kind,
        drum__hoops=drum.hoops,
        drum__diameter_m__range=(drum.diameter_m - SAME_SIZE_M, drum.diameter_m + SAME_SIZE_M),
    ).exclude(drum=drum)
    return taught_by_others([learned_of(each) for each in alike.order_by("-id")[:MOST_ALIKE]], state.layout(side).rods)


def film_in_hand(job: Job, state: BenchState, side: Side) -> Head | None:
    """The head being worked on, as far as its film is known."""
    head = _job_head(job, side)
    layout = state.plan.drum.layouts.get(side)
    rods = layout.count if layout else 0
    return head_of(head.stock_item, rods) if head and head.stock_item else fitted_head(job.drum, side)


def expected_answer(head: Head, drum: Drum, learned: Learned | None) -> ExpectedAnswer:
    """What a turn should do on this drum, by film, thread and what it did before."""
    seen = (learned.hz2_per_turn, learned.hz2_per_turn_sd) if learned else None
    rounds = learned.rounds if learned else 0
    try:
        return expect_answer(head, drum.thread, seen, rounds)
    except BadQuantity:  # a thread written in a way the core does not know
        return expect_answer(head, seen=seen, rounds=rounds)


def expected_hz_per_turn(job: Job, state: BenchState, side: Side) -> float | None:
    """What one turn of every rod should do, by film and thread; None where the film is not known."""
    head, wanted = film_in_hand(job, state, side), state.target(side)
    return expected_answer(head, job.drum, None).hz_per_turn(wanted) if head and wanted else None


def target_words(job: Job, state: BenchState, side: Side, head: Head | None) -> str:
    """What the wanted pitch asks of film and rods, and how many turns it is likely to take from where the head stands."""
    wanted = state.target(side)
    if head is None or wanted is None:
        return ""
    words = assess_target(head, wanted).words
    lap = state.last_read(side)
    found = lap.left_hz() if lap else None
    if found is None or abs(found[0] / wanted.hz - 1) < WORTH_SAYING:
        return f"{words[0].upper()}{words[1:]}."
    now, expected = Pitch(found[0]), expected_answer(head, job.drum, kept_answer(job, side))
    turns, low, high = expected.turns(now, wanted)
    return (
        f"{words[0].upper()}{words[1:]}. From {now.hz:.0f} Hz about {turns:+.2f} turns of every rod "
        f"({low:+.2f} to {high:+.2f}), {expected.words}."
    )


def _last_planned(state: BenchState, side: Side) -> tuple[str, int] | None:
    for step in reversed(state.clearings(side)):
        for number in reversed(range(len(state.laps[step]))):
            if state.laps[step][number].plan:
                return step, number
    return None


def _learned(job: Job, state: BenchState, side: Side) -> Learned | None:
    last = _last_planned(state, side)
    if last is None or state.means is not Means.PITCH:
        return None
    try:
        task = clearing_task(state, *last, expected_hz_per_turn(job, state, side), answer_before(job, state, side))
        return propose(task).learned
    except DrumworkError:  # readings undone since leave too little to learn from
        return None


def keep_answer(job: Job, state: BenchState, side: Side) -> None:
    """On closing: what this job taught."""
    learned = _learned(job, state, side)
    if learned is None:
        return
    kinds: list[dict[str, Any]] = [asdict(kind) for kind in learned.kinds]
    KeptAnswer.objects.update_or_create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        side=side.value,
        defaults={
            "head": _head_in_hand(job, side),
            "rods": list(learned.rods),
            "rounds": learned.rounds,
            "kinds": kinds,
        },
    )
