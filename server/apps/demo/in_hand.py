"""Jobs in hand at different steps, made by sending the same events a device would send."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any

from django.db.models import Count, F

from apps.bench.flows import start_job, take_in
from apps.bench.ledger import read_ledger
from apps.bench.models import Job
from apps.bench.schemas import EventIn, StartHead, StartJob
from apps.bench.selectors import job_by_id
from apps.demo.build import NAMESPACE
from apps.heads.models import StockItem
from apps.history.models import LogEntry
from apps.register.models import Drum
from apps.workshops.models import Membership
from drumwork.drums import Side
from drumwork.procedures.catalogue import work_named
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from drumwork.work.plan import Part
from drumwork.work.state import BenchState

__all__ = ["jobs_in_hand", "work_done"]


@dataclass
class Hands:
    """A pair of hands working through one job, minute by minute."""

    job: Job
    member: Membership
    at: datetime
    sent: int = 0
    head: SimulatedHead | None = None
    waiting: list[EventIn] = field(default_factory=list)

    def send(self, later_minutes: float, **body: Any) -> None:
        self.at += timedelta(minutes=later_minutes)
        event_id = uuid.uuid5(NAMESPACE, f"{self.job.id}{self.sent}")
        self.sent += 1
        facts = {"id": event_id, "device": "demo-tablet", "seen": 10_000, "made_at": self.at, "v": 2, "body": body}
        self.waiting.append(EventIn.model_validate(facts))

    def state(self) -> BenchState:
        """Send what waits and see where the job stands."""
        if self.waiting:
            _, receipts = take_in(self.job.id, self.waiting, self.member)
            if bad := [receipt for receipt in receipts if receipt.standing != "applied"]:
                raise RuntimeError(f"The demo's own event was not taken: {bad[0].message}")
            self.waiting = []
        return read_ledger(job_by_id(self.job.id)).state

    def steps(self, *ids: str) -> None:
        for step in ids:
            self.send(2.5, kind="step_done", step=step)

    def answer(self, step: str, question: str, said: str, unit: str = "") -> None:
        self.send(0.5, kind="answer", step=step, question=question, values=[said], unit=unit)

    def up_to(self, last: str) -> None:
        """Every step before this one that is not done yet; what must be answered gets its first answer."""
        state = self.state()
        for step in state.steps:
            if step.id == last:
                break
            if step.id in state.done:
                continue
            for each in step.asks:
                if each.needed:
                    self.answer(step.id, each.name, each.options[0].value)
            self.steps(step.id)
        self.state()

    def passes(self, step: str, laps: int | None = None, rods_of_last: int | None = None) -> None:
        """Turn whole passes, all of them or so many; of the last one only so many rods."""
        made = self.state().laps[step][:laps]
        for number, lap in enumerate(made):
            order = lap.order if number < len(made) - 1 or rods_of_last is None else lap.order[:rods_of_last]
            for rod in order:
                assert lap.each is not None
                self.turned(0.2, step, number, rod, lap.each.thirtyseconds)

    def turned(self, later_minutes: float, step: str, lap: int, rod: int, turns_32: int) -> None:
        made = [{"rod": rod, "turns_32": turns_32}]
        self.send(later_minutes, kind="turned", step=step, lap=lap, made=made)

    def tap_round(self, lap: int, only: int | None = None) -> None:
        assert self.head is not None
        for rod, pitch in list(self.head.tap().items())[:only]:
            self.send(0.15, kind="reading", step="clear", lap=lap, rod=rod, typed=f"{pitch.hz:.1f}")

    def work_out(self, lap: int) -> None:
        self.send(0.1, kind="plan", step="clear", lap=lap)

    def turn_round(self, lap: int, leave: int = 0) -> None:
        """Make the proposed turns, all but the last `leave` rods."""
        assert self.head is not None
        owed = list(self.state().laps["clear"][lap].owed().items())
        for rod, turns in owed[: len(owed) - leave]:
            self.turned(0.3, "clear", lap, rod, turns.thirtyseconds)
            self.head.turn({rod: turns})


BEFORE_SLACKEN = ("lay-out", "mark")
BEFORE_TENSION = ("lift-off", "clean", "set-head", "fingers", "seat")


def _simulated(drum: Drum) -> SimulatedHead:
    layout = RodLayout(drum.rods_batter, frozenset(drum.lost_batter))
    return SimulatedHead(layout, drum.wanted_batter_hz or 180.0, int(drum.tag[-3:]), uneven=0.016, noise=0.001)


class _Starter:
    def __init__(self, drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
        self.drums, self.members, self.now = drums, members, now

    def start(
        self, name: str, minutes_ago: float, reason: str = "", who: int = 0, work: str = "new-batter-head",
        side: Side = Side.BATTER, part: Part | None = None,
    ) -> Hands:  # fmt: skip
        drum, at = self.drums[name], self.now - timedelta(minutes=minutes_ago)
        line = "single 10 coated" if side is Side.BATTER else "snare side 3"
        stock = (
            StockItem.objects.annotate(promised=Count("promises"))
            .filter(diameter_m=drum.diameter_m, line__name=line, count__gt=F("promised"))
            .first()
        )
        item = stock.pk if stock and work_named(work).changes_heads else None
        asked = StartJob(
            id=uuid.uuid5(NAMESPACE, f"job {name}"),
            tag=drum.tag,
            work=work,
            part=part or Part(side.value),
            heads=[] if part else [StartHead(side=side, stock_item=item, reason=reason, target="")],
        )
        job = start_job(asked, self.members[who])
        Job.objects.filter(pk=job.pk).update(opened_at=at)
        return Hands(job, self.members[who], at, head=_simulated(drum) if drum.rods_batter else None)

    def done(
        self, name: str, days_ago: float, work: str, part: str, note: str, who: int, answers: Mapping[str, str]
    ) -> None:
        """A piece of work led to its end some days ago, every step of it, with what was answered on the way."""
        drum, at = self.drums[name], self.now - timedelta(days=days_ago)
        asked = StartJob(id=uuid.uuid5(NAMESPACE, f"done {name} {work}"), tag=drum.tag, work=work, part=Part(part))
        job = start_job(asked, self.members[who])
        Job.objects.filter(pk=job.pk).update(opened_at=at)
        hands = Hands(job, self.members[who], at)
        for step in hands.state().steps[:-1]:
            for each in step.asks:
                said = answers.get(each.name) or (each.options[0].value if each.needed else "")
                if said:
                    hands.answer(step.id, each.name, said, each.unit)
            hands.steps(step.id)
        hands.send(1, kind="note", text=note)
        hands.send(1, kind="close", reason="", check=False)
        hands.state()
        Job.objects.filter(pk=job.pk).update(closed_at=hands.at, touched_at=hands.at)
        LogEntry.objects.filter(job_id=job.pk).update(at=hands.at)

    def to_clear(self, hands: Hands) -> None:
        hands.steps(*BEFORE_SLACKEN)
        hands.passes("slacken")
        hands.steps("slacken", *BEFORE_TENSION)
        hands.passes("tension")
        hands.steps("tension")

    def to_rest(self, name: str, minutes_ago: float, rest_minutes: int, who: int) -> None:
        hands = self.start(name, minutes_ago + 45, "will not hold its pitch", who)
        self.to_clear(hands)
        for lap in range(4):
            hands.tap_round(lap)
            hands.work_out(lap)
            clear = hands.state().laps["clear"][lap].plan
            if clear is None or clear.value.clear:
                break
            hands.turn_round(lap)
        hands.steps("clear")
        hands.up_to("rest")
        hands.at = max(hands.at, self.now - timedelta(minutes=minutes_ago))
        hands.send(0, kind="rest", step="rest", minutes=rest_minutes)
        hands.state()


DONE = (
    ("Knot", 9, "new-wires", "wires", "old cable had two kinked strands", 1),
    ("Coaler", 16, "rope-range", "heads", "third pair was slack", 0),
    ("Tug", 23, "muffling", "hardware", "folded towel inside, touching neither head", 1),
    ("Bow", 12, "hardware-service", "hardware", "claws wiped, one felt renewed", 0),
    ("Barge", 31, "uneven-on-purpose", "resonant", "rod 1 down an eighth: it sang with Collier", 1),
    ("Yawl", 5, "turn-over", "heads", "resonant cratered; two new heads owed", 0),
)
"""Work of other kinds in the demo's history: drum, days ago, work, part, what was noted, who."""
ANSWERS: Mapping[str, Mapping[str, str]] = {
    "Knot": {"wires": "20 strands, cord"},
    "Coaler": {
        "low-before": "46", "high-before": "61", "wanted-low": "47", "wanted-high": "62", "pulled": "6 mm", "low": "47.5", "high": "63",
    },
    "Tug": {"muffling": "towel", "muffling-where": "touching-none"},
}  # fmt: skip
"""What was answered on the way, by drum; a step that must know takes its first answer."""


