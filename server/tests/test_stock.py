"""The shelf: counts by movements, what is promised and short, places counted, what goes back, what is lent. Used heads apart: C10; loans: N13 (common practice, no source)."""

from __future__ import annotations

import threading
import uuid
from datetime import date, timedelta
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection, transaction
from django.db.models import Sum
from django.utils import timezone
from house import Api, Hands, House, make_drum, make_house, start_body

from apps.heads.models import Fitting, HeadLine, Promise, StockItem, WireLine
from apps.planned.models import PlannedJob
from apps.stock.models import Heap, Loan, Movement
from apps.stock.moving import Act, move
from apps.workshops.scope import enter_workshop
from drumwork.errors import DrumworkError
from drumwork.shelf import Why


def key() -> str:
    return str(uuid.uuid4())


def moved(api: Api, line: int, why: str, number: int, **more: Any) -> tuple[int, Any]:
    return api("POST", f"/shelf/lines/{line}/moves", {"id": key(), "why": why, "number": number, **more})


def begin(api: Api, **facts: Any) -> Any:
    status, line = api("POST", "/shelf/lines", {"id": key(), "sort": "rod", "name": "7/32-24", "size": "52", **facts})
    assert status == 201, line
    return line


def row_of(api: Api, line: int) -> Any:
    return next(row for row in api("GET", "/shelf")[1]["lines"] if row["id"] == line)


def plan(
    house: House, drum: Any = None, work: str = "new-batter-head", part: str = "batter", days: int = 1
) -> PlannedJob:
    return PlannedJob.objects.create(
        id=uuid.uuid4(), workshop=house.workshop, drum=drum or house.drum, work=work, part=part,
        due_on=timezone.localdate() + timedelta(days=days), made_at=timezone.now(),
    )  # fmt: skip


class TestCounts:
    def test_every_movement_is_kept_with_what_was_there_after_it(self, api: Api, house: House) -> None:
        line = house.stock.pk
        moved(api, line, "bought", 4)
        moved(api, line, "written-off", 1, words="creased in the post")
        status, seen = moved(api, line, "counted", 4)
        assert status == 200
        assert [(each["why"], each["delta"], each["after"]) for each in seen["movements"]] == [
            ("counted", -1, 4),
            ("written off", -1, 5),
            ("bought", 4, 6),
        ]
        assert seen["movements"][1]["by"] == "technician of wharf"

    def test_below_nought_it_asks_what_happened_and_changes_nothing(self, api: Api, house: House) -> None:
        status, answer = moved(api, house.stock.pk, "written-off", 3)
        assert (status, answer["code"], answer["fields"]) == (422, "below_nought", {"count": "2", "number": "3"})
        assert StockItem.objects.get().count == 2
        status, seen = moved(api, house.stock.pk, "written-off", 3, explained="bought")
        assert [(each["why"], each["delta"]) for each in seen["movements"]] == [("written off", -3), ("bought", 1)]
        assert seen["row"]["there"] == 0

    def test_sent_twice_it_happens_once(self, api: Api, house: House) -> None:
        body = {"id": key(), "why": "bought", "number": 2}
        for _ in range(2):
            assert api("POST", f"/shelf/lines/{house.stock.pk}/moves", body)[0] == 200
        assert StockItem.objects.get().count == 4

    def test_a_batch_and_another_place_are_told_apart_and_add_up(self, api: Api, house: House) -> None:
        line = house.stock.pk
        moved(api, line, "bought", 3, place="loft", batch="x9")
        _, seen = moved(api, line, "moved", 1, place="A1", to="loft")
        assert {(heap["place"], heap["batch"]): heap["count"] for heap in seen["heaps"]} == {
            ("A1", ""): 1,
            ("loft", "x9"): 3,
            ("loft", ""): 1,
        }
        assert seen["row"]["there"] == 5
        _, seen = moved(api, line, "fitted", 3)  # from where nobody said: the usual place, then the largest heap
        assert {(heap["place"], heap["batch"]): heap["count"] for heap in seen["heaps"]} == {
            ("loft", "x9"): 1,
            ("loft", ""): 1,
        }
        assert api("POST", f"/shelf/lines/{line}/moves", {"id": key(), "why": "moved", "number": 9, "to": "loft"})[0] == 422  # fmt: skip

    def test_closing_a_job_and_opening_it_again_are_movements_too(self, api: Api, house: House) -> None:
        _, bench = api(
            "POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk, reason="dents or craters")
        )
        hands = Hands(api, bench["id"])
        assert hands.do(kind="close", reason="dents or craters", check=False)["standing"] == "applied"
        assert api("POST", f"/bench/jobs/{bench['id']}/open-again")[0] == 204
        _, seen = api("GET", f"/shelf/lines/{house.stock.pk}")
        assert [(each["why"], each["delta"], each["drum"]) for each in seen["movements"]] == [
            ("brought back", 1, "Wren WR-001"),
            ("fitted", -1, "Wren WR-001"),
        ]
        assert (seen["row"]["there"], seen["row"]["promised"]) == (2, 1)


