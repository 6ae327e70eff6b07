"""What comes in at a running server: a list of 50,000 drums, an archive of 300 MB, archives changed by hand, requests made up from the schema; and the
memory of its web processes.

Of the large list: how long it takes, and what is asked right after it, as ratios to a bare endpoint of the same server in the same run.
"""

from __future__ import annotations

import argparse
import base64
import io
import json
import random
import sys
import time
import uuid
from collections import Counter
from collections.abc import Iterator
from datetime import UTC, datetime
from tempfile import TemporaryFile
from typing import IO, Any

import requests
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode

from benchmarks.bringing import sheet
from benchmarks.faults import Memory
from e2e.support.installation import ROOT, TABLES, Installation

sys.path.insert(0, str(ROOT / "server" / "tests"))
from tampering import photo_of_noise, tampered

DRUMS = 50_000
LARGE = 300_000_000
SIDE = 1_600
PASSWORD = "slack-water-41"
PATIENCE_S = 1_800
RIGHT_AFTER = ("/today", "/register/drums", "/register/drums?search=drum+4711", "/register/choices", "/kits")


class Owner:
    """Of a workshop of their own, signed in."""

    def __init__(self, installation: Installation, name: str) -> None:
        self.base = installation.server.url
        installation.server.env["RT_NEW_PASSWORD"] = PASSWORD
        installation.server.manage("add_workshop", name.title(), "--user", name, "--shown", name.title())
        self.session = requests.Session()
        self.session.get(self.base, timeout=PATIENCE_S)
        answer = self.ask("POST", "/session", json={"username": name, "password": PASSWORD})
        assert answer.status_code < 300, answer.text

    def ask(self, method: str, path: str, sent_as: str = "", **what: Any) -> requests.Response:
        headers = {"X-CSRFToken": self.session.cookies.get("csrftoken", ""), "Referer": self.base}
        headers |= {"Content-Type": sent_as} if sent_as else {}
        return self.session.request(method, f"{self.base}/api{path}", headers=headers, timeout=PATIENCE_S, **what)

    def bring(self, file: IO[bytes], size: int, key: str) -> requests.Response:
        """An archive, piece by piece, then taken."""
        named = {"key": key, "size": size}
        began = self.ask("POST", "/archive/upload", json=named)
        if began.status_code != 200:
            return began
        at, most = began.json()["at"], began.json()["piece"]
        while at < size:
            file.seek(at)
            at = self.ask("PUT", "/archive/upload", params={**named, "at": at}, data=file.read(most)).json()["at"]
        return self.ask("POST", "/archive/upload/take", json=named)


def timed(owner: Owner, path: str) -> float:
    began = time.perf_counter()
    answer = owner.ask("GET", path)
    took = time.perf_counter() - began
    assert answer.status_code == 200, (path, answer.text[:300])
    return took


def long_list(installation: Installation) -> None:
    owner = Owner(installation, "loft")
    began = time.perf_counter()
    answer = owner.ask("POST", "/register/sheet", files={"sheet": ("drums.csv", sheet(DRUMS, "B"))})
    assert answer.status_code == 200, answer.text[:300]
    print(f"{DRUMS} drums by a list: {time.perf_counter() - began:.0f} s, {answer.json()['new']} new")
    first = {path: timed(owner, path) for path in RIGHT_AFTER}
    bare = min(timed(owner, "/bare") for _ in range(20))
    for path, took in first.items():
        again = min(timed(owner, path) for _ in range(5))
        print(
            f"  right after it, GET {path:34} {took:6.2f} s, {took / bare:7.0f} times a bare endpoint; then {again / bare:5.0f}"
        )


def worked_with(installation: Installation) -> str:
    """The archive of a workshop that began as the documented example: a job with a note and a reading, and a photo."""
    owner = Owner(installation, "shed")
    raw = (ROOT / "docs" / "formats" / "archive.example.json").read_bytes()
    assert owner.bring(io.BytesIO(raw), len(raw), "feedc0de").status_code == 200
    tag, job = json.loads(raw)["tables"]["drums"][0]["tag"], str(uuid.uuid4())
    begun = {
        "id": job,
        "tag": tag,
        "work": "settling-check",
        "part": "batter",
        "heads": [{"side": "batter"}],
        "schools": [],
    }
    assert owner.ask("POST", "/bench/jobs", json=begun).status_code == 201
    entries = [
        {
            "id": str(uuid.uuid4()),
            "device": "bench",
            "seen": 0,
            "made_at": datetime.now(UTC).isoformat(),
            "v": 2,
            "body": body,
        }
        for body in (
            {"kind": "note", "text": "looked at"},
            {"kind": "reading", "step": "clear", "lap": 0, "rod": 1, "typed": "92"},
        )
    ]
    assert owner.ask("POST", f"/bench/jobs/{job}/events", json={"events": entries}).status_code == 200
    assert (
        owner.ask(
            "POST",
            "/photos",
            data={"id": str(uuid.uuid4()), "tag": tag, "job_id": job, "taken_at": datetime.now(UTC).isoformat()},
            files={"photo": ("p.jpg", photo_of_noise(64))},
        ).status_code
        < 300
    )
    return owner.ask("GET", "/archive/archive.json").text


