"""Call-outs over HTTP: the log is taken in once, the record follows it, rods lent are on both drums and come back, the note is written."""

from __future__ import annotations

import io
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from archived import empty_workshop, taken, written
from django.utils import timezone
from house import INCH, Api, House, make_drum
from pypdf import PdfReader

from apps.archive.tables import LATER
from apps.bench.models import DrumFinding
from apps.callouts.models import CallOut, CallOutEvent
from apps.callouts.selectors import letter
from apps.history.models import LogEntry, PitchRecord
from apps.planned.models import PlannedJob
from apps.register.models import Drum
from apps.stock.models import Loan

SNARE, TOM, BASS = "WR-101", "WR-102", "WR-103"


def _pitched(drum: Drum, hz: float) -> None:
    for side in ("batter", "resonant"):
        PitchRecord.objects.create(workshop=drum.workshop, drum=drum, side=side, at=timezone.now(), mean_hz=hz)


@pytest.fixture
def drums(house: House) -> dict[str, Drum]:
    """A ten-rod snare, a floor tom of eight rods and a bass drum, all of one thread."""
    house.enter()
    made = {
        SNARE: make_drum(
            house.workshop, SNARE, name="Wheatear", kind="snare", diameter_m=14 * INCH, rods_batter=10, rods_resonant=10,
            thread="7/32-24", snare_bed=True, bed_rods=[1, 10],
        ),
        TOM: make_drum(
            house.workshop, TOM, name="Fulmar", kind="floor-tom", diameter_m=16 * INCH, depth_m=16 * INCH, rods_batter=8, rods_resonant=8,
            thread="7/32-24",
        ),
        BASS: make_drum(
            house.workshop, BASS, name="Dredger", kind="bass", diameter_m=22 * INCH, depth_m=16 * INCH, rods_batter=10, rods_resonant=10,
            thread="7/32-24",
        ),
    }  # fmt: skip
    for tag, hz in ((SNARE, 320.0), (TOM, 150.0), (BASS, 90.0)):
        _pitched(made[tag], hz)
    return made


@pytest.fixture
def callout(drums: dict[str, Drum], api: Api) -> dict[str, Any]:
    body = {"name": "harbour house kit", "drums": [{"tag": tag} for tag in drums], "at": "Pier Rooms"}
    kit = api("POST", "/kits", body)[1]["id"]
    status, made = api("POST", "/callouts", {"id": str(uuid.uuid4()), "kit": kit, "minutes": 12})
    assert status == 201, made
    return dict(made)


def entry(body: dict[str, Any], device: str = "phone", at: datetime | None = None) -> dict[str, Any]:
    made_at = (at or timezone.now()).astimezone(UTC).isoformat()
    return {"id": str(uuid.uuid4()), "device": device, "seen": 0, "made_at": made_at, "v": 1, "body": body}


def send(api: Api, callout: dict[str, Any], *bodies: dict[str, Any], device: str = "phone") -> list[dict[str, Any]]:
    events = [each if "body" in each else entry(each, device) for each in bodies]
    status, answer = api("POST", f"/callouts/{callout['id']}/events", {"events": events})
    assert status == 200, answer
    return list(answer["receipts"])


def ticked(drum: str, finding: str, side: str | None = None, rod: int | None = None) -> dict[str, Any]:
    return {"kind": "ticked", "drum": drum, "finding": finding, "side": side, "rod": rod}


def step(callout: dict[str, Any], start: str) -> str:
    return next(each["id"] for each in callout["book"]["steps"] if each["id"].startswith(start))


def done(name: str) -> dict[str, Any]:
    return {"kind": "done", "step": name}


def test_the_book_has_all_a_phone_needs_without_network(callout: dict[str, Any]) -> None:
    assert [each["name"] for each in callout["book"]["drums"]] == [
        "Wheatear",
        "Fulmar",
        "Dredger",
        "Stands and cymbals",
    ]
    assert callout["at"] == "Pier Rooms"
    lend = next(each for each in callout["book"]["steps"] if each["id"] == f"{TOM} rod resonant 3 from {SNARE}")
    gives = {
        "giver": SNARE,
        "giver_name": "Wheatear",
        "giver_rods": 10,
        "taker": TOM,
        "taker_side": "resonant",
        "taker_rods": 8,
        "taker_rod": 3,
    }
    assert {name: lend["gives"][name] for name in gives} == gives
    assert lend["stop_gap"]
    assert lend["phase"] == 1
    words = [each["words"] for each in callout["book"]["drums"][1]["ticks"] if each["usual"]]
    assert {"rod missing, bottom head", "bottom head torn", "leg missing", "rattles"} <= set(words)


