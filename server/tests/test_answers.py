"""What a job was told is kept: on the drum, in its history, and for the next job on it."""

from typing import Any

import pytest
from house import Api, Hands, House, make_drum, start_body

from apps.heads.models import Fitting, WireLine
from apps.history.models import LogEntry
from apps.register.models import Drum


def begin(api: Api, drum: Drum, work: str, part: str) -> Hands:
    status, bench = api("POST", "/bench/jobs", start_body(drum, work, part))
    assert status == 201, bench
    return Hands(api, bench["id"])


def done(hands: Hands) -> None:
    """Every step, led to its end; the job closed."""
    while (step := hands.folded().now) and step.kind != "close":
        for each in step.asks:
            if each.needed:
                answer(hands, step.id, each.name, each.options[0].value)
        assert hands.do(kind="step_done", step=step.id)["standing"] == "applied"
    assert hands.do(kind="close", check=False)["standing"] == "applied"


def answer(hands: Hands, step: str, question: str, *values: str, unit: str = "") -> dict[str, Any]:
    return hands.do(kind="answer", step=step, question=question, values=list(values), unit=unit)


@pytest.fixture
def snare(house: House) -> Drum:
    return make_drum(house.workshop, "SN-1", kind="snare", rods_batter=8, rods_resonant=8, snare_bed=True)


@pytest.fixture
def rope(house: House) -> Drum:
    none: dict[str, Any] = {"wanted_batter_hz": None, "rods_batter": 0, "rods_resonant": 0}
    return make_drum(house.workshop, "RP-1", kind="rope-bass", diameter_m=0.7, depth_m=0.4, **none)


def test_muffling_is_kept_on_the_drum_with_where_it_sits(api: Api, house: House) -> None:
    hands = begin(api, house.drum, "muffling", "hardware")
    answer(hands, "note", "muffling", "half-piece", "a sock")
    answer(hands, "note", "muffling-where", "batter-edge")
    done(hands)
    sheet = api("GET", f"/register/drums/{house.drum.tag}/sheet")[1]
    assert sheet["kept"] == [
        {"name": "muffling", "words": "half a piece of gel or tape, a sock"},
        {"name": "muffling sits", "words": "batter, near the hoop"},
    ]
    assert LogEntry.objects.get(kind="muffling").record["answers"]["Where"] == "batter, near the hoop"
    again = begin(api, house.drum, "muffling", "hardware")
    assert again.look()["kept"] == sheet["kept"]
    answer(again, "note", "muffling")  # nothing now
    done(again)
    assert [each["name"] for each in api("GET", f"/register/drums/{house.drum.tag}/sheet")[1]["kept"]] == [
        "muffling sits"
    ]


def test_wires_are_fitted_by_the_line_that_was_chosen(api: Api, house: House, snare: Drum) -> None:
    WireLine.objects.create(workshop=house.workshop, name="20 strands, cord")
    hands = begin(api, snare, "new-wires", "wires")
    (question,) = next(step for step in hands.look()["plan"] if step["id"] == "lay-out")["asks"]
    assert [each["value"] for each in question["options"]] == ["20 strands, cord"]
    answer(hands, "lay-out", "wires", "20 strands, cord")
    done(hands)
    assert Fitting.objects.get(drum=snare, side="wires", retired_at=None).head == "20 strands, cord"


def test_where_hoop_and_logo_sat_is_said_again_and_kept(api: Api, house: House) -> None:
    hands = begin(api, house.drum, "new-batter-head", "batter")
    answer(hands, "mark", "hoop-batter", "gap-3")
    assert answer(hands, "mark", "hoop-batter", "gap-9")["message"].startswith("“gap-9” is not among")
    plan = hands.look()["plan"]
    assert next(step for step in plan if step["id"] == "set-head")["recalls"] == [
        "logo-batter", "hoop-batter", "rods-batter",
    ]  # fmt: skip
    hands.do(kind="undo", event=hands.look()["log"][-1]["id"])
    answer(hands, "mark", "hoop-batter", "gap-4")
    while (step := hands.folded().now) and step.kind != "close":
        hands.do(kind="step_done", step=step.id)
    hands.do(kind="close", check=False)
    house.drum.refresh_from_db()
    assert house.drum.kept == {"batter hoop’s seam": "between 4 and 5"}


def test_a_ropes_range_is_reckoned_kept_and_learned_from(api: Api, rope: Drum) -> None:
    hands = begin(api, rope, "rope-range", "heads")
    for question, hz in (("low-before", "80"), ("high-before", "90 Hz"), ("wanted-low", "85"), ("wanted-high", "98")):
        assert answer(hands, "mark", question, hz, unit="pitch")["standing"] == "applied"
    assert answer(hands, "mark", "low-before", "soft", unit="pitch")["standing"] == "refused"
    told = {each["step"]: each["words"] for each in hands.look()["figures"]["told"]}
    assert "one centimetre" in told["pull"]
    answer(hands, "pull", "pulled", "10 mm", unit="length")
    answer(hands, "range", "low", "84", unit="pitch")
    answer(hands, "range", "high", "93.6", unit="pitch")
    bench = hands.look()
    assert "22 mm more" in {each["step"]: each["words"] for each in bench["figures"]["told"]}["pull-again"]
    shown = {each["hz"] for each in bench["figures"]["pitches"]}
    assert {80.0, 90.0, 84.0, 93.6} <= shown
    done(hands)
    rope.refresh_from_db()
    assert rope.kept["rope passes"] == [{"pulled_m": 0.01, "before_hz": 80.0, "after_hz": 84.0}]
    assert rope.kept["rope range from"].startswith("84.0 Hz")
    sheet = api("GET", f"/register/drums/{rope.tag}/sheet")[1]
    assert "rope passes" not in {each["name"] for each in sheet["kept"]}
    again = begin(api, rope, "rope-range", "heads")
    for question, hz in (("low-before", "80"), ("high-before", "90"), ("wanted-low", "85"), ("wanted-high", "98")):
        answer(again, "mark", question, hz, unit="pitch")
    words = {each["step"]: each["words"] for each in again.look()["figures"]["told"]}["pull"]
    assert "mm more" in words  # what the first job taught


def test_the_service_card_says_how_it_was_left(api: Api, house: House) -> None:
    from io import BytesIO

    from pypdf import PdfReader

    house.drum.kept = {"muffling": "a loose ring"}
    house.drum.save()
    card = api.client.get(f"/api/paper/drums/{house.drum.tag}")
    assert "muffling: a loose ring" in "".join(page.extract_text() for page in PdfReader(BytesIO(card.content)).pages)
