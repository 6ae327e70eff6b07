"""Taps heard over the API: from the microphone, from recordings, and from the demo's simulated drum."""

import io
from typing import Any

import numpy as np
import pytest
import soundfile
from django.core.files.uploadedfile import SimpleUploadedFile
from house import Api, Hands, House, start_body

from apps.hearing.models import HeardTap
from apps.register.models import Drum
from drumwork.rods.layout import RodLayout
from drumwork.simulated import Microphone, SimulatedDrum, Tap

RATE = 44_100


@pytest.fixture
def check(api: Api, house: House) -> Hands:
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))
    return Hands(api, bench["id"])


@pytest.fixture
def drum() -> SimulatedDrum:
    return SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5)


def send_tap(check: Hands, pcm: bytes, rate: int = RATE, rod: int | None = 1) -> tuple[int, dict]:
    place = f"rate={rate}" + (f"&rod={rod}" if rod else "")
    answer = check.api.client.generic(
        "POST", f"/api/hearing/jobs/{check.job}/tap?step=clear&{place}", pcm, content_type="application/octet-stream"
    )
    return answer.status_code, answer.json()


def send_round(check: Hands, drum: SimulatedDrum, order: list[int], kind: str = "WAV") -> dict:
    """A recorded round with the taps in this order, while rods 1 to 6 are asked for."""
    sound = np.concatenate([drum.tap(rod, RATE, seed=rod) for rod in order])
    file = io.BytesIO()
    soundfile.write(file, sound, RATE, format=kind, subtype="PCM_16")
    sent = SimpleUploadedFile(f"round.{kind.lower()}", file.getvalue())
    url = f"/api/hearing/jobs/{check.job}/file"
    return check.api.client.post(url, {"sound": sent, "step": "clear", "lap": 0, "rods": "1,2,3,4,5,6"}).json()


def pcm_of(sound: np.ndarray) -> bytes:
    return (np.clip(sound, -1, 1) * 32767).astype("<i2").tobytes()


def test_a_tap_is_read_as_what_is_entered_for_the_rod(check: Hands, drum: SimulatedDrum) -> None:
    status, heard = send_tap(check, pcm_of(drum.tap(2, RATE, seed=1)))
    assert (status, heard["status"]) == (200, "ok")
    low, high = drum.sounding().pair_hz
    assert min(abs(heard["hz"] - low), abs(heard["hz"] - high)) < 0.8
    assert check.do(kind="reading", step="clear", lap=0, rod=2, typed=heard["typed"])["standing"] == "applied"


def test_noise_is_refused_in_words_and_enters_nothing(check: Hands) -> None:
    noise = np.random.default_rng(1).standard_normal(RATE) * 0.2
    status, heard = send_tap(check, pcm_of(noise))
    assert (status, heard["status"], heard["typed"]) == (200, "refuse", "")
    assert heard["reason"]


@pytest.mark.parametrize(("pcm", "rate"), [(b"", RATE), (b"abc", RATE), (b"\x00\x00" * 9000, 100)])
def test_what_cannot_be_sound_is_refused(check: Hands, pcm: bytes, rate: int) -> None:
    status, answer = send_tap(check, pcm, rate)
    assert status == 422
    assert answer["message"]


@pytest.mark.parametrize("kind", ["WAV", "FLAC", "AIFF"])
def test_a_recorded_round_is_read_tap_by_tap(check: Hands, drum: SimulatedDrum, kind: str) -> None:
    answer = send_round(check, drum, [1, 2, 3, 4, 5, 6], kind)
    assert [each["status"] for each in answer["taps"]] == ["ok"] * 6
    assert [each["rod"] for each in answer["readings"]] == [1, 2, 3, 4, 5, 6]
    assert answer["words"] == ""


def test_a_rod_tapped_twice_in_a_recording_is_found_and_the_others_stay_with_their_rods(check: Hands) -> None:
    lopsided = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5, uneven=0.2)
    answer = send_round(check, lopsided, [1, 2, 3, 3, 4, 5, 6])
    assert "rod 3 was tapped twice" in answer["words"]
    taps, readings = answer["taps"], {each["rod"]: each["heard"]["hz"] for each in answer["readings"]}
    assert readings[3] == pytest.approx((taps[2]["hz"] + taps[3]["hz"]) / 2)
    assert readings[4] == taps[4]["hz"]


def test_several_taps_for_each_rod_are_read_as_their_median(check: Hands) -> None:
    lopsided = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5, uneven=0.2)
    answer = send_round(check, lopsided, [rod for rod in range(1, 7) for _ in range(3)])
    assert "several taps for each rod" in answer["words"]
    for number, each in enumerate(answer["readings"]):
        assert each["rod"] == number + 1
        assert each["heard"]["hz"] == sorted(tap["hz"] for tap in answer["taps"][3 * number : 3 * number + 3])[1]