def work_done(drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
    """Some of the work that changes no heads, so that every history has something to show."""
    begin = _Starter(drums, members, now)
    for name, days_ago, work, part, note, who in DONE:
        begin.done(name, days_ago, work, part, note, who, ANSWERS.get(name, {}))


def jobs_in_hand(drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
    """Ten jobs: turning, clearing, resting, rested, a snare side with its gate to align, wires, a rope to pull, and one check."""
    begin = _Starter(drums, members, now)
    heron = begin.start("Heron", 42, "dents too deep to play round")
    begin.to_clear(heron)
    heron.head.drop(20)  # type: ignore[union-attr]
    heron.tap_round(0)
    heron.work_out(0)
    heron.turn_round(0, leave=3)
    heron.state()

    kittiwake = begin.start("Kittiwake", 60 * 26, "dents too deep to play round", who=1)
    kittiwake.steps(*BEFORE_SLACKEN)
    kittiwake.passes("slacken", 2, rods_of_last=3)
    kittiwake.state()

    plover = begin.start("Plover", 95, "will not hold its pitch", who=1)
    plover.steps(*BEFORE_SLACKEN)
    plover.passes("slacken")
    plover.steps("slacken", "lift-off")
    plover.state()

    begin.to_rest("Drifter", 22, 60, who=0)
    begin.to_rest("Skua", 150, 60 * 19, who=1)
    begin.to_rest("Petrel", 60 * 5, 45, who=0)

    sanderling = begin.start("Sanderling", 30, "dented by sticks", work="new-snare-side-head", side=Side.RESONANT)
    sanderling.steps(*BEFORE_SLACKEN, "wires-off")
    sanderling.passes("slacken")
    sanderling.steps("slacken", "lift-off", "clean", "set-head")
    sanderling.state()

    razorbill = begin.start("Razorbill", 18, work="new-wires", part=Part.WIRES, who=1)
    razorbill.answer("lay-out", "wires", "16 strands, strap")
    razorbill.up_to("level")

    barque = begin.start("Barque", 55, work="rope-range", part=Part.HEADS)
    for question, hertz in (("low-before", "44.5"), ("high-before", "58"), ("wanted-low", "46"), ("wanted-high", "60")):
        barque.answer("mark", question, hertz, "pitch")
    barque.up_to("pull")

    dunlin = begin.start("Dunlin", 12, work="settling-check")
    dunlin.steps("look")
    dunlin.head.drop(17)  # type: ignore[union-attr]
    dunlin.tap_round(0, only=3)
    dunlin.state()
    for job in Job.objects.filter(state="open"):
        last = job.events.order_by("-made_at").values_list("made_at", flat=True).first()
        Job.objects.filter(pk=job.pk).update(touched_at=min(last or now, now))
