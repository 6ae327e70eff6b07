"""Eighteen months of believable history, the same every time for the same seed, dated from the day of loading."""

from __future__ import annotations

import random
import uuid
from collections.abc import Iterator
from dataclasses import asdict, dataclass, field
from datetime import datetime, time, timedelta
from typing import Any

from django.db.backends.postgresql.psycopg_any import NumericRange

from apps.accounts.demo_accounts import ACCOUNTS
from apps.bench.models import PARTS, Job, JobHead, KeptAnswer
from apps.bench.stored import PLAN_SHAPE, plan_to
from apps.demo import scenario as s
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, HeadLine, ShelfThing, StockItem, WireLine
from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum, Kit, KitDrum, Owner, Place
from apps.register.schemas import KIND_WORDS
from apps.register.sides import SideOf, facts_of
from apps.workshops.models import Workshop
from apps.workshops.schemas import to_ways
from drumwork.drums import Side, traits_of
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.quantities import Length, Pitch, Turns, ratio_of
from drumwork.rods.clearing import ClearingTask, EvenRule, Learned, Round, propose
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead
from drumwork.work.history import new_head_words
from drumwork.work.making import make_plan
from drumwork.work.plan import Head, Part

__all__ = ["NAMESPACE", "build_history"]

NAMESPACE = uuid.uuid5(uuid.NAMESPACE_URL, "red-tally-demo")
MONTHS_BACK_DAYS = 548  # eighteen months
ROUTINE_DAYS = 120


def _turned_in(rounds: int) -> str:
    return f"turned in {rounds} {'round' if rounds == 1 else 'rounds'}" if rounds else "nothing to turn"


@dataclass
class Pile:
    """Rows gathered for bulk insertion."""

    jobs: list[Job] = field(default_factory=list)
    heads: list[JobHead] = field(default_factory=list)
    log: list[LogEntry] = field(default_factory=list)
    pitches: list[PitchRecord] = field(default_factory=list)
    fittings: list[Fitting] = field(default_factory=list)
    checks: list[FollowUp] = field(default_factory=list)
    answers: dict[tuple[str, str], KeptAnswer] = field(default_factory=dict)

    def save(self) -> None:
        Job.objects.bulk_create(self.jobs, batch_size=500)
        JobHead.objects.bulk_create(self.heads, batch_size=500)
        LogEntry.objects.bulk_create(self.log, batch_size=500)
        PitchRecord.objects.bulk_create(self.pitches, batch_size=500)
        Fitting.objects.bulk_create(self.fittings, batch_size=500)
        FollowUp.objects.bulk_create(self.checks, batch_size=500)
        KeptAnswer.objects.bulk_create(self.answers.values(), batch_size=500)


