"""A job's stored events, read back as the core's state. Nothing here writes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from apps.bench.event_bodies import parse_stored
from apps.bench.models import Job, JobEvent
from drumwork.procedures import events as ev
from drumwork.procedures.bench import BenchState, fold
from drumwork.procedures.new_batter_head import NEW_BATTER_HEAD, plan_new_batter_head
from drumwork.procedures.plan import DrumKind, HeadJob, JobPlan, LogoPlace, Side, Stretch, Ways
from drumwork.procedures.settling_check import plan_settling_check
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern

__all__ = ["Ledger", "freeze", "read_ledger", "row_of", "thaw"]

_COLUMNS = ("id", "seq", "kind", "slot", "body", "standing", "against", "by_name", "device", "made_at")


def freeze(ways: Ways, layout: RodLayout, kind: str) -> dict[str, Any]:
    """What a job's plan is made from, as it was when the job started."""
    return {
        "kind": kind,
        "rods": layout.count,
        "lost": sorted(layout.lost),
        "bed": sorted(layout.beside_bed),
        "port": sorted(layout.beside_port),
        "pattern": ways.pattern.value,
        "step_32": ways.step.thirtyseconds,
        "stretch": ways.stretch.value,
        "logo": ways.logo.value,
        "grease": ways.grease_dry_threads,
        "rest_minutes": ways.rest_minutes,
        "tap_round": ways.tap_round,
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
        tap_round=frozen.get("tap_round", True),
    )
    marked = (frozenset(frozen.get(name, ())) for name in ("lost", "bed", "port"))
    layout = RodLayout(frozen["rods"], *marked)
    head = HeadJob(DrumKind(frozen["kind"]), Side(job.side), layout, job.new_head, job.old_head)
    make = plan_new_batter_head if job.procedure == NEW_BATTER_HEAD else plan_settling_check
    return make(head, ways)


_PARSED: dict[tuple[str, float], ev.EventBody | None] = {}
_MOST_PARSED = 50_000


def _parsed(key: str, body: Mapping[str, Any], a4_hz: float) -> ev.EventBody | None:
    """A stored event never changes, so parsing it once a process is enough. The longest-known are forgotten first."""
    if (key, a4_hz) not in _PARSED:
        while len(_PARSED) >= _MOST_PARSED:
            del _PARSED[next(iter(_PARSED))]
        _PARSED[key, a4_hz] = parse_stored(body, a4_hz)
    return _PARSED[key, a4_hz]


@dataclass
class Ledger:
    """All events of a job and the state they make."""

    job: Job
    plan: JobPlan
    rows: dict[str, dict[str, Any]] = field(default_factory=dict)
    bodies: dict[str, ev.EventBody | None] = field(default_factory=dict)
    settled: dict[str, str] = field(default_factory=dict)
    state: BenchState = field(init=False)

    def add(self, *rows: dict[str, Any]) -> None:
        """Take in stored rows and fold again."""
        for row in rows:
            key = str(row["id"])
            self.rows[key], self.bodies[key] = row, _parsed(key, row["body"], self.job.workshop.a4_hz)
            if row["kind"] == "settle":
                self.settled[row["body"]["event"]] = row["body"]["take"]
        self.state = fold(self.plan, [event for key, row in self.rows.items() if (event := self._event(key, row))])

    def _event(self, key: str, row: Mapping[str, Any]) -> ev.Event | None:
        """The core's event, when this row counts."""
        counts = self.settled.get(key) == "second" if row["standing"] == "conflict" else row["standing"] == "applied"
        body = self.bodies[key]
        return ev.Event(key, row["seq"], row["by_name"], row["made_at"], body) if counts and body is not None else None

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


def row_of(event: JobEvent) -> dict[str, Any]:
    """A stored event as the ledger reads it."""
    return {name: getattr(event, name) for name in _COLUMNS}


def read_ledger(job: Job) -> Ledger:
    """Read and fold a job's events. `job.workshop` should be loaded: its reference A reads typed notes."""
    ledger = Ledger(job, thaw(job))
    ledger.add(*JobEvent.objects.filter(job=job).order_by("seq").values(*_COLUMNS))
    return ledger
