"""`drumwork listen` and `drumwork simulate`, as they are typed."""

import io
import json
from pathlib import Path

import pytest

from drumwork.__main__ import main

FIELDS = {
    "file",
    "status",
    "hz",
    "cents_sigma",
    "reason",
    "partials",
    "strength_db",
    "glide_cents",
    "onset_s",
    "chance",
    "second",
    "ask",
}


@pytest.fixture
def round_wav(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> Path:
    path = tmp_path / "round.wav"
    assert main(["simulate", str(path), "--rods", "6", "--pitch", "200", "--split", "0"]) == 0
    capsys.readouterr()
    return path


def test_a_simulated_round_is_read_tap_by_tap(round_wav: Path, capsys: pytest.CaptureFixture[str]) -> None:
    main(["listen", str(round_wav), "--taps", "--json", "--expect-hz", "207", "--diameter-in", "14"])
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert len(answers) == 6
    assert all(each.keys() == FIELDS for each in answers)
    assert [each["hz"] for each in answers] == pytest.approx([200] * 6, abs=0.7)
    truth = json.loads(round_wav.with_suffix(".json").read_text())
    assert [each["onset_s"] for each in answers] == pytest.approx(list(truth["taps_s"].values()), abs=0.02)


def test_a_batch_answers_every_line_in_order_and_goes_on_after_a_bad_one(
    round_wav: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    lines = [
        json.dumps({"file": "gone.wav", "expect_hz": None}),
        "{not json",
        json.dumps({"file": str(round_wav), "expect_hz": "high"}),
        json.dumps({"file": str(round_wav), "expect_hz": 200, "centre_hz": 120, "diameter_in": 14, "at": "edge"}),
    ]
    monkeypatch.setattr("sys.stdin", io.StringIO("\n".join(lines) + "\n"))
    assert main(["listen", "--batch", "-"]) == 0
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert [each["status"] for each in answers] == ["refuse"] * 4  # the last holds six taps
    assert all(each["reason"] for each in answers)
    assert [each["file"] for each in answers] == ["gone.wav", None, str(round_wav), str(round_wav)]


def test_nothing_to_listen_to_is_said(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["listen"]) == 2
    assert "sound files" in capsys.readouterr().err


def test_the_other_head_rings_along_or_is_muted(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """Heads tuned alike: doubted while both ring, read once the other is muted."""
    said = {}
    for name, more in (("rings", ["--other-rings"]), ("muted", [])):
        wav = tmp_path / f"{name}.wav"
        assert (
            main(["simulate", str(wav), "--rods", "4", "--split", "0", "--other-pitch", "200", "--middle", *more]) == 0
        )
        truth = json.loads(wav.with_suffix(".json").read_text())
        assert "middle" in truth["taps_s"]
        capsys.readouterr()
        known = ["--expect-hz", "200", "--other-hz", "200", *(["--other-muted"] if name == "muted" else [])]
        assert main(["listen", str(wav), "--taps", "--json", *known]) == 0
        said[name] = [json.loads(line) for line in capsys.readouterr().out.splitlines()][:4]
    assert {each["status"] for each in said["muted"]} == {"ok"}
    assert all(abs(each["hz"] - 200) < 0.3 for each in said["muted"])
    assert all("mute the other head" in each["reason"] for each in said["rings"])


def test_what_is_known_of_the_drum_may_be_told(
    round_wav: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    drum = ["--diameter-in", "14", "--depth-in", "5.5", "--film-mil", "10", "--film-plies", "1", "--other", "held"]
    assert main(["listen", str(round_wav), "--taps", "--json", *drum]) == 0
    told = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert [each["hz"] for each in told] == pytest.approx([200] * 6, abs=0.7)
    wrong = [{"other": "gone"}, {"diameter_in": 14, "depth_mm": 5}, {"film_mil": 900}]
    lines = [json.dumps({"file": str(round_wav), **each}) for each in wrong]
    monkeypatch.setattr("sys.stdin", io.StringIO("\n".join(lines) + "\n"))
    main(["listen", "--batch", "-"])
    reasons = [json.loads(line)["reason"] for line in capsys.readouterr().out.splitlines()]
    assert [
        said in reason
        for said, reason in zip(("rings, held or none", "2 cm to 2 m", "0.02 to 1 mm"), reasons, strict=True)
    ] == [True] * 3
