"""Makes a workshop with a drum, a shelf and people, and hands that work in it over the API."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cache
from typing import Any

from django.contrib.auth.models import User
from django.test import Client
from django.utils import timezone

from apps.bench.ledger import read_ledger
from apps.bench.selectors import job_by_id
from apps.heads.models import Fitting, HeadLine, StockItem
from apps.register.models import Drum, Owner, Place
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop
from config.api import api as whole_api
from drumwork.work.rounds import Mark
from drumwork.work.state import BenchState

INCH = 0.0254
GOOD = "low-tide-by-noon"
"""A password that is taken."""


@cache
def schema() -> dict[str, Any]:
    """What the API says of itself; made once, for it takes a second and a half."""
    return dict(whole_api.get_openapi_schema(path_prefix="/api/"))


@dataclass
class House:
    """One workshop and what is in it."""

    workshop: Workshop
    technician: Membership
    viewer: Membership
    drum: Drum
    stock: StockItem

    def enter(self) -> None:
        enter_workshop(self.workshop.pk)

    @contextmanager
    def as_demo(self) -> Iterator[None]:
        """The workshop is the demo’s meanwhile: only there is a simulated drum."""
        self.workshop.demo = True
        self.workshop.save(update_fields=["demo"])
        yield
        self.workshop.demo = False
        self.workshop.save(update_fields=["demo"])


class Api:
    """A signed-in client that speaks JSON."""

    def __init__(self, member: Membership | None) -> None:
        self.client = Client()
        if member is not None:
            self.client.force_login(member.user, backend="apps.accounts.backends.MemberBackend")

    def __call__(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        data = json.dumps(body) if body is not None else ""
        answer = self.client.generic(method, f"/api{path}", data, content_type="application/json")
        return answer.status_code, (answer.json() if answer.content else None)


def token_of(answer: dict[str, Any]) -> str:
    """What the address of a link carries."""
    return str(answer["address"]).split("#")[1]


def join(token: str, username: str = "kit", api: Api | None = None, **more: str) -> tuple[int, Any]:
    body = {"token": token, "username": username, "shown_name": "Kit Rowe", "password": GOOD, **more}
    return (api or Api(None))("POST", "/people/links/join", body)


def make_drum(workshop: Workshop, tag: str = "WR-001", **more: Any) -> Drum:
    place, _ = Place.objects.get_or_create(workshop=workshop, name="net loft")
    owner, _ = Owner.objects.get_or_create(workshop=workshop, name="chandlery")
    facts: dict[str, Any] = {
        "name": "Wren", "kind": "rack-tom", "diameter_m": 12 * INCH, "depth_m": 8 * INCH, "rods_batter": 6, "rods_resonant": 6,
        "wanted_batter_hz": 210.0, "place": place, "owner": owner, "search": f"{tag} wren rack tom".lower(),
    }  # fmt: skip
    return Drum.objects.create(workshop=workshop, tag=tag, **{**facts, **more})


def make_house(slug: str) -> House:
    workshop = Workshop.objects.create(name=slug.title(), slug=slug)
    enter_workshop(workshop.pk)
    members = [
        Membership.objects.create(
            user=User.objects.create(username=f"{slug}-{role}"),
            workshop=workshop,
            role=role,
            shown_name=f"{role} of {slug}",
        )
        for role in ("technician", "viewer")
    ]
    drum = make_drum(workshop)
    line = HeadLine.objects.create(workshop=workshop, name="single 10 coated", finish="coated")
    stock = StockItem.objects.create(workshop=workshop, line=line, diameter_m=12 * INCH, count=2, shelf="A1")
    Fitting.objects.create(
        workshop=workshop,
        drum=drum,
        side="batter",
        head="single 10 clear",
        fitted_at=timezone.now() - timezone.timedelta(days=400),
        fitted_by_name="someone",
    )
    return House(workshop, members[0], members[1], drum, stock)


def start_body(
    drum: Drum, work: str = "new-batter-head", part: str = "batter", schools: dict[str, str] | None = None, **head: Any
) -> dict[str, Any]:
    """A job on one part; `head` is said of its first side."""
    side = "resonant" if part == "resonant" else "batter"
    return {
        "id": str(uuid.uuid4()),
        "tag": drum.tag,
        "work": work,
        "part": part,
        "heads": [{"side": side, **head}],
        "schools": [{"way": way, "value": value} for way, value in (schools or {}).items()],
    }


class Hands:
    """One device working on one job."""

    def __init__(self, api: Api, job: str, device: str = "tablet") -> None:
        self.api, self.job, self.device = api, job, device
        self.seen = 0

    def event(self, **body: Any) -> dict[str, Any]:
        return {
            "id": str(uuid.uuid4()),
            "device": self.device,
            "seen": self.seen,
            "made_at": timezone.now().isoformat(),
            "v": 2,
            "body": body,
        }

    def send(self, *events: dict[str, Any]) -> list[dict[str, Any]]:
        status, answer = self.api("POST", f"/bench/jobs/{self.job}/events", {"events": list(events)})
        assert status == 200, answer
        return list(answer["receipts"])

    def do(self, **body: Any) -> dict[str, Any]:
        (receipt,) = self.send(self.event(**body))
        return receipt

    def look(self) -> dict[str, Any]:
        status, answer = self.api("GET", f"/bench/jobs/{self.job}")
        assert status == 200
        self.seen = answer["last_seq"]
        return dict(answer["bench"])

    def turned(self, step: str, lap: int, *turns: tuple[int, int | None]) -> dict[str, Any]:
        """An entry of turns: rod and thirty-seconds, or None where it was skipped."""
        return self.event(
            kind="turned", step=step, lap=lap, made=[{"rod": rod, "turns_32": made} for rod, made in turns]
        )

    def reading(self, lap: int, rod: int, typed: str, step: str = "clear", **more: Any) -> dict[str, Any]:
        return self.event(kind="reading", step=step, lap=lap, rod=rod, typed=typed, **more)

    def folded(self) -> BenchState:
        """Where the job stands, by the core's fold of what is stored."""
        return read_ledger(job_by_id(uuid.UUID(self.job))).state

    def lap(self, step: str = "clear", number: int = -1) -> dict[str, Any]:
        """One pass or round as a device shows it: the core's state with the figures of the answer."""
        state, figures = self.folded(), self.look()["figures"]
        laps = state.laps[step]
        return lap_shown(state, step, number % len(laps), figures)

    def read_round(self, lap: int, *typed: str, step: str = "clear") -> None:
        self.send(*[self.reading(lap, rod, each, step) for rod, each in enumerate(typed, start=1)])


