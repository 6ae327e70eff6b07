"""Slow senders, too many connections, a database that is gone: others are answered, and all comes back by itself."""

from __future__ import annotations

import contextlib
import socket
import time
import urllib.error
import urllib.request
from collections.abc import Iterator

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
