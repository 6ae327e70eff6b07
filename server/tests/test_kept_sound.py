"""The sound of taps: kept only of those who agreed, bounded, played back, exported, deleted; and never another workshop's."""

import io
import json
import zipfile

import numpy as np
import pytest
import soundfile
from house import Api, Hands, House, start_body

from apps.hearing import keeping
from apps.hearing.models import HeardTap
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedDrum

RATE = 44_100


@pytest.fixture
def check(api: Api, house: House) -> Hands:
    _, bench = api("POST", "/bench/jobs", start_body(house.drum, work="settling-check"))
    return Hands(api, bench["id"])


def tap(check: Hands, rod: int = 1) -> dict:
    sound = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5).tap(rod, RATE, seed=rod)
    pcm = (np.clip(sound, -1, 1) * 32767).astype("<i2").tobytes()
    url = f"/api/hearing/jobs/{check.job}/tap?step=clear&rate={RATE}&rod={rod}"
    return check.api.client.generic("POST", url, pcm, content_type="application/octet-stream").json()


def heard(check: Hands) -> list[dict]:
    return check.api("GET", f"/hearing/jobs/{check.job}/taps")[1]["taps"]


def agree(check: Hands, keeps: bool = True) -> dict:
    return check.api("PUT", "/hearing/kept", {"keeps_sound": keeps})[1]


def test_nobody_has_agreed_to_begin_with_and_no_sound_is_stored(check: Hands) -> None:
    answer = tap(check)
    assert check.api("GET", "/hearing/kept")[1]["keeps_sound"] is False
    [shown] = heard(check)
    assert shown["has_sound"] is False
    assert HeardTap.objects.get().sound is None
    status, said = check.api("GET", f"/hearing/taps/{answer['id']}/sound")
    assert (status, said["message"]) == (404, "The sound of this tap was not kept.")


def test_what_was_heard_has_its_picture_without_any_sound_being_kept(check: Hands) -> None:
    tap(check, rod=4)
    [shown] = heard(check)
    assert (shown["rod"], shown["status"]) == (4, "ok")
    rings, cents = shown["picture"]["ring_db"], shown["picture"]["cents"]
    assert len(rings) == len(cents) > 30
    assert max(rings) == 0
    assert rings[30] < rings[5] - 6
    assert abs([each for each in cents if each is not None][5]) < 5


def test_kept_sound_plays_back_as_it_was_but_never_louder_than_half(check: Hands) -> None:
    agree(check)
    answer = tap(check)
    reply = check.api.client.get(f"/api/hearing/taps/{answer['id']}/sound")
    samples, rate = soundfile.read(io.BytesIO(reply.content))
    sent = SimulatedDrum(RodLayout(6), 205.0, 0.1524, seed=5).tap(1, RATE, seed=1)
    assert rate == RATE
    assert np.abs(samples).max() <= 0.5001
    assert np.corrcoef(samples, sent[: len(samples)])[0, 1] > 0.999


def test_export_holds_every_kept_tap_as_wav_and_all_that_was_heard_as_json(check: Hands) -> None:
    tap(check, rod=1)
    agree(check)
    tap(check, rod=2)
    reply = check.api.client.get(f"/api/hearing/jobs/{check.job}/export")
    packed = zipfile.ZipFile(io.BytesIO(reply.content))
    assert sorted(packed.namelist()) == ["002-rod-2.wav", "taps.json"]
    said = json.loads(packed.read("taps.json"))
    assert [(each["rod"], each["file"]) for each in said["taps"]] == [(1, None), (2, "002-rod-2.wav")]
    assert said["drum"] == "WR-001"
    assert soundfile.info(io.BytesIO(packed.read("002-rod-2.wav"))).samplerate == RATE


def test_a_workshops_sound_is_bounded_and_the_oldest_goes_first(check: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    agree(check)
    first = tap(check, rod=1)
    size = HeardTap.objects.get().sound_bytes
    monkeypatch.setattr(keeping, "MOST_BYTES", int(2.5 * size))
    for rod in (2, 3):
        tap(check, rod)
    kept = {str(each.id): each.sound_bytes > 0 for each in HeardTap.objects.all()}
    assert kept.pop(first["id"]) is False
    assert all(kept.values())


def test_ones_own_sound_is_deleted_by_tap_by_job_and_all_at_once_and_the_readings_stay(check: Hands) -> None:
    agree(check)
    one, two, three = (tap(check, rod) for rod in (1, 2, 3))
    assert check.api("DELETE", f"/hearing/taps/{one['id']}/sound")[0] == 204
    assert [each["has_sound"] for each in heard(check)] == [False, True, True]
    assert check.api("DELETE", f"/hearing/jobs/{check.job}/sounds")[1]["taps"] == 0
    assert [each["hz"] for each in heard(check)] == [one["hz"], two["hz"], three["hz"]]
    tap(check)
    assert check.api("DELETE", "/hearing/kept")[1] == agree(check) | {"taps": 0, "bytes": 0}


def test_nobody_deletes_anothers_sound_and_a_viewer_may_only_listen(check: Hands, house: House) -> None:
    agree(check)
    answer = tap(check)
    looker = Api(house.viewer)
    assert looker("GET", f"/hearing/jobs/{check.job}/taps")[0] == 200
    assert looker("DELETE", f"/hearing/taps/{answer['id']}/sound")[0] == 403
    house.viewer.role = "technician"
    house.viewer.save()
    status, said = looker("DELETE", f"/hearing/taps/{answer['id']}/sound")
    assert (status, said["code"]) == (403, "not_yours")
    assert looker("DELETE", "/hearing/kept")[0] == 200
    house.enter()
    assert heard(check)[0]["has_sound"]


def test_another_workshop_hears_nothing_of_it(check: Hands, house: House, other: House) -> None:
    agree(check)
    answer = tap(check)
    stranger = Api(other.technician)
    assert stranger("GET", f"/hearing/jobs/{check.job}/taps")[0] == 404
    assert stranger("GET", f"/hearing/taps/{answer['id']}/sound")[0] == 404
    assert stranger("DELETE", f"/hearing/taps/{answer['id']}/sound")[0] == 404


def test_no_longer_agreeing_keeps_nothing_further(check: Hands) -> None:
    agree(check)
    tap(check)
    assert agree(check, keeps=False)["taps"] == 1
    tap(check)
    assert [each["has_sound"] for each in heard(check)] == [True, False]
