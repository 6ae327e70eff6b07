"""Walks: what was seen becomes findings, a verdict, planned work and promised heads. Rules are common practice, no source."""

from __future__ import annotations

import uuid
from datetime import timedelta
from typing import Any

import pytest
from django.utils import timezone
from house import INCH, Api, Hands, House, make_drum, start_body

from apps.bench.models import DrumFinding
from apps.heads.models import Fitting, Promise, StockItem
from apps.history.models import LogEntry
from apps.inspecting.models import Overrule, Verdict, WalkEvent
from apps.planned.models import PlannedJob
from apps.register.models import Drum


class Walker:
    """One device on one walk."""

    def __init__(self, api: Api, walk: str, device: str = "phone") -> None:
        self.api, self.walk, self.device = api, walk, device

    def event(self, **body: Any) -> dict[str, Any]:
        made = timezone.now().isoformat()
        return {"id": str(uuid.uuid4()), "device": self.device, "seen": 0, "made_at": made, "v": 1, "body": body}

    def send(self, *events: dict[str, Any]) -> list[dict[str, Any]]:
        status, answer = self.api("POST", f"/inspect/walks/{self.walk}/events", {"events": list(events)})
        assert status == 200, answer
        return list(answer["receipts"])

    def do(self, drum: str, *bodies: dict[str, Any]) -> list[str]:
        events = [self.event(drum=drum, **body) for body in bodies]
        receipts = self.send(*events)
        assert [each["standing"] for each in receipts] == ["applied"] * len(events), receipts
        return [each["id"] for each in events]

    def look(self, since: int = -1) -> dict[str, Any]:
        status, answer = self.api("GET", f"/inspect/walks/{self.walk}?since={since}")
        assert status == 200, answer
        return dict(answer)

    def verdict(self, drum: str) -> dict[str, Any]:
        return next(each for each in self.look()["verdicts"] if each["tag"] == drum)


def walk_of(api: Api, *tags: str, **more: Any) -> Walker:
    body = {"id": str(uuid.uuid4()), "tags": list(tags), **more}
    status, walk = api("POST", "/inspect/walks", body)
    assert status == 201, walk
    return Walker(api, walk["id"])


def seen(finding: str, degree: int = 2, **more: Any) -> dict[str, Any]:
    return {"kind": "seen", "finding": finding, "degree": degree, **more}


LOOKED = {"kind": "looked"}


@pytest.fixture
def walker(api: Api, house: House) -> Walker:
    Fitting.objects.update(fitted_at=timezone.now() - timedelta(days=30))
    make_drum(house.workshop, "WR-002", name="Finch", kind="snare", diameter_m=14 * INCH, snare_bed=True, rods_batter=8, rods_resonant=8, bed_rods=[2, 3, 6, 7])  # fmt: skip
    return walk_of(api, "WR-001", "WR-002")


def test_a_look_becomes_findings_a_verdict_and_a_line_of_history(walker: Walker, house: House) -> None:
    spot = {"x": 0.1, "y": -0.2}
    walker.do("WR-001", seen("coat-worn", 2, side="batter", spot=spot, note="by the middle"), LOOKED)
    verdict = walker.verdict("WR-001")
    assert (verdict["stands"]["batter"], verdict["stands"]["drum"]) == ("replace-next", "replace-next")
    assert verdict["headline"] == "A new batter at the next bench day."
    assert verdict["because"][0]["rule"] == "coat-worn"
    row = DrumFinding.objects.get(drum=house.drum)
    assert (row.finding, row.side, row.degree, row.spot, row.owed) == ("coat-worn", "batter", 2, spot, "replace")
    assert LogEntry.objects.get(drum=house.drum, kind="look").text == "Looked at: A new batter at the next bench day."
    status, sheet = walker.api("GET", "/register/drums/WR-001/sheet")
    assert (status, [each["finding"] for each in sheet["findings"]]) == (200, ["coat-worn"])


def test_nothing_found_is_one_entry_and_owes_nothing(walker: Walker, house: House) -> None:
    walker.do("WR-001", LOOKED)
    assert walker.verdict("WR-001")["headline"] == "Nothing to do."
    assert Verdict.objects.get(drum=house.drum).answered_at is not None


def test_age_on_record_counts_though_nothing_was_seen(walker: Walker) -> None:
    """This workshop keeps batters a year (common practice, N5)."""
    Fitting.objects.update(fitted_at=timezone.now() - timedelta(days=400))
    walker.do("WR-001", LOOKED)
    assert walker.verdict("WR-001")["stands"]["batter"] == "replace-next"  # as Today has it: change the head