def lap_shown(state: BenchState, step: str, number: int, figures: dict[str, Any]) -> dict[str, Any]:
    """What a person would see of a lap. Figures come from the answer alone, found by the entry they belong to."""
    lap = state.laps[step][number]
    side = state.plan.side_of(step)
    plan = next((each for each in figures["plans"] if lap.plan and each["entry"] == lap.plan.event_id), None)
    whole = next((each for each in figures["rounds"] if (each["step"], each["lap"]) == (step, number)), {})
    planned = {each["rod"]: each for each in plan["rods"]} if plan else {}
    read = {(each["entry"], each["rod"]): each for each in figures["readings"]}
    centre = next((each for each in figures["pitches"] if lap.centre and each["entry"] == lap.centre.event_id), None)

    def figure(mark: Mark[Any] | None, rod: int) -> dict[str, Any] | None:
        return read.get((mark.event_id, rod)) if mark else None

    rods = []
    for rod in state.layout(side).rods:
        reading = figure(lap.heard(state.means).get(rod), rod)
        beside = figure(lap.numbers.get(rod), rod) if state.means == "pitch" else None
        turned = lap.turned.get(rod)
        rods.append(
            {
                "rod": rod,
                "owed_32": lap.each.thirtyseconds if lap.each else planned[rod]["turns_32"] if planned else None,
                "turned": {"turns_32": turned.value.thirtyseconds if turned.value else None} if turned else None,
                "reading": {**reading, "typed": lap.typed.get(rod, "")} if reading else None,
                "number": beside["shown"] if beside else "",
                "predicted": planned[rod]["predicted"] if planned else "",
                "reference": state.means == "ear" and state.reference(side) == rod,
            }
        )
    found = {name: whole.get(name) for name in ("wanted_hz", "pair", "tapped", "compared")}
    judged = lap.whole.value.value if lap.whole else ""
    return {"order": list(lap.rods), "rods": rods, "plan": plan, "whole": judged, "centre": centre, **found}
