"""A job's stored entries, read back as the core's log and state. Nothing here writes."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from copy import copy
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, TypeVar
from uuid import UUID

from django.db.models import Prefetch

from apps.bench.models import Job, JobEvent, JobHead
from apps.bench.stored import entry_from, plan_from
from drumwork.work.fold import advance, fold
from drumwork.work.log import Logged, Standing, settled_by
from drumwork.work.plan import Plan
from drumwork.work.state import BenchState

T = TypeVar("T")
__all__ = ["Ledger", "logged", "look_at", "plan_of", "read_ledger", "row_of", "with_heads"]

_COLUMNS = ("id", "seq", "version", "body", "standing", "against", "by_name", "device", "made_at")
_MOST_KNOWN = 300
Key = tuple[UUID, datetime]
"""A job as this process knows it. The moment it was opened tells it from another of the same id after a reset of the demo."""


@dataclass
class _Known:
    """What is stored of a job and never changes: its plan, and its log as far as it was read."""

    plan: Plan
    log: dict[str, Logged] = field(default_factory=dict)
    bodies: dict[str, dict[str, Any]] = field(default_factory=dict)
    made: dict[str, Any] = field(default_factory=dict)
    last_seq: int = 0
    read: Ledger | None = None
    """Of the last reading; nobody adds to it."""


_KNOWN: dict[Key, _Known] = {}


def _known(job: Job) -> _Known:
    """Read once a process; the longest-known are forgotten first."""
    key = (job.pk, job.opened_at)
    found = _KNOWN.pop(key, None) or _Known(plan_from(job.plan, job.plan_shape))
    while len(_KNOWN) >= _MOST_KNOWN:
        del _KNOWN[next(iter(_KNOWN))]
    _KNOWN[key] = found
    return found


def with_heads() -> Prefetch[str]:
    """A job's heads with what the shelf has of them, in one query."""
    return Prefetch("heads", JobHead.objects.select_related("stock_item__line"))


def plan_of(job: Job) -> Plan:
    """The job's plan, as it began."""
    return _known(job).plan


@dataclass
class Ledger:
    """All entries of a job and the state they make."""

    job: Job
    began: Plan
    log: dict[str, Logged] = field(default_factory=dict)
    bodies: dict[str, dict[str, Any]] = field(default_factory=dict)
    made: dict[str, Any] = field(default_factory=dict)
    texts: dict[str, str] = field(default_factory=dict)
    state: BenchState = field(init=False)

    def once(self, name: str, make: Callable[[], T]) -> T:
        """Something made of what never changes (the plan, an entry): once a process."""
        if name not in self.made:
            self.made[name] = make()
        made: T = self.made[name]
        return made

    def text(self, name: str, make: Callable[[], str]) -> str:
        """Something written of the whole log: once as long as nothing is added."""
        if name not in self.texts:
            self.texts[name] = make()
        return self.texts[name]

    def add(self, each: Logged, body: dict[str, Any]) -> None:
        """Take in one more stored entry."""
        self.log[each.id], self.bodies[each.id] = each, body
        self.texts.clear()
        if each.entry.kind in ("undo", "settle"):
            self.state = fold(self.began, self.log.values())
        elif each.standing is Standing.APPLIED:
            advance(self.state, each)

    @property
    def plan(self) -> Plan:
        """The plan as it stands: what the job began with, or what a choice made of it since."""
        return self.state.plan

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
        entry_from(row["body"], row["version"]),
        row["device"],
        Standing(row["standing"]),
        str(against) if against else None,
    )


def row_of(event: JobEvent) -> dict[str, Any]:
    """A stored entry as the ledger reads it."""
    return {name: getattr(event, name) for name in _COLUMNS}


def _read_on(known: _Known, job: Job) -> None:
    """Read what this process does not know of a job's entries yet."""
    if known.last_seq >= job.last_seq:
        return
    for row in JobEvent.objects.filter(job=job, seq__gt=known.last_seq).order_by("seq").values(*_COLUMNS):
        each = logged(row)
        known.log[each.id], known.bodies[each.id], known.last_seq = each, row["body"], each.seq


def _folded(known: _Known, job: Job) -> Ledger:
    ledger = Ledger(job, known.plan, dict(known.log), dict(known.bodies), known.made)
    ledger.state = fold(ledger.began, ledger.log.values())
    return ledger


def read_ledger(job: Job) -> Ledger:
    """A job's entries and their state, to add to."""
    known = _known(job)
    _read_on(known, job)
    return _folded(known, job)


def look_at(job: Job) -> Ledger:
    """A job's entries and their state, to look at only: folded once a process as long as nothing is added."""
    known = _known(job)
    _read_on(known, job)
    if known.read is None or len(known.read.log) != len(known.log):
        known.read = _folded(known, job)
    seen = copy(known.read)
    seen.job = job
    return seen