def test_what_is_taken_back_later_stands_nowhere(walker: Walker, house: House) -> None:
    first, _ = walker.do("WR-001", seen("split", side="resonant"), LOOKED)
    assert DrumFinding.objects.filter(drum=house.drum).count() == 1
    walker.do("WR-001", {"kind": "taken_back", "event": first})
    assert not DrumFinding.objects.filter(drum=house.drum).exists()
    assert walker.verdict("WR-001")["stands"]["resonant"] == "nothing"
    walker.do("WR-001", {"kind": "taken_back", "event": walker.look()["events"][1]["id"]})
    assert walker.look()["verdicts"] == []
    assert not LogEntry.objects.filter(drum=house.drum, kind="look").exists()


def test_two_people_see_the_same_dent_and_it_counts_once_as_the_worse(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("dents", 1, side="batter"))
    Walker(walker.api, walker.walk, "other phone").do("WR-001", seen("dents", 3, side="batter"), LOOKED)
    row = DrumFinding.objects.get(drum=house.drum)
    assert (row.finding, row.degree) == ("dents", 3)


def test_as_last_time_and_no_longer_so(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("dents", 1, side="batter"), seen("rattle", 2), LOOKED)
    again = walk_of(walker.api, "WR-001")
    known = {each["finding"]: each["row"] for each in again.look()["drums"][0]["known"]}
    assert set(known) == {"dents", "rattle"}
    again.do("WR-001", {"kind": "again", "rows": [known["dents"]]}, {"kind": "gone", "rows": [known["rattle"]]}, LOOKED)
    assert again.verdict("WR-001")["stands"]["hardware"] == "nothing"
    rows = {row.finding: row for row in DrumFinding.objects.filter(drum=house.drum)}
    assert rows["rattle"].put_right_at is not None
    assert rows["dents"].put_right_at is None
    assert rows["dents"].seen_at > rows["dents"].found_at


def test_worse_than_last_time_is_the_same_finding_grown(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("dents", 1, side="batter"), LOOKED)
    walk_of(walker.api, "WR-001").do("WR-001", seen("dents", 3, side="batter"), LOOKED)
    assert [row.degree for row in DrumFinding.objects.filter(drum=house.drum)] == [3]


def test_a_missing_rod_is_lost_on_record_until_it_is_there_again(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("rod-missing", side="resonant", rod=4), LOOKED)
    assert Drum.objects.get(pk=house.drum.pk).lost_resonant == [4]
    again = walk_of(walker.api, "WR-001")
    (known,) = again.look()["drums"][0]["known"]
    again.do("WR-001", {"kind": "gone", "rows": [known["row"]]}, LOOKED)
    assert Drum.objects.get(pk=house.drum.pk).lost_resonant == []


def test_the_same_entry_sent_twice_is_stored_once(walker: Walker) -> None:
    event = walker.event(drum="WR-001", **seen("dents", side="batter"))
    first, second = walker.send(event), walker.send(event)
    assert first == second
    assert WalkEvent.objects.count() == 1


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ({"drum": "WR-001", "kind": "seen", "finding": "strand-bent", "degree": 2}, "bad_finding"),
        ({"drum": "WR-001", "kind": "seen", "finding": "dents", "degree": 2}, "bad_finding"),
        ({"drum": "WR-001", "kind": "seen", "finding": "moths", "degree": 2}, "bad_finding"),
        ({"drum": "WR-001", "kind": "seen", "finding": "rod-bent", "degree": 2, "side": "batter", "rod": 9}, "bad_layout"),
        ({"drum": "WR-001", "kind": "seen", "finding": "dents", "degree": 2, "side": "batter", "spot": {"x": 2, "y": 0}}, "bad_finding"),
        ({"drum": "WR-404", "kind": "looked"}, "not_in_walk"),
        ({"drum": "WR-001", "kind": "smelled"}, "unknown_entry"),
    ],
)  # fmt: skip
def test_one_bad_entry_is_refused_with_its_reason_and_holds_up_no_other(
    walker: Walker, body: dict[str, Any], code: str
) -> None:
    bad, good = walker.send(walker.event(**body), walker.event(drum="WR-001", **seen("rattle")))
    assert (bad["standing"], bad["code"]) == ("refused", code)
    assert bad["message"]
    assert good["standing"] == "applied"


