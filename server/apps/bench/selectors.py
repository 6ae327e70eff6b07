"""Named reads of bench jobs."""

from __future__ import annotations

from uuid import UUID

from apps.bench.ledger import read_ledger
from apps.bench.models import Job
from apps.bench.schemas import BenchOut, shape_bench
from apps.bench.words import conflicts_of, undo_list

__all__ = ["bench_of", "job_by_id", "last_seq_of"]


def last_seq_of(job_id: UUID) -> int:
    """The job's last event number, or Job.DoesNotExist."""
    return int(Job.objects.values_list("last_seq", flat=True).get(pk=job_id))


def job_by_id(job_id: UUID) -> Job:
    return Job.objects.select_related("workshop", "drum").get(pk=job_id)


def bench_of(job: Job) -> BenchOut:
    ledger = read_ledger(job)
    return shape_bench(job, job.drum, ledger.state, conflicts_of(ledger), undo_list(ledger))