def test_asked_twice_it_begins_once_and_a_kit_without_drums_is_refused(callout: dict[str, Any], api: Api) -> None:
    again = {"id": callout["id"], "kit": callout["kit"], "minutes": 5}
    assert api("POST", "/callouts", again)[1]["minutes"] == 12
    empty = api("POST", "/kits", {"name": "nothing yet", "drums": []})[1]["id"]
    status, said = api("POST", "/callouts", {"id": str(uuid.uuid4()), "kit": empty, "minutes": 5})
    assert status == 422
    assert "no drums" in said["message"]


def test_what_is_ticked_is_on_record_once_however_often_it_is_sent(
    callout: dict[str, Any], drums: dict[str, Drum], api: Api, house: House
) -> None:
    rows = [entry(ticked(TOM, "leg-missing")), entry(ticked(TOM, "rod-missing", "resonant", 3))]
    for _ in range(2):
        assert {each["standing"] for each in send(api, callout, *rows)} == {"applied"}
    send(api, callout, ticked(TOM, "leg-missing"), device="another")  # a second pair of eyes
    house.enter()
    found = DrumFinding.objects.filter(drum=drums[TOM], put_right_at__isnull=True)
    assert sorted(found.values_list("finding", "rod")) == [("leg-missing", None), ("rod-missing", 3)]
    assert CallOutEvent.objects.count() == 3
    assert Drum.objects.get(tag=TOM).lost_resonant == [3]


def test_what_was_not_so_leaves_no_trace(callout: dict[str, Any], api: Api, house: House) -> None:
    send(api, callout, ticked(TOM, "rod-missing", "batter", 2), ticked(BASS, "slides"))
    send(
        api, callout, {"kind": "not_so", "drum": TOM, "finding": "rod-missing", "side": "batter", "rod": 2},
        {"kind": "not_so", "drum": BASS, "finding": "slides"},
    )  # fmt: skip
    house.enter()
    assert not DrumFinding.objects.exists()
    assert Drum.objects.get(tag=TOM).lost_batter == []


def test_mended_for_good_is_put_right_and_a_stop_gap_stays_owed(
    callout: dict[str, Any], api: Api, house: House
) -> None:
    send(api, callout, {"kind": "clock", "minutes": 12}, ticked(TOM, "leg-missing"), ticked(BASS, "rattle"))
    send(api, callout, done(f"{TOM} leg-missing 1"), done(step(callout, f"{BASS} rattle")))
    house.enter()
    open_rows = DrumFinding.objects.filter(put_right_at__isnull=True)
    assert [row.finding for row in open_rows] == ["leg-missing"]
    send(api, callout, {"kind": "open_again", "step": step(callout, f"{BASS} rattle")})
    house.enter()
    assert {row.finding for row in open_rows.all()} == {"leg-missing", "rattle"}
    line = LogEntry.objects.get(drum__tag=TOM, kind="callout")
    assert "a drumstick stands in for a leg" in line.text
    assert "leg missing" in line.outcome


def test_a_rod_lent_is_on_both_drums_until_it_is_back(
    callout: dict[str, Any], drums: dict[str, Drum], api: Api, house: House
) -> None:
    lend = step(callout, f"{TOM} rod resonant 3 from {SNARE}")
    send(api, callout, ticked(TOM, "rod-missing", "resonant", 3), done(lend))
    send(api, callout, done(lend), device="another")  # both pressed it
    house.enter()
    loan = Loan.objects.get()
    assert (loan.from_drum, loan.to_drum, loan.to_side, loan.to_rod) == (drums[SNARE], drums[TOM], "resonant", 3)
    snare, tom = Drum.objects.get(tag=SNARE), Drum.objects.get(tag=TOM)
    assert snare.lost_batter == [loan.from_rod]
    assert tom.lost_resonant == []
    gap = DrumFinding.objects.get(drum=snare, put_right_at__isnull=True)
    assert (gap.finding, gap.rod) == ("rod-missing", loan.from_rod)
    assert "Fulmar" in gap.note
    owed = next(each for each in api("GET", "/today")[1]["items"] if each["kind"] == "lent")
    assert f"tension rod {loan.from_rod} lent from Wheatear to Fulmar" in owed["reason"]
    assert api("POST", f"/shelf/loans/{loan.pk}/end", {"ended": "back"})[0] == 204
    house.enter()
    assert Drum.objects.get(tag=SNARE).lost_batter == []
    assert Drum.objects.get(tag=TOM).lost_resonant == [3]
    assert not DrumFinding.objects.filter(drum=snare, put_right_at__isnull=True).exists()
    send(api, callout, {"kind": "fine", "drum": BASS})  # a late entry changes nothing of it
    house.enter()
    assert Drum.objects.get(tag=SNARE).lost_batter == []
    assert Loan.objects.count() == 1