class Builder:
    """Writes the demo workshop's rows."""

    def __init__(self, workshop: Workshop, now: datetime) -> None:
        self.workshop, self.now = workshop, now
        self.random = random.Random(s.SEED)
        self.came_off: dict[tuple[str, str], str] = {}  # why the last head of a side went
        self.people = [account.shown_name for account in ACCOUNTS if account.role != "viewer"]
        self.pile = Pile()

    def day(self, days_ago: float, hour: int | None = None) -> datetime:
        """A working hour so many days before the day of loading."""
        date = (self.now - timedelta(days=days_ago)).date()
        moment = time(hour if hour is not None else self.random.randint(9, 16), self.random.randint(0, 59))
        return min(datetime.combine(date, moment, self.now.tzinfo), self.now - timedelta(hours=2))

    def shelf(self) -> None:
        lines = [HeadLine(workshop=self.workshop, **line._asdict()) for line in s.LINES]
        HeadLine.objects.bulk_create(lines)
        WireLine.objects.bulk_create(WireLine(workshop=self.workshop, **wires._asdict()) for wires in s.WIRES)
        ShelfThing.objects.bulk_create(
            ShelfThing(workshop=self.workshop, **thing._asdict(), said_by_name=s.BENCH, said_at=self.day(90))
            for thing in s.THINGS
        )
        sizes = sorted({(m.diameter, head) for m in s.MODELS.values() for head in (*m.batter_heads, m.resonant_head)})
        by_name = {line.name: line for line in lines}
        StockItem.objects.bulk_create(
            StockItem(
                workshop=self.workshop,
                line=by_name[head],
                diameter_m=Length.from_inches(diameter).metres,
                count=self.random.choice((0, 1, 1, 2, 3))
                if head != "single 10 coated"
                else self.random.choice((1, 2, 4)),
                shelf=f"{'ABCD'[n % 4]}{1 + n // 4}",
            )
            for n, (diameter, head) in enumerate(sizes)
        )

    def drums(self) -> list[tuple[Drum, s.Model]]:
        places = [Place.objects.create(workshop=self.workshop, name=name) for name in s.PLACES]
        owners = [Owner.objects.create(workshop=self.workshop, name=name) for name in s.OWNERS]
        built = [(self._drum(each, places, owners), s.MODELS[each.model]) for each in s.DRUMS]
        Drum.objects.bulk_create([drum for drum, _ in built])
        names = sorted({name for each in s.DRUMS for name in each.kits})
        kits = {name: Kit.objects.create(workshop=self.workshop, name=name) for name in names}
        members = [
            KitDrum(workshop=self.workshop, kit=kits[name], drum=drum)
            for each, (drum, _) in zip(s.DRUMS, built, strict=True)
            for name in each.kits
        ]
        KitDrum.objects.bulk_create(members)
        return built

    def _drum(self, each: s.DemoDrum, places: list[Place], owners: list[Owner]) -> Drum:
        model = s.MODELS[each.model]
        state = (
            "out"
            if each.name in s.OUT
            else "repair"
            if each.name in s.IN_REPAIR
            else "retired"
            if each.name in s.RETIRED
            else "in"
        )
        lost_side, lost = s.LOST_RODS.get(each.name, ("", []))
        place, owner = places[each.place], owners[each.owner]
        words = [
            f"MQ-{each.number:03d}",
            each.name,
            KIND_WORDS[model.kind],
            model.shell,
            place.name,
            owner.name,
            *each.kits,
        ]
        return Drum(
            workshop=self.workshop,
            tag=f"MQ-{each.number:03d}",
            name=each.name,
            kind=model.kind,
            diameter_m=Length.from_inches(model.diameter).metres,
            depth_m=Length.from_inches(model.depth).metres,
            shell=model.shell,
            rods_batter=model.rods,
            rods_resonant=model.rods,
            lost_batter=lost if lost_side == "batter" else [],
            lost_resonant=lost if lost_side == "resonant" else [],
            thread=model.thread,
            hoops=model.hoops,
            snare_bed=traits_of(model.kind).wires,
            bed_rods=s.BESIDE_BED.get(model.rods, []) if traits_of(model.kind).wires else [],
            port_rods=s.BESIDE_PORT.get(model.rods, []) if model.port else [],
            badge="between" if traits_of(model.kind).rods else "none",
            port_m=Length.from_inches(model.port).metres if model.port else None,
            wanted_batter_hz=model.batter_hz,
            wanted_resonant_hz=model.resonant_hz,
            place=place,
            owner=owner,
            state=state,
            search=" ".join(words).lower(),
        )

    def side_history(self, drum: Drum, model: s.Model, side: str) -> None:
        """Heads fitted over eighteen months, each with its first clearing, its check and routine looks."""
        heads = model.batter_heads if side == "batter" else (model.resonant_head,)
        fixed = (s.BATTER_AGE_DAYS if side == "batter" else s.RESONANT_AGE_DAYS).get(drum.name)
        present = fixed if fixed is not None else self.random.randint(25, 330 if side == "batter" else 800)
        ages = [present]
        while ages[-1] < MONTHS_BACK_DAYS and side == "batter":
            ages.append(ages[-1] + self.random.randint(190, 400))
        moments = [self.day(age) for age in reversed(ages)]
        head = self.random.choice(heads)
        for n, at in enumerate(moments):
            before, head = head, self.random.choice(heads)
            until = moments[n + 1] if n + 1 < len(moments) else None
            self._one_head(drum, side, head, before if n else "", at, until)

    def _why_off(self, head: str) -> str:
        """Only what is coated can lose its coating."""
        because = self.random.choice(s.REASONS)
        return because if "coated" in head or "coat" not in because else s.REASONS[1]

    def _one_head(self, drum: Drum, side: str, head: str, old: str, at: datetime, retired: datetime | None) -> None:
        who = self.random.choice(self.people)
        job_id = self._job(drum, side, f"new-{side}-head", at, head, old)
        because = self._why_off(head) if retired else ""
        self.pile.fittings.append(
            Fitting(
                workshop=self.workshop, drum=drum, side=side, head=head, fitted_at=at, fitted_by_name=who,
                retired_at=retired, retired_because=because, job_id=job_id,
            )
        )  # fmt: skip
        record: dict[str, Any] = {"new_head": head, "old_head": old, "people": [who]}
        outcome, cleared = "", "."
        of = SideOf(drum, Side(side))
        if (wanted := of.wanted_hz) and not of.lost:
            record |= self._clearing(drum, side, wanted, at, job_id, head)
            first, last = record["rounds"][0]["spread_hz"], record["rounds"][-1]["spread_hz"]
            cleared, outcome = (
                f". Cleared, spread {first:.1f} → {last:.1f} Hz",
                _turned_in(len(record["rounds"]) - 1),
            )
            self._after(drum, side, wanted, at, retired)
        if old:
            self.random.choice(s.REASONS)  # so many draws as ever: the demo stays as it was
        said = new_head_words(Side(side), head, old, self.came_off.get((drum.tag, side), "") if old else "")
        self.came_off[drum.tag, side] = because
        self._write(
            drum,
            side,
            at,
            "new-head",
            f"{said}{cleared.removeprefix('.') or ''}".strip(),
            outcome,
            who,
            job_id,
            record,
        )

    def _job(self, drum: Drum, side: str, work_id: str, at: datetime, head: str = "", old: str = "") -> uuid.UUID:
        """A closed job, where the catalogue has such work for such a drum; its id in any case."""
        job_id = uuid.uuid5(NAMESPACE, f"{drum.tag}{side}{work_id}{at.isoformat()}")
        work, part, facts = CATALOGUE.get(work_id), Part(side), facts_of(drum)
        if work is None or work.why_not(facts, part):
            return job_id
        minutes = self.random.randint(34, 62) if work.changes_heads else self.random.randint(4, 14)
        plan = make_plan(work, part, facts, to_ways(self.workshop), {Side(side): Head(head, old)})
        self.pile.jobs.append(
            Job(
                id=job_id, workshop=self.workshop, drum=drum, work=work_id, part=side, takes=NumericRange(*PARTS[side], "[)"),
                state="closed", plan=plan_to(plan), plan_shape=PLAN_SHAPE, opened_at=at - timedelta(minutes=minutes), closed_at=at,
                touched_at=at, where="closed",
            )
        )  # fmt: skip
        self.pile.heads.append(JobHead(workshop=self.workshop, job_id=job_id, side=side, new_head=head, old_head=old))
        return job_id

    def _clearing(
        self, drum: Drum, side: str, wanted: float, at: datetime, job_id: uuid.UUID | None, head_name: str = ""
    ) -> dict[str, Any]:
        """Rounds of readings and turns from a simulated head and the real engine."""
        layout = RodLayout(SideOf(drum, Side(side)).rods)
        head = SimulatedHead(layout, wanted, self.random.randrange(10**9), uneven=self.random.uniform(0.005, 0.014))
        rounds: list[Round] = []
        stored: list[dict[str, Any]] = []
        for _ in range(4):
            rounds.append(Round(head.tap()))
            found = propose(
                ClearingTask(layout, tuple(rounds), Turns(self.workshop.step_32), Pitch(wanted), EvenRule())
            )
            turns = {} if found.verdict.clear else dict(found.turns)
            stored.append(
                {
                    "readings_hz": {str(rod): pitch.hz for rod, pitch in rounds[-1].readings.items()},
                    "turns_32": {str(rod): t.thirtyseconds for rod, t in turns.items() if t.thirtyseconds},
                    "spread_hz": round(found.verdict.spread, 2),
                    "mean_hz": round(found.verdict.mean, 2),
                }
            )
            if not any(t.thirtyseconds for t in turns.values()):
                if found.learned:
                    self._keep(drum, side, head_name, found.learned)
                break
            rounds[-1] = Round(rounds[-1].readings, turns)
            head.turn(turns)
        for n, each in enumerate(stored):
            if n in (0, len(stored) - 1):
                self._pitch(
                    drum, side, at + timedelta(minutes=4 * n), each["mean_hz"], each["spread_hz"], wanted, job_id
                )
        return {"rounds": stored}

    def _keep(self, drum: Drum, side: str, head: str, learned: Learned) -> None:
        """How the head answered, for its next clearing; the latest stands."""
        self.pile.answers[drum.tag, side] = KeptAnswer(
            workshop=self.workshop,
            drum=drum,
            side=side,
            head=head,
            rods=list(learned.rods),
            rounds=learned.rounds,
            kinds=[asdict(kind) for kind in learned.kinds],
        )

    def _pitch(
        self,
        drum: Drum,
        side: str,
        at: datetime,
        mean: float,
        spread: float,
        wanted: float,
        job_id: uuid.UUID | None = None,
    ) -> None:
        self.pile.pitches.append(
            PitchRecord(
                workshop=self.workshop,
                drum=drum,
                side=side,
                at=at,
                mean_hz=round(mean, 2),
                spread_hz=round(spread, 2),
                wanted_hz=wanted,
                job_id=job_id,
            )
        )

    def _looks(self, at: datetime, until: datetime | None) -> Iterator[tuple[datetime, float]]:
        """When a head was looked at again, and how many cents it had dropped since."""
        end = until or self.now
        check = at + timedelta(days=2, hours=self.random.randint(0, 5))
        if check < end:
            yield check, self.random.uniform(12, 26)
        look = check + timedelta(days=ROUTINE_DAYS + self.random.randint(-20, 25))
        while look < end - timedelta(days=3):
            yield look, self.random.uniform(4, 15)
            look += timedelta(days=ROUTINE_DAYS + self.random.randint(-20, 25))

    def _after(self, drum: Drum, side: str, wanted: float, at: datetime, until: datetime | None) -> None:
        open_check = side == "batter" and drum.name in s.CHECKS and until is None
        for n, (when, dropped) in enumerate(self._looks(at, until)):
            if open_check:
                break
            who, kind = self.random.choice(self.people), "settling-check" if n == 0 else "routine-check"
            job_id = self._job(drum, side, "settling-check", when)
            found = wanted * ratio_of(-dropped)
            spread = wanted * self.random.uniform(0.006, 0.022)
            self._pitch(drum, side, when - timedelta(minutes=5), found, spread, wanted)
            left = self.random.uniform(0.4, 1.0) * min(2.0, 0.02 * wanted)
            self._pitch(drum, side, when, wanted * ratio_of(self.random.uniform(-3, 3)), left, wanted, job_id)
            name = "Settling check" if n == 0 else "Routine check"
            text = f"{name}, {side}: found {dropped:.0f} cents down, cleared, spread {spread:.1f} → {left:.1f} Hz"
            self._write(drum, side, when, kind, text, f"{self.random.randint(2, 6)} rods turned", who, job_id, {})

    def _write(
        self,
        drum: Drum,
        side: str,
        at: datetime,
        kind: str,
        text: str,
        outcome: str,
        who: str,
        job_id: uuid.UUID,
        record: dict[str, Any],
    ) -> None:
        self.pile.log.append(
            LogEntry(
                workshop=self.workshop,
                drum=drum,
                side=side,
                at=at,
                kind=kind,
                text=text,
                outcome=outcome,
                by_name=who,
                job_id=job_id,
                record=record,
            )
        )

    def wires(self, drum: Drum) -> None:
        """What lies under a snare drum: cable on the orchestral ones, coiled wires on the others."""
        coiled = s.WIRES[self.random.randint(0, 1)].name
        self.pile.fittings.append(
            Fitting(
                workshop=self.workshop,
                drum=drum,
                side="wires",
                head=s.WIRES[2].name if drum.kind == "orchestral-snare" else coiled,
                fitted_at=self.day(self.random.randint(40, 700)),
                fitted_by_name=self.random.choice(self.people),
            )
        )

    def checks(self, drums: list[tuple[Drum, s.Model]]) -> None:
        by_name = {drum.name: drum for drum, _ in drums}
        for name, days in s.CHECKS.items():
            due = self.day(-days, 9) if days > 0 else min(self.day(-days, 9), self.now - timedelta(hours=1))
            if days > 0:
                due = datetime.combine((self.now + timedelta(days=days)).date(), time(10, 30), self.now.tzinfo)
            self.pile.checks.append(
                FollowUp(
                    workshop=self.workshop,
                    drum=by_name[name],
                    side="batter",
                    due_at=due,
                    why="new batter head; its check",
                )
            )

    def lost_rods(self, drums: list[tuple[Drum, s.Model]]) -> None:
        for drum, _ in drums:
            if drum.name in s.LOST_RODS:
                side, rods = s.LOST_RODS[drum.name]
                self._write(
                    drum,
                    side,
                    self.day(12),
                    "lost-rod",
                    f"Came back without rod {rods[0]} on the {side} side",
                    "missing",
                    self.people[0],
                    uuid.uuid5(NAMESPACE, drum.tag),
                    {},
                )


def build_history(workshop: Workshop, now: datetime) -> dict[str, Drum]:
    """Write the register, the shelf and the history; return the drums by name."""
    builder = Builder(workshop, now)
    builder.shelf()
    drums = builder.drums()
    for drum, model in drums:
        for side in ("batter", "resonant"):
            builder.side_history(drum, model, side)
    for drum, _ in drums:
        if drum.snare_bed:
            builder.wires(drum)
    builder.checks(drums)
    builder.lost_rods(drums)
    builder.pile.save()
    return {drum.name: drum for drum, _ in drums}