def pieces_of_a_large_archive(text: str) -> Iterator[str]:
    """An archive with photos of noise until it is large."""
    whole, jpeg, written = json.loads(text), photo_of_noise(SIDE), 0
    photo = whole["tables"]["photos"].pop()
    photo |= {"jpeg": base64.b64encode(jpeg).decode(), "jpeg_bytes": len(jpeg), "width": SIDE, "height": SIDE}
    head, tail = json.dumps(whole).split('"photos": [')
    yield head + '"photos": ['
    number = 0
    while written < LARGE:
        row = ("," if number else "") + json.dumps(photo | {"id": f"{number:08x}-0000-4000-8000-000000000000"})
        written += len(row)
        number += 1
        yield row
    yield tail


def large_archive(installation: Installation, text: str) -> None:
    owner = Owner(installation, "barn")
    with TemporaryFile() as file:
        for each in pieces_of_a_large_archive(text):
            file.write(each.encode())
        size, began = file.tell(), time.perf_counter()
        answer = owner.bring(file, size, "0123456789")
        assert answer.status_code == 200, answer.text[:300]
        print(
            f"an archive of {size / 1e6:.0f} MB: {time.perf_counter() - began:.0f} s, {answer.json()['rows']['photos']} photos"
        )


def changed_archives(installation: Installation, text: str, count: int) -> None:
    """Each into a workshop that is empty: another takes the place of one that was filled."""
    dice, answers = random.Random(20261202), Counter[int]()
    owner, filled = Owner(installation, "mill-0"), 0
    for number in range(count):
        raw = tampered(text, dice).encode()
        answer = owner.bring(io.BytesIO(raw), len(raw), f"{number:08x}")
        answers[answer.status_code] += 1
        if answer.status_code >= 500:
            print(f"  number {number}: {answer.status_code} {answer.text[:300]}")
        if answer.status_code == 200:
            filled += 1
            owner = Owner(installation, f"mill-{filled}")
    told = ", ".join(f"{many} × {status}" for status, many in sorted(answers.items()))
    print(
        f"{count} archives changed by hand: {told}; server errors: {sum(many for status, many in answers.items() if status >= 500)}"
    )


def made_up_requests(installation: Installation, count: int) -> None:
    """As many of each operation, half of them fitting its schema; as the owner of a workshop of their own."""
    owner, answers = Owner(installation, "yard"), Counter[int]()
    operations = [
        each.ok() for each in schemathesis.openapi.from_path(ROOT / "web" / "openapi.json").get_all_operations()
    ]

    def made_of(operation: Any) -> None:
        @settings(
            max_examples=-(-count // len(operations)),
            deadline=None,
            derandomize=True,
            database=None,
            suppress_health_check=list(HealthCheck),
        )
        @given(st.data())
        def ask(data: st.DataObject) -> None:
            mode = data.draw(st.sampled_from([GenerationMode.POSITIVE, GenerationMode.NEGATIVE]))
            case = data.draw(operation.as_strategy(generation_mode=mode))
            made = requests.Request(**case.as_transport_kwargs(base_url=owner.base)).prepare()
            path = str(made.url).removeprefix(owner.base).removeprefix("/api")
            if path.startswith("/session") or "password" in path:
                return  # signed out, nothing more would be asked
            body = made.body if isinstance(made.body, bytes) else str(made.body or "").encode("utf-8", "surrogatepass")
            answer = owner.ask(
                str(made.method), path, data=body, sent_as=made.headers.get("Content-Type", "application/json")
            )
            answers[answer.status_code] += 1
            if answer.status_code >= 500:
                print(f"  {made.method} {path[:200]}: {answer.status_code} {answer.text[:200]}")

        ask()

    for each in operations:
        made_of(each)
    told = ", ".join(f"{many} × {status}" for status, many in sorted(answers.items()))
    print(
        f"{answers.total()} requests made up: {told}; server errors: {sum(many for status, many in answers.items() if status >= 500)}"
    )


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--archives", type=int, default=100, help="changed by hand (100)")
    parser.add_argument("--requests", type=int, default=2_000, help="made up from the schema (2000)")
    args = parser.parse_args()
    with Installation("bench-doors", TABLES) as installation:
        memory = Memory(installation)
        memory.start()
        try:
            long_list(installation)
            text = worked_with(installation)
            large_archive(installation, text)
            changed_archives(installation, text, args.archives)
            made_up_requests(installation, args.requests)
        finally:
            memory.over = True
        print(f"memory of a web process: {memory.most:.0f} MB at most")


if __name__ == "__main__":
    main()
