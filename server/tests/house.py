"""Makes a workshop with a drum, a shelf and people, and hands that work in it over the API."""

from __future__ import annotations

import json
import uuid
from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User
from django.test import Client
from django.utils import timezone

from apps.heads.models import Fitting, HeadLine, StockItem
from apps.register.models import Drum, Owner, Place
from apps.workshops.models import Membership, Workshop
from apps.workshops.scope import enter_workshop

INCH = 0.0254


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


def start_body(drum: Drum, **more: Any) -> dict[str, Any]:
    return {"id": str(uuid.uuid4()), "tag": drum.tag, "procedure": "new-batter-head", "side": "batter", **more}


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

    def lap(self, step: str = "clear", number: int = -1) -> dict[str, Any]:
        return dict(next(each for each in self.look()["steps"] if each["id"] == step)["laps"][number])

    def read_round(self, lap: int, *typed: str) -> None:
        self.send(
            *[self.event(kind="reading", lap=lap, rod=rod, typed=each) for rod, each in enumerate(typed, start=1)]
        )