def test_a_file_beyond_the_stated_size_is_refused(check: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("apps.hearing.api.MOST_FILE_BYTES", 1000)
    sent = SimpleUploadedFile("round.wav", b"x" * 1001)
    answer = check.api.client.post(f"/api/hearing/jobs/{check.job}/file", {"sound": sent, "step": "clear"})
    assert answer.status_code == 413
    assert "64 MB" in answer.json()["message"]


def test_a_file_that_is_no_sound_is_refused_with_what_is_taken(check: Hands) -> None:
    sent = SimpleUploadedFile("notes.wav", b"not sound at all")
    answer = check.api.client.post(f"/api/hearing/jobs/{check.job}/file", {"sound": sent, "step": "clear"})
    assert answer.status_code == 422
    assert "FLAC" in answer.json()["message"]


@pytest.mark.usefixtures("in_demo")
def test_the_simulated_drum_answers_to_the_turns_of_the_job(check: Hands) -> None:
    check.do(kind="step_done", step="look")
    for lap in range(4):
        for rod in range(1, 7):
            _, heard = check.api(
                "POST", f"/hearing/jobs/{check.job}/simulated", {"step": "clear", "rod": rod, "lap": lap}
            )
            told = {each: heard[each] for each in ("typed", "partials", "simulated")} | {"tap": heard["id"]}
            check.do(kind="reading", step="clear", lap=lap, rod=rod, **told)
        check.do(kind="plan", step="clear", lap=lap)
        shown = check.lap(number=lap)
        if shown["plan"]["clear"]:
            break
        for rod in shown["rods"]:
            if rod["owed_32"]:
                check.send(check.turned("clear", lap, (rod["rod"], rod["owed_32"])))
    assert shown["plan"]["clear"]
    assert lap <= 3
    told = [each for each in check.look()["log"] if each["body"]["kind"] == "reading"]
    assert all(each["body"]["simulated"] and each["words"].endswith(", of a simulated drum") for each in told)


def test_a_whole_round_heard_tells_the_pair_and_reads_each_rod_as_the_blend_it_hears(check: Hands) -> None:
    drum = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=4)  # its two lie 8 Hz apart
    for rod in range(1, 7):
        _, heard = send_tap(check, pcm_of(drum.tap(rod, RATE, seed=rod)))
        check.do(kind="reading", step="clear", lap=0, rod=rod, typed=heard["typed"], partials=heard["partials"])
    lap = check.lap(number=0)
    low, high = drum.sounding().pair_hz
    assert lap["pair"]["lower_hz"] == pytest.approx(low, rel=0.002)
    assert lap["pair"]["upper_hz"] == pytest.approx(high, rel=0.002)
    true = drum.true_hz()
    assert [rod["reading"]["hz"] for rod in lap["rods"]] == pytest.approx([true[n] for n in range(1, 7)], rel=0.003)


def test_a_pair_too_near_to_be_told_apart_is_not_told(check: Hands, drum: SimulatedDrum) -> None:
    low, high = drum.sounding().pair_hz
    assert high - low < 1
    for rod in range(1, 7):
        _, heard = send_tap(check, pcm_of(drum.tap(rod, RATE, seed=rod)))
        check.do(kind="reading", step="clear", lap=0, rod=rod, typed=heard["typed"], partials=heard["partials"])
    lap, true = check.lap(number=0), drum.true_hz()
    assert lap["pair"] is None
    assert [rod["reading"]["hz"] for rod in lap["rods"]] == pytest.approx([true[n] for n in range(1, 7)], rel=0.003)


def test_a_simulated_drum_is_in_no_real_workshop_though_the_demo_is_on(check: Hands, settings: Any) -> None:
    settings.DEMO = True
    place = {"step": "clear", "rod": 1, "lap": 0}
    status, answer = check.api("POST", f"/hearing/jobs/{check.job}/simulated", place)
    assert (status, answer["code"]) == (404, "not_demo")
    assert check.look()["simulated"] is False
    assert not HeardTap.objects.exists()


def test_a_viewer_is_not_heard(house: House, check: Hands) -> None:
    looker = Api(house.viewer)
    assert looker("POST", f"/hearing/jobs/{check.job}/simulated", {"step": "clear", "rod": 1, "lap": 0})[0] == 403


def test_a_tap_in_the_middle_is_read_as_the_drums_note_and_helps_the_rods(check: Hands, drum: SimulatedDrum) -> None:
    head = drum.sounding()
    sound = Microphone().hear(head.sound(Tap(0.0, 0.1524, 0.2), RATE, 1.1), RATE, np.random.default_rng(3))
    _, heard = send_tap(check, pcm_of(sound), rod=None)
    assert heard["hz"] == pytest.approx(head.centre_hz, rel=0.004)
    check.do(kind="centre", step="clear", lap=0, typed=heard["typed"])
    assert check.lap(number=0)["centre"]["hz"] == pytest.approx(head.centre_hz, rel=0.004)


