"""Run by the migration test in a process of its own: migrate the database in RT_DATABASE_URL, tell its jobs, then finish those in hand."""

from __future__ import annotations

import gzip
import json
import logging
import os
import sys
from pathlib import Path
from typing import Any

HERE = Path(__file__).parent
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
sys.path[:0] = [str(HERE), str(HERE.parent), str(HERE.parents[1] / "core" / "src")]

import django  # noqa: E402

django.setup()
logging.disable(logging.CRITICAL)

from django.conf import settings  # noqa: E402
from django.core.management import call_command  # noqa: E402
from house import Api, Hands  # noqa: E402

from apps.bench.figures import figures_of  # noqa: E402
from apps.bench.ledger import read_ledger  # noqa: E402
from apps.bench.models import Job, JobEvent, JobHead  # noqa: E402
from apps.bench.selectors import bench_of, job_by_id  # noqa: E402
from apps.workshops.models import Membership, Workshop  # noqa: E402
from apps.workshops.scope import inside  # noqa: E402
from drumwork.work.cautions import CAUTIONS  # noqa: E402
from drumwork.work.fold import where  # noqa: E402
from drumwork.work.kinds.steps import Rest  # noqa: E402
from drumwork.work.rounds import Lap  # noqa: E402

SHOWN = json.loads(gzip.decompress((HERE / "fixtures" / "bench_before_engine.json.gz").read_bytes()))


def told_lap(lap: Lap, step: str, number: int, figures: Any) -> dict[str, Any]:
    entries = {mark.event_id for rods in (lap.readings, lap.ear, lap.numbers) for mark in rods.values()}
    round_ = next((each for each in figures.rounds if (each.step, each.lap) == (step, number)), None)
    return {
        "order": list(lap.order),
        "turned": {str(r): m.value.thirtyseconds if m.value else None for r, m in lap.turned.items()},
        "read": {str(each.rod): [each.shown, each.cents] for each in figures.readings if each.entry in entries},
        "verdict": lap.plan.value.verdict if lap.plan else None,
        "compared": round_.compared if round_ else "",
    }


def told(job: Job) -> dict[str, Any]:
    ledger = read_ledger(job)
    state, shown = ledger.state, bench_of(job)
    (head,) = job.heads.all()
    (side,) = ledger.plan.sides
    target, tally = state.target(side), state.tally(side)
    figures = figures_of(state)
    live = [each for each in reversed(state.live) if each.entry.kind != "close"]
    return {
        "where": where(state),
        "state": job.state,
        "title": ledger.plan.title,
        "last_seq": job.last_seq,
        "new_head": head.new_head,
        "old_head": head.old_head,
        "reason": head.reason,
        "target_hz": target.hz if target else None,
        "step_32": state.step.thirtyseconds,
        "notes": [mark.value for mark in state.notes],
        "tally": {str(rod): turns.thirtyseconds for rod, turns in tally.items()} if tally else None,
        "conflicts": [each.model_dump() for each in shown.conflicts],
        "undo": [each.entry.words(ledger.plan) for each in live][:40],
        "steps": [
            {
                "id": step.id,
                "title": step.title,
                "say": step.say,
                "points": list(step.said(())),
                "cautions": [CAUTIONS[each] for each in step.cautions],
                "minutes": step.data.minutes if isinstance(step.data, Rest) else 0,
                "done": step.id in state.done,
                "laps": [
                    told_lap(lap, step.id, number, figures) for number, lap in enumerate(state.laps.get(step.id, []))
                ],
            }
            for step in state.steps
        ],
    }


def finish(api: Api, key: str) -> str:
    """Do what is left, over the API."""
    hands = Hands(api, key)
    bench = hands.look()
    for conflict in bench["conflicts"]:
        hands.do(kind="settle", event=conflict["event"], take="second")
    done = {each["body"]["step"] for each in bench["log"] if each["body"]["kind"] == "step_done"}
    for step in bench["plan"]:
        if step["id"] not in done and step["kind"] != "close" and step["when"] is True:
            assert hands.do(kind="step_done", step=step["id"])["standing"] == "applied"
    receipt = hands.do(kind="close", reason="done")
    assert receipt["standing"] == "applied", receipt
    return "closed"


def main() -> None:
    settings.ALLOWED_HOSTS = ["*"]
    call_command("migrate", verbosity=0)
    workshop = Workshop.objects.get()
    answer: dict[str, Any] = {}
    with inside(workshop.pk):
        answer["jobs"] = {key: told(job_by_id(key)) for key in SHOWN}  # type: ignore[arg-type]
        answer["versions"] = sorted(set(JobEvent.objects.values_list("version", flat=True)))
        answer["shapes"] = sorted(set(Job.objects.values_list("plan_shape", flat=True)))
        answer["heads"], answer["count"] = JobHead.objects.count(), Job.objects.count()
    api = Api(Membership.objects.filter(role="technician").first())
    answer["finished"] = {key: finish(api, key) for key, job in SHOWN.items() if job["state"] == "open"}
    print(json.dumps(answer))


if __name__ == "__main__":
    main()
