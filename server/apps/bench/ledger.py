"""A job's stored entries, read back as the core's log and state. Nothing here writes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from apps.bench.models import Job, JobEvent
from apps.bench.stored import entry_from, plan_from
from drumwork.drums import Side
from drumwork.work.fold import advance, fold
from drumwork.work.log import Entry, Logged, Standing, settled_by
from drumwork.work.plan import Plan
from drumwork.work.state import BenchState

__all__ = ["Ledger", "plan_of", "read_ledger", "side_of_job"]

_COLUMNS = ("id", "seq", "version", "body", "standing", "against", "by_name", "device", "made_at")
_MOST_KNOWN = 50_000
_ENTRIES: dict[UUID, Entry] = {}
_PLANS: dict[UUID, Plan] = {}


def _remember(known: dict[UUID, Any], key: UUID, value: Any, most: int) -> None:
    """What is stored never changes, so reading it once a process is enough. The longest-known are forgotten first."""
    while len(known) >= most:
        del known[next(iter(known))]
    known[key] = value


def _entry(key: UUID, body: Mapping[str, Any], version: int) -> Entry:
    if key not in _ENTRIES:
        _remember(_ENTRIES, key, entry_from(body, version), _MOST_KNOWN)
    return _ENTRIES[key]


def plan_of(job: Job) -> Plan:
    """The job's plan, as it began."""
    if job.pk not in _PLANS:
        _remember(_PLANS, job.pk, plan_from(job.plan, job.plan_shape), 500)
    return _PLANS[job.pk]


def side_of_job(job: Job) -> Side:
    """The head a job is about; of both, the batter."""
    return Side.RESONANT if job.part == "resonant" else Side.BATTER


@dataclass
class Ledger:
    """All entries of a job and the state they make."""

    job: Job
    plan: Plan
    log: dict[str, Logged] = field(default_factory=dict)
    bodies: dict[str, dict[str, Any]] = field(default_factory=dict)
    state: BenchState = field(init=False)

    def add(self, each: Logged, body: dict[str, Any]) -> None:
        """Take in one more stored entry."""
        self.log[each.id], self.bodies[each.id] = each, body
        if each.entry.kind in ("undo", "settle"):
            self.state = fold(self.plan, self.log.values())
        elif each.standing is Standing.APPLIED:
            advance(self.state, each)

    @property
    def settled(self) -> Mapping[str, str]:
        return settled_by(self.log.values())

    @property
    def open_conflicts(self) -> list[Logged]:
        settled = self.settled
        return [each for each in self.log.values() if each.standing is Standing.CONFLICT and each.id not in settled]


def logged(row: Mapping[str, Any]) -> Logged:
    """A stored row as the core's log has it."""
    against = row["against"]
    return Logged(
        str(row["id"]),
        row["seq"],
        row["by_name"],
        row["made_at"],
        _entry(row["id"], row["body"], row["version"]),
        row["device"],
        Standing(row["standing"]),
        str(against) if against else None,
    )


def row_of(event: JobEvent) -> dict[str, Any]:
    """A stored entry as the ledger reads it."""
    return {name: getattr(event, name) for name in _COLUMNS}


def read_ledger(job: Job) -> Ledger:
    """Read and fold a job's entries."""
    ledger = Ledger(job, plan_of(job))
    for row in JobEvent.objects.filter(job=job).order_by("seq").values(*_COLUMNS):
        each = logged(row)
        ledger.log[each.id], ledger.bodies[each.id] = each, row["body"]
    ledger.state = fold(ledger.plan, ledger.log.values())
    return ledger