def test_a_lent_rod_taken_back_at_once_was_never_lent(callout: dict[str, Any], api: Api, house: House) -> None:
    lend = step(callout, f"{TOM} rod resonant 3 from {SNARE}")
    send(api, callout, ticked(TOM, "rod-missing", "resonant", 3), done(lend))
    send(api, callout, {"kind": "open_again", "step": lend})
    house.enter()
    assert not Loan.objects.exists()
    assert Drum.objects.get(tag=SNARE).lost_batter == []
    assert Drum.objects.get(tag=TOM).lost_resonant == [3]


def test_a_giver_that_is_short_itself_is_not_asked(callout: dict[str, Any]) -> None:
    lend = next(each for each in callout["book"]["steps"] if each["id"] == f"{TOM} rod resonant 3 from {SNARE}")
    assert f"short:{SNARE}" in lend["unless"]
    assert not any(
        each["gives"] and each["gives"]["giver"] == each["gives"]["taker"] for each in callout["book"]["steps"]
    )


def test_what_cannot_be_is_refused_and_holds_up_nothing(callout: dict[str, Any], api: Api) -> None:
    said = send(
        api, callout, ticked("WR-999", "rattle"), ticked(TOM, "no-such-thing"), ticked(TOM, "rod-missing", "batter", 11),
        done("nothing"), ticked(TOM, "rattle"),
    )  # fmt: skip
    assert [each["standing"] for each in said] == ["refused", "refused", "refused", "refused", "applied"]
    assert "no rod 11" in said[2]["message"]
    nowhere = send(api, callout, ticked(TOM, "mount-loose"), ticked(TOM, "rod-missing", "batter"), ticked(TOM, "split"))
    assert [each["code"] for each in nowhere] == ["no_such_place", "which_rod", "no_such_place"]
    newer = send(api, callout, {"kind": "from_tomorrow", "what": 1})
    assert newer[0]["standing"] == "refused"
    assert "newer" in newer[0]["message"]


def test_the_note_says_what_is_broken_done_lent_and_worth_buying(
    callout: dict[str, Any], api: Api, house: House
) -> None:
    lend = step(callout, f"{TOM} rod resonant 3 from {SNARE}")
    send(
        api, callout, {"kind": "clock", "minutes": 12}, ticked(TOM, "rod-missing", "resonant", 3), done(lend), ticked(TOM, "leg-missing"),
        {"kind": "fine", "drum": BASS}, ticked("", "felt-missing"), {"kind": "worded", "drum": TOM, "words": "It stands on carpet."},
    )  # fmt: skip
    note = letter(CallOut.objects.get(pk=callout["id"]), house.technician)
    tom = next(each for each in note.drums if each.tag == TOM)
    assert tom.broken == ("rod missing at 3 on the bottom head, held for tonight", "leg missing")
    assert tom.buy == ("1 tension rod 7/32-24", "1 leg")
    assert "lent by Wheatear" in tom.lent[0]
    assert note.fine == ("Dredger",)
    for words in ("price: ______", "It stands on carpet.", "felt"):
        assert words in note.text


def test_the_phone_has_every_word_of_the_note_from_the_start(callout: dict[str, Any], api: Api) -> None:
    ticks = {(tick["drum"], tick["finding"], tick["side"]) for tick in callout["form"]["ticks"]}
    asked = {
        (drum["tag"], tick["finding"], tick["side"]) for drum in callout["book"]["drums"] for tick in drum["ticks"]
    }
    assert asked <= ticks
    assert callout["form"]["opening"].startswith("we played harbour house kit at Pier Rooms on {day}")
    assert api("GET", f"/callouts/{callout['id']}?since=0")[1]["form"] is None  # asked again it is not sent again


def test_reported_with_a_date_and_on_today_until_it_is_answered(
    callout: dict[str, Any], api: Api, house: House
) -> None:
    def owed() -> list[dict[str, Any]]:
        return [each for each in api("GET", "/today")[1]["items"] if each["kind"] == "reported"]

    send(api, callout, {"kind": "clock", "minutes": 12}, ticked(TOM, "leg-slips"), ticked(TOM, "leg-missing"))
    assert not owed()
    send(api, callout, {"kind": "over"})
    assert owed()[0]["reason"].startswith("2 things")
    assert owed()[0]["callout_id"] == callout["id"]
    send(api, callout, {"kind": "reported"})
    house.enter()
    assert DrumFinding.objects.get(finding="leg-missing").note.startswith("reported to the owner on ")
    assert "reported" in owed()[0]["reason"]
    send(api, callout, {"kind": "answered", "words": "will buy a leg"})
    assert not owed()
    line = api("GET", "/callouts")[1][0]
    assert (line["state"], line["owing"]) == ("answered", 2)


