"""Slow senders, too many connections, a database that is gone: others are answered, and all comes back by itself."""

from __future__ import annotations

import contextlib
import json
import socket
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor

import psycopg
import pytest

from e2e.support.device import Device
from e2e.support.installation import Installation, Server

SLOW = (
    b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 1000\r\n\r\n{"
)
HEADERS_ONLY = b"GET /api/today HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "


@pytest.fixture(scope="module")
def server(installation: Installation) -> Iterator[Server]:
    made = Server(installation.cluster.url)
    made.start()
    yield made
    made.stop()


def opened(server: Server, said: bytes, count: int) -> list[socket.socket]:
    sockets = [socket.create_connection(("127.0.0.1", server.port), timeout=5) for _ in range(count)]
    for each in sockets:
        each.sendall(said)
    return sockets


def took(device: Device, path: str) -> float:
    began = time.monotonic()
    device.call("GET", path)
    return time.monotonic() - began


@pytest.mark.parametrize("said", [SLOW, HEADERS_ONLY, b""], ids=["bodies", "headers", "silence"])
def test_sixty_slow_senders_hold_up_nobody(server: Server, said: bytes) -> None:
    """Before, eight of them took every thread there was."""
    device = Device(server.url)
    device.call("GET", "/api/today")
    sockets = opened(server, said, 60)
    try:
        for path in ("/api/today", "/healthz", "/api/register/drums"):
            assert took(device, path) < 5  # they would hang till the senders give up, which is never
    finally:
        for each in sockets:
            each.close()


def test_one_address_cannot_take_every_connection(server: Server) -> None:
    sockets = opened(server, b"", 500)
    try:
        closed = 0
        for each in sockets:
            each.settimeout(0.01)
            with contextlib.suppress(TimeoutError):
                closed += each.recv(1) == b""
        assert closed >= 50
    finally:
        for each in sockets:
            each.close()
    assert took(Device(server.url), "/healthz") < 5


def test_a_connection_goes_on_after_a_body_nobody_read(server: Server) -> None:
    """A refused request's body must not be taken for the next request."""
    with socket.create_connection(("127.0.0.1", server.port), timeout=10) as line:
        body = b"GET /smuggled HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n" * 40
        head = f"POST /api/today HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: text/plain\r\nContent-Length: {len(body)}\r\n\r\n"
        line.sendall(head.encode() + body)
        said = b""
        while not said.endswith(b"}"):
            said += line.recv(65536)
        assert said.startswith(b"HTTP/1.1 405")
        line.sendall(b"GET /healthz HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n")
        rest = b"".join(iter(lambda: line.recv(65536), b""))
    assert rest.count(b"HTTP/1.1 ") == 1
    assert rest.endswith(b'{"ok": true}')


@pytest.mark.parametrize(
    ("said", "status"),
    [
        (b"GET /" + b"a" * 60_000 + b" HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n", 431),
        (b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: " + b"a" * 60_000 + b"\r\n\r\n", 431),
        (b"POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 99999999999\r\n\r\n", 413),
        (b"POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: x\r\n\r\n", 400),
        (b"POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nTransfer-Encoding: odd\r\n\r\n", 501),
        (b"GET / HTTP/1.1\r\nHost: elsewhere.example\r\n\r\n", 400),
    ],
    ids=["address", "headers", "body", "length", "coding", "host"],
)
def test_what_the_door_refuses_is_refused_in_the_one_shape(server: Server, said: bytes, status: int) -> None:
    with socket.create_connection(("127.0.0.1", server.port), timeout=10) as line:
        line.sendall(said)
        answer = line.recv(65536)
        if not answer.endswith(b"}"):
            answer += line.recv(65536)
    assert f" {status} ".encode() in answer.split(b"\r\n")[0]
    assert b'"code"' in answer
    assert b'"kept"' in answer


def test_health_never_waits_for_the_database_and_all_is_well_two_seconds_after_it_is_back(
    installation: Installation, server: Server
) -> None:
    device = Device(server.url)
    installation.cluster.stop()
    try:
        for _ in range(3):
            assert took(device, "/healthz") < 1
            with pytest.raises(urllib.error.HTTPError) as down:
                device.opener.open(f"{server.url}/api/today", timeout=4)
            assert down.value.code == 503
    finally:
        installation.cluster.start()
    back, waited = time.monotonic(), 0.0
    while waited < 20:
        with contextlib.suppress(urllib.error.HTTPError):
            device.opener.open(f"{server.url}/api/today", timeout=10)
            break
        waited = time.monotonic() - back
    print(f"answered again after {waited:.2f} s")
    assert waited < 2


@pytest.fixture
def impatient(installation: Installation) -> Iterator[Server]:
    made = Server(installation.cluster.url, workers=1, extra={"RT_STATEMENT_S": "2"})
    made.start()
    yield made
    made.stop()


def refused_within(device: Device, seconds: float, tag: str) -> None:
    body = {"id": str(uuid.uuid4()), "tag": tag, "work": "settling-check", "part": "batter"}
    began = time.monotonic()
    token = next(str(each.value) for each in device.jar if each.name == "csrftoken")
    asked = urllib.request.Request(
        f"{device.base}/api/bench/jobs",
        json.dumps(body).encode(),
        {"Content-Type": "application/json", "X-CSRFToken": token},
    )
    with pytest.raises(urllib.error.HTTPError) as refused:
        device.opener.open(asked, timeout=30)
    assert refused.value.code == 503
    assert time.monotonic() - began < seconds


def test_a_lock_that_somebody_holds_is_not_waited_for_without_end(
    installation: Installation, impatient: Server
) -> None:
    device = Device(impatient.url)
    with psycopg.connect(installation.cluster.admin_url) as holder:
        holder.execute("select 1 from register_drum where tag = 'MQ-064' for update")
        refused_within(device, 20, "MQ-064")
        assert took(device, "/api/today") < 5


def test_a_statement_that_does_not_end_is_broken_off(installation: Installation, impatient: Server) -> None:
    """One that takes a minute, made by a trigger on the drum it is about."""
    cluster = installation.cluster
    (drum,) = cluster.rows("select id from register_drum where tag = 'MQ-064'")[0]
    cluster.rows(
        "create function dawdle() returns trigger language plpgsql as $$ begin perform pg_sleep(60); return new; end $$;"
        f"create trigger dawdle before insert on bench_job for each row when (new.drum_id = {drum}) execute function dawdle()"
    )
    try:
        refused_within(Device(impatient.url), 20, "MQ-064")
    finally:
        cluster.rows("drop function dawdle cascade")


def test_one_job_started_eight_times_at_once_is_one_job(server: Server, installation: Installation) -> None:
    """A device whose answers were lost asks again, on several connections: before, seven of eight were refused."""
    body = {"id": str(uuid.uuid4()), "tag": "MQ-069", "work": "settling-check", "part": "batter"}
    devices = [Device(server.url) for _ in range(8)]
    together = threading.Barrier(8)

    def start(device: Device) -> tuple[str, int]:
        together.wait()
        job = device.call("POST", "/api/bench/jobs", body)
        return job["id"], job["last_seq"]

    with ThreadPoolExecutor(8) as hands:
        answers = list(hands.map(start, devices))
    assert answers == [answers[0]] * 8
    assert answers[0][0] == body["id"]
    assert installation.cluster.rows(
        "select count(*) from bench_job j join register_drum d on d.id = drum_id where tag = 'MQ-069' and j.state = 'open'"
    ) == [["1"]]


@pytest.mark.parametrize(
    "line", [b"GET /caf\xe9", "GET /café".encode(), b"GET /api/register/drums/\xff\xfe", "GÉT /x".encode(), b"GET /x?\xe9=1"]
)  # fmt: skip
def test_a_first_line_nobody_can_read_is_answered(server: Server, line: bytes) -> None:
    """Sent raw, not as browsers write it: the connection was closed without a word."""
    with socket.create_connection(("127.0.0.1", server.port), timeout=10) as asked:
        asked.sendall(line + b" HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n")
        answer = b"".join(iter(lambda: asked.recv(4096), b""))
    head, _, body = answer.partition(b"\r\n\r\n")
    assert head.split()[1] == b"400"
    assert json.loads(body)["code"] == "bad_request"
