"""`findings`, `verdict`, `choose`, `kit-plan` and `callout` as others read them: JSON in, JSON out, one line where something is wrong; the examples of the pages in docs/."""

from __future__ import annotations

import io
import json
import re
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from drumwork.__main__ import main
from drumwork.deciding import Verdict
from drumwork.findings import FINDINGS

DOCS = Path(__file__).resolve().parents[2] / "docs"


class Said:
    """A command with something on its standard input."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> None:
        self.monkeypatch, self.capsys = monkeypatch, capsys

    def __call__(self, verb: str, given: Any, code: int = 0) -> Any:
        self.monkeypatch.setattr("sys.stdin", io.StringIO(given if isinstance(given, str) else json.dumps(given)))
        assert main([verb]) == code
        out, err = self.capsys.readouterr()
        return json.loads(out) if code == 0 else err


@pytest.fixture
def say(monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> Said:
    return Said(monkeypatch, capsys)


def test_the_vocabulary(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["findings", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)
    assert [each["id"] for each in rows] == list(FINDINGS)
    assert all(set(each) >= {"id", "where", "words", "answer", "degrees"} for each in rows)
    assert main(["findings"]) == 0
    assert "tear-at-hoop\thead\t" in capsys.readouterr().out


@pytest.mark.parametrize("verb", ["verdict", "choose", "kit-plan", "callout"])
def test_the_example_of_its_page_holds(say: Said, verb: str) -> None:
    request, answer = re.findall(r"```json\n(.*?)```", (DOCS / f"{verb}.md").read_text(encoding="utf-8"), re.S)
    assert say(verb, request) == json.loads(answer)


def test_a_verdict_has_the_promised_shape(say: Said) -> None:
    found = say("verdict", {"drum": {"kind": "snare", "rods": 10}, "heads": {"batter": {"findings": [{"id": "dents", "degree": 3}]}}, "wires": None, "hardware": {"findings": []}, "going_out": False})  # fmt: skip
    assert set(found) >= {"verdicts", "suspect_first", "turn_over", "because"}
    assert found["verdicts"] == {"batter": "replace-next", "resonant": "nothing", "wires": "nothing", "hardware": "nothing", "drum": "replace-next"}  # fmt: skip
    assert all(set(each) >= {"rule", "words", "cites"} for each in found["because"])
    nothing = say("verdict", {"drum": {"kind": "rack-tom"}})
    assert set(nothing["verdicts"].values()) == {"nothing"}
    assert nothing["because"][0]["rule"] == "nothing-found"


def test_findings_go_to_their_part_wherever_they_were_told(say: Said) -> None:
    told = {
        "drum": {"kind": "snare"},
        "heads": {"batter": {"findings": [{"id": "rod-missing", "place": "rod 3"}, {"id": "strand-broken"}]}},
    }
    found = say("verdict", told)["verdicts"]
    assert (found["batter"], found["wires"], found["hardware"]) == ("nothing", "replace-next", "repair")
    told = {"drum": {"kind": "snare"}, "hardware": {"findings": [{"id": "split", "place": {"side": "resonant"}}]}}
    assert say("verdict", told)["verdicts"]["resonant"] == "replace-now"
    assert "Say on which head" in say(
        "verdict", {"drum": {"kind": "snare"}, "hardware": {"findings": [{"id": "split"}]}}, 2
    )


def test_several_at_once(say: Said) -> None:
    assert len(say("verdict", [{"drum": {"kind": "snare"}}] * 3)) == 3
    assert len(say("choose", [{"drum": {"kind": "snare"}, "use": "drum set"}] * 2)) == 2


def test_a_choice_has_the_promised_shape(say: Said) -> None:
    found = say("choose", {"drum": {"kind": "floor-tom", "diameter_in": 16, "depth_in": 16, "rods": 8, "snare_bed": False}, "side": "batter", "use": "drum set", "sound": ["low", "short"], "needs": ["brushes"], "now": {"plies": 2, "mil": 7, "finish": "clear", "damping": "none"}})  # fmt: skip
    for each in found["answers"]:
        assert set(each) >= {"plies", "mil", "finish", "damping", "vent", "mesh", "for", "against", "rules", "changes"}
        assert each["for"]
        assert each["rules"]
    assert all(each["because"] and each["spec"]["words"] for each in found["excluded"])
    # Two plies of 7 mil, told per ply or together, are one head.
    again = {"drum": {"kind": "floor-tom"}, "use": "drum-set", "sound": ["low"]}
    answers = [
        say("choose", {**again, "now": {"plies": 2, "mil": mil, "finish": "clear"}})["answers"]
        for mil in (7, 14, "7+7")
    ]
    assert answers[0] == answers[1] == answers[2]


@pytest.mark.parametrize(
    ("verb", "given", "words"),
    [
        ("verdict", "", "Give the request as JSON"),
        ("verdict", "{", "is no JSON"),
        ("verdict", "[" * 100_000, "is no JSON"),
        ("verdict", "7", "give an object"),
        ("verdict", {}, "drum.kind"),
        ("verdict", {"drum": {"kind": "gong"}}, "Choose one of: snare"),
        ("verdict", {"drum": {"kind": "snare"}, "heads": {"batter": {"findings": [{"id": "worn"}]}}}, "Nothing is known by the name"),
        ("verdict", {"drum": {"kind": "snare"}, "heads": {"batter": {"findings": [{"id": "dents", "degree": 4}]}}}, "from 1 to 3"),
        ("verdict", {"drum": {"kind": "snare"}, "heads": {"batter": {"age_months": -1}}}, "age_months"),
        ("verdict", {"drum": {"kind": "snare"}, "going_out": "yes"}, "true or false"),
        ("verdict", {"drum": {"kind": "rack-tom"}, "wires": {"findings": [{"id": "wires-slow"}]}}, "has no such part"),
        ("verdict", {"drum": {"kind": "snare"}, "heads": {"batter": {"findings": [{"id": "dents", "place": [1]}]}}}, "place"),
        ("choose", {"drum": {"kind": "snare"}, "use": "wedding"}, "Choose one of: drum-set"),
        ("choose", {"drum": {"kind": "snare"}, "sound": ["crunchy"]}, "Choose among: open"),
        ("choose", {"drum": {"kind": "snare"}, "sound": "warm"}, "give a list"),
        ("choose", {"drum": {"kind": "snare"}, "now": {"plies": 1, "mil": "thick"}}, "mil"),
        ("choose", {"drum": {"kind": "snare", "diameter_in": 1e9}}, "diameter_in"),
        ("choose", {"drum": {"kind": "snare"}, "side": "left"}, "side"),
        ("kit-plan", {}, "1 to 40 drums"),
        ("kit-plan", {"drums": [{"id": "a", "now_cents": "low"}]}, "drums[0].now_cents"),
        ("kit-plan", {"drums": [{"id": "a", "now_cents": 0, "lowest_cents": 0, "highest_cents": 1}], "wish": {"fixed": [{"id": "a", "cents": 0.5}]}}, "whole number"),
        ("kit-plan", {"drums": [], "wish": {"apart": {"at_least": 5, "against": ["A"]}}}, "against"),
        ("callout", {}, "minutes"),
        ("callout", {"minutes": -3}, "minutes"),
        ("callout", {"minutes": 5, "tasks": [{"id": "a", "minutes": 1, "worth": 1, "after": "b"}]}, "give a list"),
        ("callout", {"minutes": 5, "tasks": [{"id": "a", "minutes": 1, "worth": 1, "after": ["b"]}]}, "no task of this call-out"),
        ("callout", {"minutes": 5, "parts": {"rod": -1}}, "parts.rod"),
    ],
)  # fmt: skip
def test_what_is_wrong_is_said_in_one_line(say: Said, verb: str, given: Any, words: str) -> None:
    err = say(verb, given, 2)
    assert words in err
    assert err.startswith("drumwork: ")
    assert err.count("\n") == 1


JSON = st.recursive(
    st.none() | st.booleans() | st.integers(-5, 50) | st.floats() | st.sampled_from(["snare", "batter", "dents", "rod-missing", "bed", "", "\x00"]),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["drum", "kind", "heads", "batter", "findings", "id", "degree", "place", "wires", "hardware", "going_out", "use", "sound", "needs", "now", "mil", "plies", "drums", "now_cents", "wish", "steps", "apart", "minutes", "tasks", "worth", "after", "uses", "parts"]), inner, max_size=5),
    max_leaves=25,
)  # fmt: skip


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(JSON, st.sampled_from(["verdict", "choose", "kit-plan", "callout"]))
def test_nothing_brings_it_down(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str], told: Any, verb: str
) -> None:
    text = json.dumps({"drum": {"kind": "snare"}, **told} if isinstance(told, dict) else told)
    monkeypatch.setattr("sys.stdin", io.StringIO(text))
    assert main([verb]) in (0, 2)
    capsys.readouterr()


def test_nothing_to_do_and_no_time(say: Said) -> None:
    assert say("callout", {"minutes": 0}) == {"order": [], "worth": 0, "bound": 0, "proved": True, "spare_minutes": 0}
    alone = {"id": "a", "now_cents": 1200, "lowest_cents": 1000, "highest_cents": 1400}
    assert say("kit-plan", {"drums": [alone], "wish": {}})["targets"] == {"a": 1200}
    cannot = say("kit-plan", {"drums": [alone], "wish": {"fixed": [{"id": "a", "cents": 2000}]}})
    assert (cannot["targets"], cannot["impossible"]) == ({}, ["fixed: a"])


def test_verdict_words_are_those_of_the_page() -> None:
    page = (DOCS / "verdict.md").read_text(encoding="utf-8")
    assert all(f"`{each.value}`" in page for each in Verdict)