def test_a_person_decides_otherwise_and_the_rule_is_counted(walker: Walker) -> None:
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)
    walker.do(
        "WR-001", {"kind": "overruled", "part": "batter", "verdict": "clear", "reason": "school drum, fine for a term"}
    )
    verdict = walker.verdict("WR-001")
    assert (verdict["said"]["batter"], verdict["stands"]["batter"]) == ("replace-next", "clear")
    assert verdict["overruled"]["batter"]["reason"] == "school drum, fine for a term"
    assert [work["work"] for work in verdict["works"]] == ["settling-check"]
    status, rules = walker.api("GET", "/inspect/rules")
    assert (status, rules[0]["id"], rules[0]["overruled"]) == (200, "coat-worn", 1)
    assert rules[0]["reasons"] == ["school drum, fine for a term"]
    assert Overrule.objects.get().rules == ["coat-worn"]


def plan(walker: Walker, tag: str, stock: int | None, work: str = "new-batter-head", **more: Any) -> dict[str, Any]:
    due = (timezone.localdate() + timedelta(days=7)).isoformat()
    heads = [{"side": "batter", "stock_item": stock}]
    return {"id": str(uuid.uuid4()), "tag": tag, "work": work, "part": "batter", "due_on": due, "heads": heads, **more}


def test_from_verdict_to_work_with_its_head_promised(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)
    status, found = walker.api("GET", f"/inspect/walks/{walker.walk}/sum")
    assert (status, found["words"]) == (200, "One looked at: one head.")
    (ready,) = found["to_plan"]
    assert [(each["head"], each["free"]) for each in ready["heads"]["batter"]] == [("single 10 coated", 2)]
    body = {"works": [plan(walker, "WR-001", house.stock.pk)]}
    for _ in range(2):  # asked twice, planned once
        status, answer = walker.api("POST", f"/inspect/walks/{walker.walk}/plan", body)
        assert (status, answer["refused"]) == (200, [])
    assert Promise.objects.get().stock_item_id == house.stock.pk
    assert Verdict.objects.get(drum=house.drum).answered_at is not None
    assert walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]["to_plan"] == []
    status, (line,) = walker.api("GET", "/planned?tag=WR-001")
    assert (line["title"], line["heads"]["batter"]["head"]) == ("New batter head", "single 10 coated")


def test_the_job_that_was_planned_takes_over_its_head_and_closing_it_uses_it_up(walker: Walker, house: House) -> None:
    StockItem.objects.update(count=1)
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)
    walker.api("POST", f"/inspect/walks/{walker.walk}/plan", {"works": [plan(walker, "WR-001", house.stock.pk)]})
    asked = start_body(house.drum, stock_item=house.stock.pk)
    assert walker.api("POST", "/bench/jobs", asked)[0] == 201
    assert str(Promise.objects.get().for_what) == asked["id"]
    assert PlannedJob.objects.get().state == "begun"
    hands = Hands(walker.api, asked["id"])
    for step in ("lay-out", "mark", "slacken", "lift-off", "clean", "set-head", "fingers", "seat", "tension"):
        hands.do(kind="step_done", step=step)
    hands.read_round(0, *["209.8", "210.1", "210.2", "209.9", "210.0", "210.1"])
    assert hands.do(kind="close", reason="worn", check=True)["standing"] == "applied"
    assert not Promise.objects.exists()
    assert StockItem.objects.get().count == 0
    assert DrumFinding.objects.get(finding="coat-worn").put_right_at is not None  # it went with the old head


def test_a_plan_shows_what_it_made_and_can_be_taken_back(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)
    walker.api("POST", f"/inspect/walks/{walker.walk}/plan", {"works": [plan(walker, "WR-001", house.stock.pk)]})
    made = walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]["planned"]
    assert [(each["tag"], each["title"], each["heads"]["batter"]["head"]) for each in made] == [
        ("WR-001", "New batter head", "single 10 coated")
    ]
    for _ in range(2):
        body = {"planned": [made[0]["id"]]}
        assert walker.api("POST", f"/inspect/walks/{walker.walk}/take-back", body)[0] == 204
    found = walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]
    assert (found["planned"], [each["tag"] for each in found["to_plan"]]) == ([], ["WR-001"])
    assert not Promise.objects.exists()
    again = {"works": [plan(walker, "WR-001", house.stock.pk)]}
    assert walker.api("POST", f"/inspect/walks/{walker.walk}/plan", again)[1]["refused"] == []
    assert PlannedJob.objects.filter(state="open").count() == 1