@pytest.mark.usefixtures("in_demo")
def test_the_simulated_drum_has_a_middle_and_another_head(check: Hands) -> None:
    """Its other head is wanted much like this one, so both rings are pulled apart; muted, one remains."""
    Drum.objects.update(wanted_resonant_hz=206.0)
    for rod in (1, 2, 3):
        muted = check.api("POST", f"/hearing/jobs/{check.job}/simulated", {"step": "clear", "rod": rod, "lap": 0})[1]
        assert (muted["status"], muted["reason"]) == ("ok", "")
        check.do(kind="reading", step="clear", lap=0, rod=rod, typed=muted["typed"])
    place = {"step": "clear", "rod": 4, "lap": 0, "other_muted": False}
    both = check.api("POST", f"/hearing/jobs/{check.job}/simulated", place)[1]
    assert both["status"] in ("flag", "refuse")
    assert "mute the other head" in both["reason"]
    middle = check.api("POST", f"/hearing/jobs/{check.job}/simulated", {"step": "clear", "lap": 0})[1]
    assert middle["status"] == "ok"
    told = [(tap.rod, tap.other_muted) for tap in HeardTap.objects.order_by("heard_at")]
    assert told == [(1, True), (2, True), (3, True), (4, False), (None, True)]


def read_round(check: Hands, drum: SimulatedDrum, order: list[int]) -> None:
    """Rods 1 to 6 asked for, tapped in this order."""
    for asked, rod in zip(range(1, 7), order, strict=False):
        _, heard = send_tap(check, pcm_of(drum.tap(rod, RATE, seed=asked)), rod=asked)
        check.do(
            kind="reading",
            step="clear",
            lap=0,
            rod=asked,
            typed=heard["typed"],
            partials=heard["partials"],
            tap=heard["id"],
        )


def test_a_doubled_rod_is_spotted_and_put_right_in_one_entry_that_can_be_undone(check: Hands) -> None:
    lopsided = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5, uneven=0.2)
    read_round(check, lopsided, [1, 2, 2, 3, 4, 5])
    told = check.lap(number=0)["tapped"]
    assert "rod 2 was tapped twice" in told["words"]
    assert "Tap rod 6 once more" in told["words"]
    moved = check.do(kind="order", step="clear", lap=0, moves=told["moves"])
    lap = check.lap(number=0)
    assert lap["tapped"] is None
    assert lap["rods"][5]["reading"] is None
    before = [each["hz"] for each in (rod["reading"] for rod in lap["rods"]) if each]
    true = lopsided.true_hz()
    assert before == pytest.approx([true[n] for n in range(1, 6)], rel=0.012)
    check.do(kind="undo", event=moved["id"])
    assert check.lap(number=0)["rods"][5]["reading"]


def test_readings_that_changed_meanwhile_are_not_moved(check: Hands, drum: SimulatedDrum) -> None:
    read_round(check, drum, [1, 2, 3])
    receipt = check.do(kind="order", step="clear", lap=0, moves=[{"rod": 1, "real": 2}])
    assert receipt["standing"] == "refused"
    assert "changed meanwhile" in str(receipt)


def between_two(hz: float, other: float, noise: int = 0) -> np.ndarray:
    """A ring in which neither partial is plainly the pair."""
    random, t = np.random.default_rng(noise), np.arange(RATE) / RATE
    ring = sum(np.exp(-decay * t) * np.sin(2 * np.pi * each * t) for each, decay in ((hz, 7.0), (other, 6.5)))
    tip = 0.5 * random.standard_normal(len(t)) * np.exp(-t / 0.004)
    sound = np.concatenate([np.zeros(6000), 0.2 * ring * (1 - np.exp(-t / 0.0015)) + 0.2 * tip])
    return np.asarray(sound + 2e-4 * random.standard_normal(len(sound)))


def test_a_close_call_tells_the_other_pitch_and_is_settled_by_the_middle(check: Hands) -> None:
    """Before, one of the two was read with nothing said."""
    check.do(kind="target", typed="205")
    low, high = 175.0, 235.0
    _, doubted = send_tap(check, pcm_of(between_two(low, high)))
    assert (doubted["status"], doubted["ask"]) == ("flag", "middle")
    assert sorted([doubted["hz"], doubted["second"]["hz"]]) == pytest.approx([low, high], rel=0.002)
    assert 0.1 < doubted["second"]["chance"] < 0.5
    kept = check.api("GET", f"/hearing/jobs/{check.job}/taps")[1]["taps"][0]
    assert (kept["second_hz"], kept["second_chance"]) == pytest.approx(
        (doubted["second"]["hz"], doubted["second"]["chance"]), rel=0.02
    )
    taken = check.do(kind="reading", step="clear", lap=0, rod=1, typed=doubted["second"]["typed"])
    assert taken["standing"] == "applied"
    check.do(kind="centre", step="clear", lap=0, typed=f"{low:.2f}")
    _, plain = send_tap(check, pcm_of(between_two(low, high, noise=1)))
    assert (plain["status"], plain["ask"], plain["second"]) == ("ok", None, None)
    assert plain["hz"] == pytest.approx(high, rel=0.002)
