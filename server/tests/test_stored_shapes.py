"""One stored example of every shape there ever was is still read. Never edit an example: a new shape adds its own beside it."""

import json
from pathlib import Path
from typing import Any

import pytest

from apps.bench.before_engine import entry_of_before
from apps.bench.stored import ENTRY_VERSION, PLAN_SHAPE, entry_from, entry_to, plan_from, plan_to
from apps.bench.wire import body_of
from drumwork.errors import BadEvent
from drumwork.work.kinds.registry import ENTRY_KINDS
from drumwork.work.kinds.school import SchoolChosen

KEPT: dict[str, Any] = json.loads((Path(__file__).parent / "fixtures" / "stored_shapes.json").read_text())
BEFORE, NOW = KEPT["entries"]["1"], KEPT["entries"]["2"]


@pytest.mark.parametrize("stored", NOW, ids=lambda each: each["kind"])
def test_an_entry_comes_back_as_it_went_in(stored: dict[str, Any]) -> None:
    """What came to a shape after the example was stored is not said in it, and is then nothing."""
    again = json.loads(json.dumps(entry_to(entry_from(stored, ENTRY_VERSION))))
    assert _what_was_said(again, stored) == stored


def _what_was_said(again: Any, stored: Any) -> Any:
    """Of what came back, what the example says, at every depth; the rest is nothing."""
    if not isinstance(stored, dict):
        return again
    if (shape := stored.get("shape", PLAN_SHAPE)) != PLAN_SHAPE:  # a plan kept with an entry is brought up with it
        kept = {name: value for name, value in stored.items() if name != "shape"}
        assert {name: again[name] for name in again if name != "shape"} == json.loads(
            json.dumps(plan_to(plan_from(kept, shape)))
        )
        return stored
    assert not any(again[name] for name in again.keys() - stored.keys())
    return {name: _what_was_said(again[name], stored[name]) for name in stored}


@pytest.mark.parametrize("stored", NOW, ids=lambda each: each["kind"])
def test_a_device_gets_an_entry_stored_before_something_came_to_it(stored: dict[str, Any]) -> None:
    """Jobs in hand outlive an upgrade."""
    sent = body_of(entry_from(stored, ENTRY_VERSION), stored)
    assert sent["kind"] == stored["kind"]
    assert {name: sent[name] for name in sent if name in stored} == {
        name: stored[name] for name in sent if name in stored
    }


def test_there_is_an_example_of_every_kind() -> None:
    assert {each["kind"] for each in NOW} == set(ENTRY_KINDS)


@pytest.mark.parametrize("stored", BEFORE, ids=lambda each: each["kind"])
def test_an_entry_of_the_first_version_is_brought_up(stored: dict[str, Any]) -> None:
    entry = entry_of_before(stored, 440.0)
    again = json.loads(json.dumps(entry_to(entry)))
    assert entry_from(again, ENTRY_VERSION) == entry
    if stored["kind"] == "reading" and stored["means"] == "pitch":
        assert again["hz"] == pytest.approx(221.274, abs=0.001)  # MIDI Tuning Standard: A3 is 220 Hz; ten cents above
        assert again["typed"] == stored["typed"]


@pytest.mark.parametrize("shape", KEPT["plans"])
def test_a_plan_of_every_shape_is_read(shape: str) -> None:
    for stored in KEPT["plans"][shape]:
        plan = plan_from(stored, int(shape))
        assert plan.step(plan.steps[-1].id).kind == "close"
        if int(shape) == PLAN_SHAPE:
            assert json.loads(json.dumps(plan_to(plan))) == stored


def test_a_plan_kept_with_an_entry_is_brought_up_with_the_entry() -> None:
    stored = {"kind": "school", "way": "stretch", "value": "barely", "plan": {"shape": 1, **KEPT["plans"]["1"][0]}}
    entry = entry_from(stored, ENTRY_VERSION)
    assert isinstance(entry, SchoolChosen)
    assert entry.plan == plan_from(KEPT["plans"]["1"][0], 1)


def test_what_a_newer_program_wrote_is_not_guessed_at() -> None:
    with pytest.raises(BadEvent, match="newer version"):
        plan_from(KEPT["plans"]["1"][0], PLAN_SHAPE + 1)
    with pytest.raises(BadEvent, match="newer version"):
        entry_from({"kind": "weighed", "grams": 12}, ENTRY_VERSION)
    with pytest.raises(BadEvent, match="newer version"):
        entry_from(NOW[0], ENTRY_VERSION + 1)