def test_leaving_a_drum_as_it_is_can_be_taken_back(walker: Walker) -> None:
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)
    walker.api("POST", f"/inspect/walks/{walker.walk}/plan", {"works": [], "leave": ["WR-001"]})
    assert walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]["left_so"] == ["WR-001"]
    walker.api("POST", f"/inspect/walks/{walker.walk}/take-back", {"left_so": ["WR-001"]})
    found = walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]
    assert (found["left_so"], [each["tag"] for each in found["to_plan"]]) == ([], ["WR-001"])


def test_a_head_promised_to_one_drum_is_not_anothers(walker: Walker, house: House) -> None:
    StockItem.objects.update(count=1)
    make_drum(house.workshop, "WR-003", name="Swift")
    more = walk_of(walker.api, "WR-001", "WR-003")
    for tag in ("WR-001", "WR-003"):
        more.do(tag, seen("coat-worn", 2, side="batter"), LOOKED)
    works = [plan(more, tag, house.stock.pk) for tag in ("WR-001", "WR-003")]
    status, answer = walker.api("POST", f"/inspect/walks/{more.walk}/plan", {"works": works})
    assert (status, answer["planned"]) == (200, [works[0]["id"]])
    assert answer["refused"][0]["message"].startswith("The last single 10 coated of that size is promised to Wren")
    assert (
        walker.api("POST", "/bench/jobs", start_body(Drum.objects.get(tag="WR-003"), stock_item=house.stock.pk))[0]
        == 409
    )
    (line,) = walker.api("GET", "/planned")[1]
    assert walker.api("POST", f"/planned/{line['id']}/drop", {"because": "no longer"})[0] == 204
    assert not Promise.objects.exists()


def test_what_the_shelf_does_not_have_is_on_the_buying_list(walker: Walker, house: House) -> None:
    StockItem.objects.update(count=0)
    walker.do("WR-001", seen("split", side="batter"), LOOKED)
    walker.do("WR-002", seen("strand-broken", 2), LOOKED)
    buy = walker.api("GET", f"/inspect/walks/{walker.walk}/sum")[1]["buy"]
    assert [(each["what"], each["count"], each["drums"]) for each in buy] == [
        ("single 10 coated, 12 in", 1, ["WR-001"]),
        ("snare wires, 14 in", 1, ["WR-002"]),
    ]


def test_later_news_only(walker: Walker) -> None:
    walker.do("WR-001", seen("dents", side="batter"), LOOKED)
    last = walker.look()["last_seq"]
    walker.do("WR-002", LOOKED)
    news = walker.look(last)
    assert [each["body"]["drum"] for each in news["events"]] == ["WR-002"]
    assert [each["tag"] for each in news["verdicts"]] == ["WR-002"]
    assert news["drums"] == []


def test_a_drum_is_added_by_its_tag_as_scanned(walker: Walker, house: House) -> None:
    make_drum(house.workshop, "WR-007", name="Tern")
    assert walker.api("POST", f"/inspect/walks/{walker.walk}/drums", {"tag": "wr-007 "}) == (200, {"tag": "WR-007"})
    status, answer = walker.api("POST", f"/inspect/walks/{walker.walk}/drums", {"tag": "XX-1"})
    assert (status, answer["code"]) == (404, "unknown_tag")
    assert [each["tag"] for each in walker.look()["drums"]] == ["WR-001", "WR-002", "WR-007"]


def test_a_walk_is_paused_found_again_and_ended(walker: Walker) -> None:
    status, (line,) = walker.api("GET", "/inspect/walks")
    assert (status, line["name"], line["drums"], line["state"]) == (200, "2 drums", 2, "open")
    assert walker.api("POST", f"/inspect/walks/{walker.walk}/done")[0] == 204
    assert walker.api("GET", "/inspect/walks")[1][0]["state"] == "done"
    assert walker.api("DELETE", f"/inspect/walks/{walker.walk}/done")[0] == 204


def test_a_viewer_looks_on_and_a_stranger_finds_nothing(walker: Walker, house: House, other: House) -> None:
    viewer, stranger = Api(house.viewer), Api(other.technician)
    assert viewer("GET", f"/inspect/walks/{walker.walk}")[0] == 200
    event = walker.event(drum="WR-001", **LOOKED)
    assert viewer("POST", f"/inspect/walks/{walker.walk}/events", {"events": [event]})[0] == 403
    assert stranger("GET", f"/inspect/walks/{walker.walk}")[0] == 404
    assert stranger("POST", f"/inspect/walks/{walker.walk}/events", {"events": [event]})[0] == 404
    assert stranger("GET", "/inspect/walks")[1] == []


