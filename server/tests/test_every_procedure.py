"""Every piece of work the catalogue has, opened and carried to its end over the API, on every kind of drum it suits."""

from __future__ import annotations

from typing import Any

import pytest
from house import Api, Hands, House, make_drum, start_body

from apps.bench.schemas import BenchAnswer
from apps.history.models import LogEntry
from apps.register.models import Drum
from apps.register.sides import facts_of
from drumwork.drums import DrumKind, traits_of
from drumwork.findings import Where, findings_for
from drumwork.procedures.catalogue import offers_for


def _drum(house: House, kind: DrumKind) -> Drum:
    rods = 8 if traits_of(kind).rods else 0
    more: dict[str, Any] = {
        "rods_batter": rods,
        "rods_resonant": rods,
        "snare_bed": traits_of(kind).wires,
        "thread": "12-24",
    }
    if kind is DrumKind.BASS:
        more |= {"port_m": 0.14, "port_rods": [2, 3]}
    return make_drum(house.workshop, f"K-{kind.value}"[:20], kind=kind.value, **more)


def _entries(hands: Hands, step: dict[str, Any]) -> list[dict[str, Any]]:
    """What a person enters at a step: what must be known, every turn of every pass; of the rest, that it is done."""
    laps = [[(rod, each["each_32"]) for rod in each["order"]] for each in step["passes"]]
    turned = [hands.turned(step["id"], number, *made) for number, made in enumerate(laps)]
    asked = [
        hands.event(
            kind="answer",
            step=step["id"],
            question=each["name"],
            values=[each["options"][0]["value"] if each["options"] else "K-99"],
        )
        for each in step["asks"]
        if each["needed"]
    ]
    return [*asked, *turned, hands.event(kind="step_done", step=step["id"])]


@pytest.mark.parametrize("kind", list(DrumKind))
def test_all_work_on_a_drum_opens_and_closes(house: House, api: Api, kind: DrumKind) -> None:
    drum = _drum(house, kind)
    done = 0
    for offer in offers_for(facts_of(drum)):
        if offer.why_not:
            continue
        body = start_body(drum, offer.work.id, offer.part.value) | {"heads": []}
        status, bench = api("POST", "/bench/jobs", body)
        assert status == 201, bench
        assert BenchAnswer.model_validate({"last_seq": bench["last_seq"], "bench": bench})
        hands = Hands(api, bench["id"])
        shown = [step for step in bench["plan"] if step["when"] is True]
        entries = [entry for step in shown[:-1] for entry in _entries(hands, step)]
        for begin in range(0, len(entries), 100):  # as many as a device sends at once
            some = entries[begin : begin + 100]
            receipts = zip(some, hands.send(*some), strict=True)
            refused = [(entry["body"], told) for entry, told in receipts if told["standing"] != "applied"]
            assert not refused, offer.work.id
        assert hands.do(kind="note", text="left as it was wanted")["standing"] == "applied"
        assert hands.do(kind="close", reason="worn", check=True)["standing"] == "applied", offer.work.id
        assert hands.look()["state"] == "closed"
        assert LogEntry.objects.filter(drum=drum, kind=offer.work.id, job_id=bench["id"]).exists()
        done += 1
    assert done >= 6
    assert api("GET", f"/register/drums/{drum.tag}/sheet")[0] == 200
    assert api("GET", "/today")[0] == 200


@pytest.mark.parametrize("kind", list(DrumKind))
def test_anything_can_be_found_during_work_on_any_part(house: House, api: Api, kind: DrumKind) -> None:
    drum = _drum(house, kind)
    one_a_part = {each.part: each for each in offers_for(facts_of(drum)) if not each.why_not}
    for offer in one_a_part.values():
        Drum.objects.filter(pk=drum.pk).update(
            lost_batter=[], lost_resonant=[]
        )  # a rod found missing before is fitted again
        body = start_body(drum, offer.work.id, offer.part.value) | {"heads": []}
        hands = Hands(api, api("POST", "/bench/jobs", body)[1]["id"])
        first = hands.look()["plan"][0]["id"]
        side = offer.part.sides[0].value if offer.part.sides else "batter"
        events = []
        for each in findings_for(kind):
            place = {"side": side if each.where in (Where.HEAD, Where.ROD, Where.HOOP, Where.EDGE) else None}
            rod = {"rod": 3} if each.where is Where.ROD else {}
            events.append(
                hands.event(kind="found", step=first, finding=each.id, degree=3 if each.degrees else 2, **place, **rod)
            )
        refused = [each["message"] for each in hands.send(*events) if each["standing"] != "applied"]
        assert not refused, (offer.work.id, refused)
        assert hands.do(kind="close", reason="", check=False)["standing"] == "applied"
    found = api("GET", f"/register/drums/{drum.tag}/sheet")[1]["findings"]
    assert found
    for each in found:
        assert api("POST", f"/bench/findings/{each['id']}/put-right", {})[0] == 204
    assert not api("GET", f"/register/drums/{drum.tag}/sheet")[1]["findings"]
    drum.refresh_from_db()
    assert drum.lost_batter == drum.lost_resonant == []  # a missing rod put right is there again
