"""On paper: a job to tick by hand, a drum's card. Read back by a PDF reader that is not ours (pypdf)."""

from __future__ import annotations

import io

import pytest
from house import Api, Hands, House, make_drum, start_body
from pypdf import PdfReader

MM = 72 / 25.4
SIZES = {"a4": (210 * MM, 297 * MM), "letter": (8.5 * 72, 11 * 72)}  # ISO 216; ANSI/ASME Y14.1


def read(api: Api, path: str) -> PdfReader:
    answer = api.client.get(f"/api/paper{path}")
    assert answer.status_code == 200
    assert answer["Content-Type"] == "application/pdf"
    return PdfReader(io.BytesIO(answer.content))


def words(pdf: PdfReader) -> str:
    return " ".join(" ".join(page.extract_text() for page in pdf.pages).split())


@pytest.mark.parametrize("size", list(SIZES))
def test_a_job_as_paper_has_its_steps_tallies_and_ladder(api: Api, hands: Hands, house: House, size: str) -> None:
    pdf = read(api, f"/jobs/{hands.job}?size={size}")
    wide, high = SIZES[size]
    assert float(pdf.pages[0].mediabox.width) == pytest.approx(wide, abs=1)
    assert float(pdf.pages[0].mediabox.height) == pytest.approx(high, abs=1)
    told = words(pdf)
    assert house.drum.name in told
    for step in hands.look()["plan"]:
        if step["when"] is True:
            assert step["title"] in told
    assert "Pass 1: down 1/2 at each" in told
    assert "1: reads" in told
    assert "No power driver on tension rods" in told


def test_what_was_found_is_on_the_paper_too(api: Api, hands: Hands) -> None:
    hands.do(kind="found", step="lay-out", finding="edge-chipped", side="batter", degree=3)
    assert "A qualified person should see it" in words(read(api, f"/jobs/{hands.job}"))


def test_the_paper_says_where_things_lie_and_what_was_answered(api: Api, hands: Hands) -> None:
    api("PUT", "/shelf/things", {"name": "marker", "place": "drawer 1", "short": False})
    api("PUT", "/shelf/things", {"name": "tape", "place": "drawer 1", "short": True})
    hands.do(kind="answer", step="mark", question="hoop-batter", values=["gap-2"])
    told = words(read(api, f"/jobs/{hands.job}"))
    assert "tape (none left), marker (drawer 1)" in told
    assert told.count("Its hoop’s seam or dent sits: between 2 and 3") == 2  # at the mark, and where it goes back
    assert "Its logo sits: ____" in told


@pytest.mark.parametrize(
    ("kind", "work", "part"), [("rope-bass", "new-rope-head", "batter"), ("snare", "new-wires", "wires")]
)
def test_work_without_rods_has_its_paper(api: Api, house: House, kind: str, work: str, part: str) -> None:
    drum = make_drum(
        house.workshop, "P-001", kind=kind, **({"rods_batter": 0, "rods_resonant": 0} if kind == "rope-bass" else {})
    )
    job = api("POST", "/bench/jobs", start_body(drum, work, part) | {"heads": []})[1]
    assert "Close" in words(read(api, f"/jobs/{job['id']}")) or "Write" in words(read(api, f"/jobs/{job['id']}"))


def test_a_drums_card_says_what_is_on_it(api: Api, house: House) -> None:
    told = words(read(api, f"/drums/{house.drum.tag}"))
    assert "single 10 clear" in told
    assert "Written on the way" in told


def test_another_workshops_paper_is_not_there(api: Api, other: House, hands: Hands) -> None:
    assert Api(other.technician).client.get(f"/api/paper/jobs/{hands.job}").status_code == 404