def test_today_says_what_is_to_decide_and_an_old_head_whose_change_is_planned_once(
    walker: Walker, house: House
) -> None:
    Fitting.objects.update(fitted_at=timezone.now() - timedelta(days=400))
    walker.do("WR-001", seen("coat-worn", 2, side="batter"), LOOKED)

    def kinds() -> dict[str, dict[str, Any]]:
        return {each["kind"]: each for each in walker.api("GET", "/today")[1]["items"]}

    before = kinds()
    assert set(before) == {"to-decide", "aged-head"}
    assert (before["to-decide"]["reason"], before["to-decide"]["walk_id"]) == (
        "A new batter at the next bench day.",
        walker.walk,
    )
    walker.api("POST", f"/inspect/walks/{walker.walk}/plan", {"works": [plan(walker, "WR-001", house.stock.pk)]})
    assert set(kinds()) == {"coming-work"}
    PlannedJob.objects.update(due_on=timezone.localdate() - timedelta(days=2))
    late = kinds()["planned-work"]
    assert (late["count"], late["unit"], late["owed_now"], late["work"]) == (2, "days late", True, "new-batter-head")
    assert late["reason"].startswith("New batter head, single 10 coated promised was due")
    assert walker.api("GET", "/today/planned-work?offset=0")[1]["items"][0]["tag"] == "WR-001"
    assert walker.api("GET", "/today/to-decide")[1]["items"] == []


def on_record(house: House) -> dict[str, tuple[int, bool]]:
    """Findings of the house's drum: how bad, and whether they stand."""
    return {row.finding: (row.degree, row.put_right_at is None) for row in DrumFinding.objects.filter(drum=house.drum)}


def test_what_was_said_of_the_record_and_taken_back_leaves_it_as_it_was(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("dents", 1, side="batter"), seen("rod-missing", side="resonant", rod=4), LOOKED)
    again = walk_of(walker.api, "WR-001")
    rows = {each["finding"]: each["row"] for each in again.look()["drums"][0]["known"]}
    worse, gone, _ = again.do(
        "WR-001", seen("dents", 3, side="batter"), {"kind": "gone", "rows": [rows["rod-missing"]]}, LOOKED
    )
    assert on_record(house) == {"dents": (3, True), "rod-missing": (2, False)}
    assert Drum.objects.get(pk=house.drum.pk).lost_resonant == []
    again.do("WR-001", {"kind": "taken_back", "event": worse}, {"kind": "taken_back", "event": gone})
    assert on_record(house) == {"dents": (1, True), "rod-missing": (2, True)}
    assert Drum.objects.get(pk=house.drum.pk).lost_resonant == [4]


def test_a_look_that_is_not_done_after_all_leaves_no_lost_rod(walker: Walker, house: House) -> None:
    _, done = walker.do("WR-001", seen("rod-missing", side="batter", rod=2), LOOKED)
    assert Drum.objects.get(pk=house.drum.pk).lost_batter == [2]
    walker.do("WR-001", {"kind": "taken_back", "event": done})
    assert Drum.objects.get(pk=house.drum.pk).lost_batter == []
    assert on_record(house) == {}


def test_what_somebody_else_put_right_meanwhile_stays_so(walker: Walker, house: House) -> None:
    walker.do("WR-001", seen("rattle", 2), LOOKED)
    again = walk_of(walker.api, "WR-001")
    (known,) = again.look()["drums"][0]["known"]
    still, _ = again.do("WR-001", {"kind": "again", "rows": [known["row"]]}, LOOKED)
    assert walker.api("POST", f"/bench/findings/{known['row']}/put-right")[0] == 204
    again.do("WR-001", {"kind": "taken_back", "event": still})
    assert on_record(house) == {"rattle": (2, False)}


def test_turning_it_over_for_tonight_is_work_that_can_be_started(walker: Walker, house: House) -> None:
    """A cratered resonant head under a good batter, N6 (common practice, no source)."""
    walker.do("WR-001", seen("dents", 3, side="resonant"), {"kind": "goes_out", "out": True}, LOOKED)
    (verdict,) = walker.look()["verdicts"]
    assert verdict["turn_over"]
    (tonight,) = [work for work in verdict["works"] if work["tonight"]]
    assert tonight["new_heads"] == []
    status, bench = walker.api("POST", "/bench/jobs", start_body(house.drum, tonight["work"], tonight["part"]))
    assert (status, bench["title"]) == (201, "Turn it over for tonight")