@pytest.mark.django_db(transaction=True)
def test_of_twenty_who_take_the_last_five_at_once_exactly_five_get_one() -> None:
    """Under real concurrency, each in its own connection; the sum of the movements is the count."""
    with transaction.atomic():
        house = make_house("wharf")
        with transaction.atomic():
            move(house.stock.pk, Act(uuid.uuid4(), Why.COUNTED, 5), house.technician)
    gate, refused = threading.Barrier(20), list[str]()

    def take() -> None:
        gate.wait()
        try:
            with transaction.atomic():
                enter_workshop(house.workshop.pk)
                move(house.stock.pk, Act(uuid.uuid4(), Why.FITTED, 1), house.technician)
        except DrumworkError as error:
            refused.append(error.code)
        finally:
            connection.close()

    threads = [threading.Thread(target=take) for _ in range(20)]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    with transaction.atomic():
        house.enter()
        assert refused == ["below_nought"] * 15
        assert StockItem.objects.get().count == 0
        # two were there before anything moved
        assert Movement.objects.aggregate(all=Sum("delta"))["all"] == -2


class TestLines:
    def test_a_line_is_begun_with_what_lies_there_and_found_again_by_its_size(self, api: Api) -> None:
        line = begin(api, count=12, minimum=4, place="R2")
        assert (line["called"], line["row"]["there"], line["row"]["minimum"]) == ("rod 7/32-24, 52 mm", 12, 4)
        status, answer = api(
            "POST", "/shelf/lines", {"id": key(), "sort": "rod", "name": "7/32-24", "size": "52 mm", "count": 3}
        )
        assert (status, answer["code"]) == (409, "line_exists")
        assert begin(api, size="42")["row"]["there"] == 0

    def test_a_head_nobody_described_says_what_is_missing(self, api: Api) -> None:
        body: dict[str, Any] = {"id": key(), "sort": "head", "name": "dotted", "size": "14", "count": 2}
        assert api("POST", "/shelf/lines", body)[1]["code"] == "unknown_line"
        assert api("POST", "/shelf/lines", {**body, "size": ""})[1]["code"] == "bad_size"
        body["head"] = {"plies": 1, "film_mil": 10, "finish": "coated", "damping": "dot", "side": "batter"}
        assert api("POST", "/shelf/lines", body)[0] == 201
        assert HeadLine.objects.get(name="dotted").damping == "dot"

    def test_used_heads_lie_apart_and_nobody_is_offered_one_by_itself(self, api: Api, house: House) -> None:
        body = {"id": key(), "sort": "head", "name": "single 10 coated", "size": "12", "used": True, "count": 4}
        assert api("POST", "/shelf/lines", body)[1]["called"] == "used single 10 coated, 12 in"
        offered = api("GET", f"/heads/fitting/{house.drum.tag}/batter")[1]
        assert [(each["count"], each["used"]) for each in offered] == [(2, False), (4, True)]
        chosen = api("GET", f"/heads/choose/{house.drum.tag}/batter")[1]
        lines = [line["free"] for each in chosen["answers"] for line in each["lines"]]
        assert 4 not in lines + [line["free"] for line in chosen["others"]]

    def test_what_arrived_can_be_taken_back_once_and_only_while_it_is_the_last(self, api: Api, house: House) -> None:
        line, there = house.stock.pk, 2
        moved(api, line, "bought", 3)
        found = api("GET", f"/shelf/lines/{line}")[1]
        last, before = found["movements"][0], found["movements"][1:]
        assert last["act"] is not None
        assert all(each["act"] is None for each in before)
        for _ in range(2):
            status, found = api("POST", f"/shelf/lines/{line}/moves/{last['act']}/take-back")
            assert (status, found["row"]["there"]) == (200, there)
        assert (found["movements"][0]["delta"], found["movements"][0]["words"]) == (-3, "bought: taken back")
        moved(api, line, "bought", 1)
        first = api("GET", f"/shelf/lines/{line}")[1]["movements"][0]["act"]
        moved(api, line, "written-off", 1)
        assert api("POST", f"/shelf/lines/{line}/moves/{first}/take-back")[1]["code"] == "since_then"

    def test_what_was_put_elsewhere_lies_where_it_lay(self, api: Api, house: House) -> None:
        line = house.stock.pk
        moved(api, line, "moved", 1, to="B2")
        last = api("GET", f"/shelf/lines/{line}")[1]["movements"][0]["act"]
        found = api("POST", f"/shelf/lines/{line}/moves/{last}/take-back")[1]
        assert [(each["place"], each["count"]) for each in found["heaps"]] == [("A1", 2)]

    def test_a_viewer_looks_on(self, house: House) -> None:
        viewer = Api(house.viewer)
        assert viewer("GET", "/shelf")[0] == 200
        assert moved(viewer, house.stock.pk, "bought", 1)[0] == 403

    def test_another_workshops_line_is_not_there(self, house: House) -> None:
        other = Api(make_house("bell").technician)
        assert other("GET", f"/shelf/lines/{house.stock.pk}")[0] == 404
        assert moved(other, house.stock.pk, "bought", 1)[0] == 404


