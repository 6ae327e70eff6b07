"""Named reads of bench jobs."""

from __future__ import annotations

from uuid import UUID

from apps.bench.answers import film_in_hand, target_words
from apps.bench.ledger import read_ledger
from apps.bench.models import Job
from apps.bench.schemas import BenchOut
from apps.bench.shapes import Said, shape_bench
from apps.bench.words import conflicts_of, undo_list
from apps.sound.selectors import settling_of, settling_words
from drumwork.procedures.bench import BenchState
from drumwork.procedures.new_batter_head import NEW_BATTER_HEAD

__all__ = ["bench_of", "job_by_id", "last_seq_of"]


def last_seq_of(job_id: UUID) -> int:
    """The job's last event number, or Job.DoesNotExist."""
    return int(Job.objects.values_list("last_seq", flat=True).get(pk=job_id))


def job_by_id(job_id: UUID) -> Job:
    return Job.objects.select_related("workshop", "drum").get(pk=job_id)


def _settling(job: Job, state: BenchState) -> str:
    """For a new head: what it will have done by its check."""
    wanted = state.target.value if state.target else None
    if job.procedure != NEW_BATTER_HEAD or wanted is None:
        return ""
    found = settling_of(job.drum, job.side, film_in_hand(job), None)
    return settling_words(found, wanted, job.workshop.check_after_days, job.workshop.leave_above)


def bench_of(job: Job) -> BenchOut:
    ledger = read_ledger(job)
    return shape_bench(
        job,
        job.drum,
        ledger.state,
        conflicts_of(ledger),
        undo_list(ledger),
        Said(target_words(job, ledger.state), _settling(job, ledger.state)),
    )
