"""A job's stored events, read back as the core's state. Nothing here writes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from drumwork.procedures import events as ev
from drumwork.procedures.bench import BenchState, fold
from drumwork.procedures.new_batter_head import NEW_BATTER_HEAD, plan_new_batter_head
from drumwork.procedures.plan import DrumKind, HeadJob, JobPlan, LogoPlace, Side, Stretch, Ways
from drumwork.procedures.settling_check import plan_settling_check
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern

from apps.bench.event_bodies import parse_stored
from apps.bench.models import Job, JobEvent

__all__ = ["Ledger", "freeze", "read_ledger", "thaw"]

_COLUMNS = ("id", "seq", "kind", "slot", "body", "standing", "against", "by_name", "device", "made_at")


def freeze(ways: Ways, layout: RodLayout, kind: str) -> dict[str, Any]:
    """What a job's plan is made from, as it was when the job started."""
    return {
        "kind": kind,
        "rods": layout.count,
        "lost": sorted(layout.lost),
        "pattern": ways.pattern.value,
        "step_32": ways.step.thirtyseconds,
        "stretch": ways.stretch.value,
        "logo": ways.logo.value,
        "grease": ways.grease_dry_threads,
        "rest_minutes": ways.rest_minutes,
    }


def thaw(job: Job) -> JobPlan:
    """The job's plan, made again from what was frozen."""
    frozen = job.frozen
    ways = Ways(
        pattern=Pattern(frozen["pattern"]),
        step=Turns(frozen["step_32"]),
        stretch=Stretch(frozen["stretch"]),
        logo=LogoPlace(frozen["logo"]),
        grease_dry_threads=frozen["grease"],
        rest_minutes=frozen["rest_minutes"],
    )
    layout = RodLayout(frozen["rods"], frozenset(frozen["lost"]))
    head = HeadJob(DrumKind(frozen["kind"]), Side(job.side), layout, job.new_head, job.old_head)
    make = plan_new_batter_head if job.procedure == NEW_BATTER_HEAD else plan_settling_check
    return make(head, ways)


@dataclass
class Ledger:
    """All events of a job and the state they make."""

    job: Job
    state: BenchState
    rows: dict[str, dict[str, Any]] = field(default_factory=dict)
    settled: dict[str, str] = field(default_factory=dict)

    @property
    def open_conflicts(self) -> list[Mapping[str, Any]]:
        return [
            row for row in self.rows.values() if row["standing"] == "conflict" and str(row["id"]) not in self.settled
        ]

    def latest_in(self, slot: str) -> Mapping[str, Any] | None:
        """The last event about this that counts."""
        live = {event.id for event in self.state.live}
        found = [row for row in self.rows.values() if row["slot"] == slot and str(row["id"]) in live]
        return found[-1] if found else None


def _settlements(rows: Mapping[str, Mapping[str, Any]]) -> dict[str, str]:
    return {row["body"]["event"]: row["body"]["take"] for row in rows.values() if row["kind"] == "settle"}


def _counts(row: Mapping[str, Any], settled: Mapping[str, str]) -> bool:
    if row["standing"] == "conflict":
        return settled.get(str(row["id"])) == "second"
    return bool(row["standing"] == "applied")


def read_ledger(job: Job, plan: JobPlan | None = None) -> Ledger:
    """Read and fold a job's events. `job.workshop` should be loaded: its reference A reads typed notes."""
    rows = {str(row["id"]): row for row in JobEvent.objects.filter(job=job).order_by("seq").values(*_COLUMNS)}
    settled = _settlements(rows)
    a4_hz = job.workshop.a4_hz
    log = [
        ev.Event(key, row["seq"], row["by_name"], row["made_at"], body)
        for key, row in rows.items()
        if _counts(row, settled) and (body := parse_stored(row["body"], a4_hz)) is not None
    ]
    return Ledger(job, fold(plan or thaw(job), log), rows, settled)