class TestJobs:
    @pytest.fixture(autouse=True)
    def coated(self, house: House) -> None:
        """What is on is the line that lies on the shelf."""
        Fitting.objects.update(head="single 10 coated")

    def test_it_says_which_jobs_can_start_and_what_to_buy_for_the_rest(self, api: Api, house: House) -> None:
        StockItem.objects.update(count=1, minimum=2)
        other = make_drum(house.workshop, "WR-002", name="Stint")
        Fitting.objects.create(workshop=house.workshop, drum=other, side="batter", head="single 10 coated", fitted_at=timezone.now())  # fmt: skip
        plan(house)
        plan(house, other, days=2)
        plan(house, other, "settling-check", days=1)
        shelf = api("GET", "/shelf")[1]
        assert [(job["name"], job["state"]) for job in shelf["jobs"]] == [("Stint", "nothing"), ("Wren", "free")]
        assert shelf["jobs_words"] == "Two jobs; all of them can start"
        row = row_of(api, house.stock.pk)
        assert (row["there"], row["free"]) == (1, 1)
        assert row["owed"].startswith("buy 3: for Stint, ")
        (buy,) = api("GET", "/shelf/buying")[1]
        assert (buy["count"], buy["drums"], buy["reasons"][1]) == (3, ["WR-002"], "2 to keep 2 there")

    def test_what_is_free_is_promised_in_one_press(self, api: Api, house: House) -> None:
        job = plan(house)
        assert api("POST", f"/shelf/jobs/{job.pk}/promise")[1]["jobs"][0]["state"] == "promised"
        assert Promise.objects.get().stock_item == house.stock
        _, bench = api("POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk))
        assert str(Promise.objects.get().for_what) == bench["id"]

    def test_a_promise_whose_head_is_gone_is_short_again(self, api: Api, house: House) -> None:
        job = plan(house)
        api("POST", f"/shelf/jobs/{job.pk}/promise")
        moved(api, house.stock.pk, "counted", 0)
        assert [each["state"] for each in api("GET", "/shelf")[1]["jobs"]] == ["short"]

    def test_a_set_of_wires_is_promised_with_the_plan_and_leaves_when_it_is_fitted(
        self, api: Api, house: House
    ) -> None:
        snare = make_drum(house.workshop, "WR-003", name="Knot", kind="snare", snare_bed=True, rods_batter=8, rods_resonant=8)  # fmt: skip
        wires = WireLine.objects.create(workshop=house.workshop, name="20 strands, cord")
        body = {"id": key(), "sort": "wires", "name": wires.name, "size": "12", "count": 1}
        line = api("POST", "/shelf/lines", body)[1]["row"]["id"]
        begin(api, sort="wires", name=wires.name, size="14", count=5)  # longer than the bed
        _, bench = api("POST", "/bench/jobs", start_body(snare, "new-wires", "wires"))
        hands = Hands(api, bench["id"])
        step = next(each["id"] for each in bench["plan"] if any(ask["name"] == "wires" for ask in each["asks"]))
        hands.do(kind="answer", step=step, question="wires", values=[wires.name], unit="")
        assert hands.do(kind="close", reason="", check=False)["standing"] == "applied", bench["plan"]
        assert row_of(api, line)["there"] == 0
        assert Movement.objects.filter(why="fitted").get().drum == snare


class TestGoingBack:
    def test_what_is_found_wanting_on_arrival_leaves_the_count_until_it_is_sent_or_kept(
        self, api: Api, house: House
    ) -> None:
        line, body = house.stock.pk, {"id": key(), "number": 1, "what": "hoop-bent"}
        assert api("POST", f"/shelf/lines/{line}/back", {**body, "what": "strap-frayed"})[0] == 422
        for _ in range(2):
            assert api("POST", f"/shelf/lines/{line}/back", body)[1]["row"]["there"] == 1
        assert row_of(api, line)["said"] == "flesh hoop bent on arrival: 1 to go back"
        (back,) = api("GET", "/shelf/back")[1]
        assert back["called"] == "single 10 coated, 12 in"
        assert api("POST", f"/shelf/back/{back['id']}", {"ended": "kept"})[0] == 204
        assert row_of(api, line)["there"] == 2
        assert api("GET", "/shelf/back")[1] == []


class TestCounting:
    def test_a_place_is_counted_in_one_go_and_says_what_differs(self, api: Api, house: House) -> None:
        rods = begin(api, count=12, place="A1")["row"]["id"]
        (place,) = [each for each in api("GET", "/shelf/places")[1] if each["place"] == "A1"]
        assert [(each["called"], each["count"]) for each in place["lines"]] == [
            ("single 10 coated, 12 in", 2),
            ("rod 7/32-24, 52 mm", 12),
        ]
        said = [{"line": house.stock.pk, "count": 3}, {"line": rods, "count": 12}]
        body = {"id": key(), "place": "A1", "said": said}
        _, found = api("POST", "/shelf/counts", body)
        assert found["differ"] == [{"line": house.stock.pk, "called": "single 10 coated, 12 in", "was": 2, "now": 3}]
        assert api("POST", "/shelf/counts", body)[1]["differ"] == []
        assert Movement.objects.filter(stock_item=house.stock).count() == 1
        (place,) = [each for each in api("GET", "/shelf/places")[1] if each["place"] == "A1"]
        assert place["counted_by"] == "technician of wharf"

    def test_counting_one_place_leaves_the_others(self, api: Api, house: House) -> None:
        moved(api, house.stock.pk, "bought", 3, place="loft")
        body = {"id": key(), "place": "loft", "said": [{"line": house.stock.pk, "count": 1}]}
        api("POST", "/shelf/counts", body)
        assert StockItem.objects.get().count == 3
        assert Heap.objects.get().count == 1

    def test_a_label_is_asked_about_once_and_known_from_then_on(self, api: Api, house: House) -> None:
        assert api("GET", "/shelf/codes/4006381333931")[1] == {"line": None, "called": "", "place": ""}
        assert api("GET", "/shelf/codes/a1")[1]["place"] == "A1"
        api("POST", f"/shelf/lines/{house.stock.pk}/codes", {"code": "4006381333931"})
        assert api("GET", "/shelf/codes/4006381333931")[1]["line"] == house.stock.pk


class TestLoans:
    def test_a_rod_lent_on_the_bench_is_out_until_it_is_put_back(self, api: Api, house: House) -> None:
        lender = make_drum(house.workshop, "WR-009", name="Eider")
        _, bench = api("POST", "/bench/jobs", start_body(house.drum, stock_item=house.stock.pk))
        hands = Hands(api, bench["id"])
        lent = hands.event(kind="lent", step="fingers", what="tension rod", from_tag="WR-009")
        hands.send(lent)
        (loan,) = api("GET", "/shelf/loans?tag=WR-009")[1]
        assert (loan["what"], loan["from_words"], loan["to_words"]) == ("tension rod", "Eider", "Wren")
        hands.do(kind="undo", event=lent["id"])
        assert api("GET", "/shelf/loans")[1] == []
        hands.do(kind="lent", step="fingers", what="tension rod", from_tag="WR-009")
        _, back = api("POST", "/bench/jobs", start_body(lender, "put-back-rod"))
        home = Hands(api, back["id"])
        assert home.do(kind="close", reason="", check=False)["standing"] == "applied"
        assert api("GET", "/shelf/loans")[1] == []
        assert Loan.objects.get().ended == "back"
        assert api("POST", f"/bench/jobs/{back['id']}/open-again")[0] == 204
        assert len(api("GET", "/shelf/loans")[1]) == 1

    def test_what_the_shelf_lends_leaves_it_and_comes_back(self, api: Api, house: House) -> None:
        due = (date.today() - timedelta(days=1)).isoformat()
        body = {"id": key(), "line": house.stock.pk, "number": 2, "to_words": "the rowing club", "due_on": due}
        for _ in range(2):
            assert api("POST", "/shelf/loans", body)[0] == 204
        assert row_of(api, house.stock.pk)["said"] == "two lent to the rowing club"
        (loan,) = api("GET", "/shelf/loans")[1]
        assert (loan["late"], StockItem.objects.get().count) == (True, 0)
        assert api("POST", "/shelf/loans", {**body, "id": key()})[1]["code"] == "below_nought"
        api("POST", f"/shelf/loans/{loan['id']}/end", {"ended": "back"})
        assert StockItem.objects.get().count == 2

    @pytest.mark.parametrize(
        ("said", "code"),
        [
            ({"to_words": "someone"}, "from_where"),
            ({"from_tag": "WR-001"}, "to_whom"),
            ({"from_tag": "WR-001", "to_tag": "wr-001"}, "same_drum"),
            ({"from_tag": "NO-1", "to_words": "someone"}, "unknown_drum"),
        ],
    )
    def test_a_loan_nobody_could_follow_is_refused(self, said: dict[str, str], code: str, api: Api) -> None:
        status, answer = api("POST", "/shelf/loans", {"id": key(), "what": "leg", **said})
        assert (status, answer["code"]) == (422, code)


def upload(house: House, path: str, text: str, member: Any = None) -> tuple[int, Any]:
    api = Api(member or house.technician)
    file = SimpleUploadedFile("shelf.csv", text.encode(), "text/csv")
    answer = api.client.post(f"/api/shelf/sheet{path}", {"sheet": file})
    return answer.status_code, answer.json()


class TestSheets:
    ROWS = (
        "sort,line,size,place,batch,count,minimum,note\n"
        "head,single 10 coated,12,A1,,5,3,\n"
        "head,dotted,14,B1,,2,,\n"
        'claw,bass claw,,H2,,16,8,"=HYPERLINK(""x"")"\n'
        "claw,bass claw,,H2,,15,8,\n"
        "head,single 10 coated,13,A1,,lots,,\n"
    )

    def test_good_rows_are_taken_and_each_bad_one_is_told(self, api: Api, house: House) -> None:
        _, seen = upload(house, "/look", self.ROWS)
        assert (seen["good"], seen["new"], seen["changed"], seen["bad"], seen["taken"]) == (2, 1, 1, 3, False)
        assert StockItem.objects.count() == 1
        status, seen = upload(house, "", self.ROWS)
        assert (status, seen["taken"]) == (200, True)
        assert [each["line"] for each in seen["problems"]] == [3, 5, 6]
        assert "plies" in seen["problems"][0]["because"]
        assert "row 4" in seen["problems"][1]["because"]
        assert StockItem.objects.get(sort="head").count == 5
        _, again = upload(house, "", self.ROWS)
        assert (again["new"], again["changed"], again["same"]) == (0, 0, 2)

    def test_what_goes_out_comes_in_again_and_no_cell_runs(self, api: Api, house: House) -> None:
        upload(house, "", self.ROWS)
        moved(api, house.stock.pk, "bought", 2, place="loft", batch="x9")
        answer = api.client.get("/api/shelf/sheet.csv")
        text = b"".join(answer.streaming_content).decode("utf-8")  # type: ignore[arg-type]
        assert "\"'=HYPERLINK" in text
        other = make_house("bell")
        _, seen = upload(other, "", text)
        assert (seen["bad"], seen["good"]) == (0, 3)
        there = Api(other.technician).client.get("/api/shelf/sheet.csv")
        assert b"".join(there.streaming_content).decode("utf-8") == text  # type: ignore[arg-type]

    def test_a_long_list_is_taken_with_few_statements(
        self, api: Api, house: House, django_assert_max_num_queries: Any
    ) -> None:
        rows = "".join(f"part,thing {n},,Z{n % 9},{n % 5}\n" for n in range(3000))
        with django_assert_max_num_queries(60):
            _, seen = upload(house, "", f"sort,line,size,place,count\n{rows}part,thing 7,,loft,4\n")
        assert (seen["good"], seen["new"], seen["bad"]) == (3001, 3001, 0)
        item = StockItem.objects.get(name="thing 7")
        assert (item.count, [heap.count for heap in item.heaps.all()]) == (2 + 4, [4])
        assert item.movements.aggregate(all=Sum("delta"))["all"] == item.count
        _, again = upload(house, "", f"sort,line,size,place,count\n{rows}part,thing 7,,loft,5\n")
        assert (again["same"], again["changed"]) == (3000, 1)
        assert StockItem.objects.get(name="thing 7").count == 7

    def test_what_is_no_sheet_is_refused_and_a_viewer_sends_none(self, house: House) -> None:
        assert upload(house, "", "a,b\n1,2\n")[1]["code"] == "bad_sheet"
        assert upload(house, "", self.ROWS, house.viewer)[0] == 403


class TestBareHeads:
    def tap(self, hz: float) -> bytes:
        """A head held by its edge: a low note that dies soon, an inharmonic partial above it, over a quiet room."""
        rate, at = 44_100, np.arange(44_100) / 44_100
        ring = np.exp(-at * 9) * np.sin(2 * np.pi * hz * at) + 0.3 * np.exp(-at * 16) * np.sin(
            2 * np.pi * 1.593 * hz * at
        )
        quiet = np.random.default_rng(4).normal(0, 3e-4, rate + 4410)
        quiet[4410:] += 0.4 * ring
        return (quiet * 32767).astype("<i2").tobytes()

    def hear(self, house: House, line: int, sound: bytes) -> tuple[int, Any]:
        path = f"/api/shelf/lines/{line}/heard?rate=44100&id={key()}"
        answer = Api(house.technician).client.post(path, sound, content_type="application/octet-stream")
        return answer.status_code, answer.json()

    def test_the_note_is_heard_kept_with_the_line_and_compared(self, api: Api, house: House) -> None:
        status, seen = self.hear(house, house.stock.pk, self.tap(92.0))
        assert status == 200, seen
        assert abs(seen["bare"][0]["hz"] - 92.0) < 0.5
        assert (seen["bare"][0]["heard"], seen["foretells"]) == (True, "")
        body = {"id": key(), "sort": "head", "name": "double", "size": "12", "head": {"plies": 2, "film_mil": 14}}
        other = api("POST", "/shelf/lines", body)[1]["row"]["id"]
        _, seen = api("POST", f"/shelf/lines/{other}/bare", {"id": key(), "typed": "80"})
        assert seen["foretells"] == "242 cents lower than others of its size: expect it darker (C9)."

    def test_what_is_no_tap_and_what_is_no_head_is_refused(self, api: Api, house: House) -> None:
        assert self.hear(house, house.stock.pk, b"\0" * 20_000)[1]["code"] == "not_heard"
        assert self.hear(house, house.stock.pk, b"")[1]["code"] == "bad_sound"
        rod = begin(api)["row"]["id"]
        assert api("POST", f"/shelf/lines/{rod}/bare", {"id": key(), "typed": "80"})[1]["code"] == "no_head"
        assert api("POST", f"/shelf/lines/{house.stock.pk}/bare", {"id": key(), "typed": "loud"})[0] == 422
