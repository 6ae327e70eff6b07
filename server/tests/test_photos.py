"""Photos: made small and upright, without where they were taken, bounded before anything is decoded, and within the workshop."""

from __future__ import annotations

import io
import struct
import subprocess
import sys
import uuid
import zlib
from typing import Any

import pytest
from house import Api, Hands, House, make_drum
from photographed import picture, send
from PIL import Image

from apps.photos import flows
from apps.photos.models import Photo
from apps.photos.pictures import LONGEST_SIDE, MOST_BYTES_IN

ORIENTATION, GPS = 0x0112, 0x8825  # Exif 2.32, tables 4 and 15 (from memory)


def with_exif() -> bytes:
    exif = Image.Exif()
    exif[ORIENTATION] = 6  # to be turned a quarter clockwise
    exif.get_ifd(GPS).update({1: "N", 2: (50.0, 1.0, 2.0), 3: "E", 4: (4.0, 1.0, 2.0)})
    return picture(exif=exif, comment=b"the back door is open")


def png_of(width: int, height: int) -> bytes:
    """A PNG that says it is this big; its data is a few bytes (W3C PNG, section 11.2)."""

    def chunk(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    header = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    rows = zlib.compress(b"\0" * 1_000_000)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", header) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


def test_a_photo_is_kept_upright_and_without_where_it_was_taken(api: Api, hands: Hands, house: House) -> None:
    status, said = send(api, house.drum.tag, with_exif(), hands.job)
    assert (status, said["width"], said["height"]) == (200, 200, 400)
    answer = api.client.get(f"/api/photos/{said['id']}")
    assert (answer["Content-Type"], answer["Cache-Control"].split(",")[0]) == ("image/jpeg", "private")
    kept = Image.open(io.BytesIO(answer.content))
    assert (len(kept.getexif()), kept.info.get("comment")) == (0, None)
    assert b"back door" not in answer.content
    top, bottom = kept.convert("RGB").getpixel((100, 20)), kept.convert("RGB").getpixel((100, 380))
    assert top[0] > 200 > 60 > top[2]  # the red half, which was on the left, is on top
    assert bottom[2] > 200 > 60 > bottom[0]


@pytest.mark.parametrize(("form", "name"), [("JPEG", "a.jpg"), ("PNG", "a.png"), ("WEBP", "a.jpg")])
def test_a_large_one_of_any_kind_is_made_smaller(api: Api, house: House, form: str, name: str) -> None:
    status, said = send(api, house.drum.tag, picture((4000, 3000), form), name=name)
    assert (status, said["width"], said["height"]) == (200, LONGEST_SIDE, 1200)
    assert Photo.objects.get().jpeg_bytes < 100_000


@pytest.mark.parametrize(
    ("data", "status", "code"),
    [
        (b"Dear drum, this is a text.", 422, "no_photo"),
        (picture()[:300], 422, "no_photo"),
        (b"", 422, "no_photo"),
        (b"\xff\xd8\xff\xe0" + b"\0" * 2000, 422, "no_photo"),
        (picture(form="GIF"), 422, "no_photo"),
        (png_of(60_000, 60_000), 413, "photo_too_big"),
        (png_of(4000, 4000), 422, "no_photo"),
        (b"\0" * (MOST_BYTES_IN + 1), 413, "photo_too_big"),
    ],
    ids=["text", "cut off", "nothing", "a head only", "another kind", "a bomb", "less than it says", "too long"],
)
def test_what_is_no_photo_is_refused_in_words(api: Api, house: House, data: bytes, status: int, code: str) -> None:
    got, said = send(api, house.drum.tag, data)
    assert (got, said["code"]) == (status, code)
    assert not Photo.objects.exists()


def test_the_worst_that_is_taken_needs_a_bounded_memory(tmp_path: Any) -> None:
    """The largest JPEG, and the largest PNG: the process stays below 250 MB with all it has loaded."""
    script = (
        "import pathlib, re, sys\n"
        "from apps.photos.pictures import take_in\n"
        "take_in(open(sys.argv[1], 'rb'), 1)\n"
        "print(int(re.search(r'VmHWM:\\s+(\\d+)', pathlib.Path('/proc/self/status').read_text())[1]) // 1024)\n"
    )
    for form, size in (("JPEG", (10_000, 8_000)), ("PNG", (5_000, 5_000))):
        file = tmp_path / form
        file.write_bytes(picture(size, form))
        ran = subprocess.run([sys.executable, "-c", script, str(file)], capture_output=True, text=True, check=True)
        assert int(ran.stdout) < 250, form


def test_one_sent_twice_is_kept_once(api: Api, house: House, hands: Hands) -> None:
    key = uuid.uuid4()
    first, second = (send(api, house.drum.tag, picture(), hands.job, key) for _ in range(2))
    assert first == second
    assert Photo.objects.count() == 1
    assert [each["id"] for each in api("GET", f"/photos/job/{hands.job}")[1]] == [str(key)]
    assert [each["id"] for each in api("GET", f"/photos/drum/{house.drum.tag}")[1]] == [str(key)]


def test_nobody_else_sees_or_takes_away(api: Api, house: House, other: House) -> None:
    _, said = send(api, house.drum.tag, picture())
    stranger = Api(other.technician)
    assert stranger.client.get(f"/api/photos/{said['id']}").status_code == 404
    assert stranger("DELETE", f"/photos/{said['id']}")[0] == 404
    looking = Api(house.viewer)
    assert looking.client.get(f"/api/photos/{said['id']}").status_code == 200
    assert looking("DELETE", f"/photos/{said['id']}")[0] == 403
    assert send(looking, house.drum.tag, picture())[0] == 403
    assert Api(None).client.get(f"/api/photos/{said['id']}").status_code == 401
    assert api("DELETE", f"/photos/{said['id']}")[0] == 204


def test_a_photo_goes_to_the_drum_its_job_is_about(api: Api, house: House, hands: Hands, other: House) -> None:
    make_drum(house.workshop, "WR-002")
    assert send(api, "WR-002", picture(), hands.job)[1]["code"] == "other_drum"
    assert send(api, "NO-999", picture())[0] == 404


def test_bounds_are_said(api: Api, house: House, hands: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(flows, "MOST_A_JOB", 1)
    assert send(api, house.drum.tag, picture(), hands.job)[0] == 200
    assert send(api, house.drum.tag, picture(), hands.job)[1]["code"] == "photos_full"
    monkeypatch.setattr(flows, "MOST_BYTES", 10)
    assert send(api, house.drum.tag, picture())[1]["code"] == "photos_full"