def test_one_that_is_coming_is_on_today(callout: dict[str, Any], api: Api, house: House) -> None:
    house.enter()
    CallOut.objects.update(show_at=timezone.now() + timedelta(days=2))
    coming = next(each for each in api("GET", "/today")[1]["items"] if each["kind"] == "coming-callout")
    assert coming["name"] == "harbour house kit"
    assert "Pier Rooms" in coming["reason"]
    assert "12 minutes" in coming["reason"]
    assert not coming["owed_now"]


def test_what_is_left_becomes_work_once(callout: dict[str, Any], api: Api, house: House) -> None:
    send(api, callout, ticked(TOM, "leg-missing"), ticked(TOM, "split", "batter"), {"kind": "over"})
    asked = {"due_on": str(timezone.localdate() + timedelta(days=3))}
    for _ in range(2):
        status, said = api("POST", f"/callouts/{callout['id']}/work", asked)
        assert status == 200, said
    house.enter()
    assert {row.part for row in PlannedJob.objects.filter(drum__tag=TOM)} == {"batter", "hardware"}
    assert PlannedJob.objects.count() == 2
    assert api("POST", f"/callouts/{callout['id']}/work", {"due_on": "2020-01-01"})[0] == 422


def test_the_bag_counts_what_is_on_record_and_what_was_wanted_before(callout: dict[str, Any], api: Api) -> None:
    assert [each["part"] for each in callout["bag"]] == ["own snare", "own pedal"]
    send(api, callout, ticked(TOM, "rod-missing", "resonant", 3), ticked("", "felt-missing"), {"kind": "over"})
    again = api("POST", "/callouts", {"id": str(uuid.uuid4()), "kit": callout["kit"], "minutes": 8})[1]
    bag = {each["part"]: each for each in again["bag"]}
    assert bag["tension rod 7/32-24"]["why"] == "on record: Fulmar"
    assert bag["felt"]["why"] == "wanted on 1 of the last 1 call-outs"
    assert again["book"]["known"] == [f"{TOM}|rod-missing|resonant|3"]


def test_with_since_only_news_are_told(callout: dict[str, Any], api: Api) -> None:
    send(api, callout, ticked(TOM, "rattle"), ticked(BASS, "slides"))
    news = api("GET", f"/callouts/{callout['id']}?since=1")[1]
    assert [each["body"]["finding"] for each in news["events"]] == ["slides"]
    assert news["book"] is None
    assert news["last_seq"] == 2


def test_the_workshops_weights_are_in_the_book(callout: dict[str, Any], house: House, api: Api) -> None:
    house.enter()
    house.workshop.callout_stands = 2
    house.workshop.save()
    fresh = api("POST", "/callouts", {"id": str(uuid.uuid4()), "kit": callout["kit"], "minutes": 12})[1]
    worth = {each["id"]: each["worth"] for each in fresh["book"]["steps"]}
    before = {each["id"]: each["worth"] for each in callout["book"]["steps"]}
    leg = f"{TOM} leg-missing 0"
    assert before[leg] == 8
    assert worth[leg] == 2


def test_it_goes_into_an_archive_and_comes_back_with_its_loans(callout: dict[str, Any], api: Api, house: House) -> None:
    lend = step(callout, f"{TOM} rod resonant 3 from {SNARE}")
    send(api, callout, ticked(TOM, "rod-missing", "resonant", 3), done(lend))
    house.enter()
    text = written(house.workshop)
    other = empty_workshop("dunes")
    taken(text, other)
    assert CallOutEvent.objects.count() == 2
    assert CallOut.objects.get().book["drums"]
    assert Loan.objects.get().to_rod == 3
    assert {"from_rod", "to_rod"} <= LATER["loans"]


def test_the_note_is_on_paper(callout: dict[str, Any], api: Api) -> None:
    send(api, callout, ticked(TOM, "leg-missing"))
    answer = api.client.get(f"/api/paper/callouts/{callout['id']}?size=letter")
    assert answer.status_code == 200
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages).split())
    for words in ("Fulmar", "leg missing", "Price"):
        assert words in text
