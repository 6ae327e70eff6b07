"""Bad input gets an answer that says what to do: never a server error, never a record nobody can open again."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone
from house import Api, Hands, House, make_drum, start_body

from apps.bench.models import JobEvent

SHAPE = {"code", "message", "fields", "kept"}
DRUM = {
    "tag": "WR-010", "name": "Kestrel", "kind": "rack-tom", "diameter": "12", "depth": "8", "rods_batter": 6, "rods_resonant": 6,
    "place": "net loft", "owner": "chandlery",
}  # fmt: skip


@pytest.mark.parametrize("field", ["tag", "name", "place", "owner", "diameter", "depth"])
@pytest.mark.parametrize("blank", ["", "   ", "\t", "\u00a0"])
def test_what_must_be_there_cannot_be_blank(api: Api, field: str, blank: str) -> None:
    status, answer = api("POST", "/register/drums", {**DRUM, field: blank})
    assert (status, list(answer["fields"])) == (422, [field])
    assert set(answer) == SHAPE


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"kits": ["k" * 81]}, "kits.0"),
        ({"tag": "A/B"}, "tag"),
        ({"tag": "..\u0020"}, "tag"),
        ({"tag": "A\nB: c"}, "tag"),
        ({"tag": "A\x00"}, "tag"),
        ({"name": "A\x00B"}, "name"),
        ({"note": "A\x00B"}, "note"),
        ({"name": "\ud800"}, "name"),
        ({"rods_batter": 10**20}, "rods_batter"),
        ({"lost_batter": [10**20]}, "lost_batter.0"),
    ],
)
def test_what_cannot_be_kept_is_refused_by_its_field(api: Api, more: dict[str, Any], field: str) -> None:
    status, answer = api("POST", "/register/drums", {**DRUM, **more})
    assert (status, set(answer)) == (422, SHAPE)
    assert not more or field in answer["fields"] or answer["code"] == "bad_value"


@pytest.mark.parametrize("tag", ["MQ-016", "鼓 3", "No. 5 (red)", "Ä1", "12"])
def test_any_tag_a_shop_would_write_is_taken_and_opens(api: Api, tag: str) -> None:
    assert api("POST", "/register/drums", {**DRUM, "tag": tag})[0] == 201
    assert api("GET", f"/register/drums/{tag}/sheet")[1]["tag"] == tag
    assert api.client.get(f"/api/paper/drums/{tag}").status_code == 200


def test_a_tag_of_before_that_would_not_be_taken_today_still_opens_and_prints(api: Api, house: House) -> None:
    make_drum(house.workshop, "OLD\nX: y")
    assert api("GET", "/register/drums/OLD%0AX: y")[1]["tag"] == "OLD\nX: y"
    header = api.client.get("/api/paper/drums/OLD%0AX: y")["Content-Disposition"]
    assert "\n" not in header
    assert "OLDX" in header


@pytest.mark.parametrize(
    ("tags", "following"),
    [
        (["D-998", "D-999", "D-1000"], "D-1001"),
        (["D-1000", "D-2"], "D-1001"),
        (["A-7", "B-003"], "B-004"),
        (["鼓9"], "鼓10"),
        (["Z²"], "Z²-2"),
        (["D-99999999999999999999"], "D-99999999999999999999"),
    ],
)
def test_the_numbering_goes_on(api: Api, house: House, tags: list[str], following: str) -> None:
    for tag in tags:
        make_drum(house.workshop, tag[:20])
    offered = api("GET", "/register/choices")[1]["next_tag"]
    if following == tags[-1]:
        assert len(offered) <= 20
    else:
        assert offered == following


@pytest.mark.parametrize(
    "path",
    [
        "/register/drums?offset=100000000000000000000",
        "/register/drums?offset=-1",
        "/register/drums?text=%00",
        "/register/drums?kind=%00",
        "/register/drums/%00",
        "/register/drums/%00/sheet",
        "/sound/%00",
        "/bench/work/%00",
        "/bench/findings/%00",
        "/photos/drum/%00",
        "/photos/drum/x?most=99999999999999999999",
        "/workshop/patterns?rods=100000000000000000000",
        "/heads/WR-001/%00",
        "/bench/jobs/00000000-0000-0000-0000-000000000000?since=99999999999999999999",
    ],
)
def test_an_odd_address_is_refused_in_the_one_shape(api: Api, path: str) -> None:
    answer = api.client.get(f"/api{path}")
    assert 400 <= answer.status_code < 500, answer.content
    assert set(answer.json()) == SHAPE


def test_a_name_with_a_nul_does_not_sign_in(db: None) -> None:
    for name in ("a\x00b", "\x00", "x" * 151):
        status, answer = Api(None)("POST", "/session", {"username": name, "password": "p"})
        assert (400 <= status < 500, set(answer)) == (True, SHAPE)


@pytest.mark.parametrize("method", ["DELETE", "PATCH", "PUT", "TRACE"])
def test_another_method_is_refused_in_the_one_shape(api: Api, method: str) -> None:
    answer = api.client.generic(method, "/api/today")
    assert (answer.status_code, set(answer.json())) == (405, SHAPE)
    assert "GET" in answer["Allow"]


def test_another_host_and_a_stale_page_are_refused_in_the_one_shape(house: House) -> None:
    answer = Client().get("/api/today", headers={"host": "elsewhere.example"})
    assert (answer.status_code, set(answer.json())) == (400, SHAPE)
    stale = Client(enforce_csrf_checks=True)
    stale.force_login(house.technician.user, backend="apps.accounts.backends.MemberBackend")
    answer = stale.post("/api/register/drums", DRUM, content_type="application/json")
    assert (answer.status_code, set(answer.json())) == (403, SHAPE)
    answer = Client(enforce_csrf_checks=True).post("/", {})
    assert (answer.status_code, set(answer.json())) == (403, SHAPE)


class TestClocks:
    """A device whose clock is wrong by years once bricked its job for good."""

    @pytest.mark.parametrize(
        "told",
        ["0001-01-01T00:00:00Z", "9999-12-31T23:59:59Z", "0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00"],
    )
    def test_a_clock_far_off_is_said_and_the_servers_time_kept(self, hands: Hands, told: str) -> None:
        event = hands.event(kind="note", text="late") | {"made_at": told}
        status, answer = hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [event]})
        assert (status, answer["receipts"][0]["standing"]) == (200, "applied")
        assert "clock is off" in answer["receipts"][0]["message"]
        assert abs(JobEvent.objects.get(pk=event["id"]).made_at - timezone.now()) < timedelta(minutes=1)
        assert hands.api("GET", f"/bench/jobs/{hands.job}")[0] == 200

    @pytest.mark.parametrize("hours", [-23, 23])
    def test_within_a_day_it_is_kept_as_told(self, hands: Hands, hours: int) -> None:
        told = timezone.now() + timedelta(hours=hours)
        event = hands.event(kind="note", text="soon") | {"made_at": told.isoformat()}
        answer = hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [event]})[1]
        assert answer["receipts"][0]["message"] == ""
        assert JobEvent.objects.get(pk=event["id"]).made_at == told

    @pytest.mark.parametrize("year", [1, 9999])
    def test_a_job_that_took_such_an_entry_before_opens(self, hands: Hands, year: int) -> None:
        event = hands.event(kind="note", text="old")
        hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [event]})
        JobEvent.objects.filter(pk=event["id"]).update(made_at=datetime(year, 6, 1, tzinfo=UTC))
        assert hands.api("GET", f"/bench/jobs/{hands.job}")[0] == 200
        assert hands.api("GET", "/today")[0] == 200
        assert hands.api.client.get(f"/api/paper/jobs/{hands.job}").status_code == 200
        assert (
            hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": [hands.event(kind="note", text="b")]})[0]
            == 200
        )


def test_one_entry_that_cannot_be_worked_out_holds_up_no_other(hands: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    from apps.bench import flows

    whole = flows._take_one

    def failing(ledger: Any, event: Any, member: Any) -> Any:
        if getattr(event.body, "text", "") == "poison":
            raise ZeroDivisionError
        return whole(ledger, event, member)

    monkeypatch.setattr(flows, "_take_one", failing)
    events = [hands.event(kind="note", text=text) for text in ("before", "poison", "after")]
    status, answer = hands.api("POST", f"/bench/jobs/{hands.job}/events", {"events": events})
    assert status == 200
    assert [(each["standing"], each["code"]) for each in answer["receipts"]] == [
        ("applied", ""), ("refused", "unexpected"), ("applied", ""),
    ]  # fmt: skip
    texts = JobEvent.objects.filter(job_id=hands.job, kind="note").order_by("seq").values_list("body__text", flat=True)
    assert list(texts) == ["before", "after"]


class TestTaps:
    def place(self, hands: Hands, **more: Any) -> str:
        query = {"step": "clear", "rate": 44_100, "rod": 1} | more
        return f"/api/hearing/jobs/{hands.job}/tap?" + "&".join(f"{name}={value}" for name, value in query.items())

    @pytest.fixture
    def check(self, api: Api, house: House) -> Hands:
        return Hands(api, api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))[1]["id"])

    @pytest.mark.parametrize(
        ("more", "pcm"),
        [
            ({}, b"\0\0"), ({}, b"\0\0" * 7), ({"rate": 1}, b"\0\0" * 900), ({"rate": 10**9}, b"\0\0" * 900), ({"rod": 9}, b"\0\0" * 9000),
            ({"step": "lay-out"}, b"\0\0" * 9000), ({"step": "nowhere"}, b"\0\0" * 9000), ({"step": "%00"}, b"\0\0" * 9000),
        ],
    )  # fmt: skip
    def test_what_is_no_tap_of_this_head_is_refused(self, check: Hands, more: dict, pcm: bytes) -> None:
        answer = check.api.client.generic(
            "POST", self.place(check, **more), pcm, content_type="application/octet-stream"
        )
        assert 200 <= answer.status_code < 500, answer.content
        assert answer.status_code == 422 or answer.json()["status"] == "refuse"

    @pytest.mark.usefixtures("in_demo")
    def test_nothing_is_heard_on_a_closed_job(self, check: Hands) -> None:
        from apps.bench.models import Job

        Job.objects.filter(pk=check.job).update(state="closed", closed_at=timezone.now())
        answer = check.api("POST", f"/hearing/jobs/{check.job}/simulated", {"step": "clear", "lap": 0, "rod": 1})
        assert (answer[0], answer[1]["code"]) == (409, "closed")

    def test_rods_that_are_no_numbers_are_passed_over(self, check: Hands) -> None:
        from django.core.files.uploadedfile import SimpleUploadedFile

        body = {"step": "clear", "rods": "²,x,", "sound": SimpleUploadedFile("a.wav", b"RIFF")}
        answer = check.api.client.post(f"/api/hearing/jobs/{check.job}/file", body)
        assert (answer.status_code, set(answer.json())) == (422, SHAPE)


def test_the_largest_number_asked_for_as_a_record_is_not_there(api: Api) -> None:
    status, answer = api("POST", f"/bench/findings/{10**30}/put-right")
    assert (400 <= status < 500, set(answer)) == (True, SHAPE)
    assert api("GET", f"/bench/jobs/{uuid.uuid4()}")[0] == 404
