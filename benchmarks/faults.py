"""Entries under faults: workers killed, the whole server killed, the database stopped, the network cut; what was sent against what is stored.

Bounded, and the same faults in the same order for the same seed. Clients do as the app's outbox does: an entry is sent until it is answered.
"""

from __future__ import annotations

import argparse
import asyncio
import contextlib
import http.client
import itertools
import os
import random
import signal
import subprocess
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from collections.abc import Callable
from datetime import UTC, datetime

from e2e.support import device as devices
from e2e.support.device import Device
from e2e.support.installation import Installation, free_port

CLIENTS, ENTRIES = 8, 200
TAGS = ("MQ-052", "MQ-053", "MQ-054", "MQ-061")
CUT_S, OUT_S = 2.0, 3.0


class Line:
    """The network between clients and server: bytes go through, or the line is cut."""

    def __init__(self, to: int) -> None:
        self.to, self.port, self.up = to, free_port(), True
        self.open: set[asyncio.StreamWriter] = set()
        self.loop = asyncio.new_event_loop()
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self) -> None:
        asyncio.set_event_loop(self.loop)
        self.loop.run_until_complete(asyncio.start_server(self._connect, "127.0.0.1", self.port))
        self.loop.run_forever()

    async def _connect(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        if not self.up:
            writer.close()
            return
        try:
            far_reader, far_writer = await asyncio.open_connection("127.0.0.1", self.to)
        except OSError:
            writer.close()
            return
        self.open |= {writer, far_writer}
        await asyncio.gather(self._pass(reader, far_writer), self._pass(far_reader, writer))
        self.open -= {writer, far_writer}

    async def _pass(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        with contextlib.suppress(OSError, asyncio.IncompleteReadError):
            while data := await reader.read(65536):
                writer.write(data)
                await writer.drain()
        writer.close()

    def cut(self, seconds: float) -> None:
        """In the middle of whatever is being said."""
        self.up = False
        for writer in list(self.open):
            self.loop.call_soon_threadsafe(writer.transport.abort)
        time.sleep(seconds)
        self.up = True


class Client(threading.Thread):
    """One device with its outbox."""

    def __init__(self, base: str, job: str, name: str) -> None:
        super().__init__(daemon=True)
        self.device, self.job, self.name_ = Device(base), job, name
        self.sent: list[str] = []
        self.tries = 0

    def run(self) -> None:
        for number in range(ENTRIES):
            event = {
                "id": str(uuid.uuid4()), "device": self.name_, "seen": 0, "made_at": datetime.now(UTC).isoformat(), "v": 2,
                "body": {"kind": "note", "text": f"{self.name_}:{number}"},
            }  # fmt: skip
            self.sent.append(str(event["id"]))
            while not self._answered(event):
                time.sleep(0.1)

    def _answered(self, event: dict[str, object]) -> bool:
        self.tries += 1
        try:
            answer = self.device.call("POST", f"/api/bench/jobs/{self.job}/events", {"events": [event]})
        except (OSError, urllib.error.URLError, http.client.HTTPException, ValueError):
            return False
        return bool(answer["receipts"][0]["standing"] == "applied")


def answers_again(base: str) -> float:
    """Seconds until the server and its database answer."""
    began = time.monotonic()
    while time.monotonic() - began < 60:
        with contextlib.suppress(OSError), urllib.request.urlopen(f"{base}/readyz", timeout=2):
            return time.monotonic() - began
        time.sleep(0.02)
    return float("inf")


def workers_of(master: int) -> list[int]:
    found = subprocess.run(["pgrep", "-P", str(master)], capture_output=True, text=True)
    return [int(each) for each in found.stdout.split()]


def faults_on(installation: Installation, line: Line) -> dict[str, Callable[[], None]]:
    server, cluster = installation.server, installation.cluster

    def kill_worker() -> None:
        assert server.process is not None
        os.kill(random.choice(workers_of(server.process.pid)), signal.SIGKILL)

    def kill_all() -> None:
        server.kill()
        server.start()

    def stop_database() -> None:
        cluster.stop()
        time.sleep(OUT_S)
        cluster.start()

    return {
        "a worker killed": kill_worker,
        "the whole server killed": kill_all,
        "the database stopped": stop_database,
        "the network cut": lambda: line.cut(CUT_S),
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--faults", type=int, default=10, help="how many (10)")
    args = parser.parse_args()
    random.seed(args.seed)
    devices.TRIES = 1  # clients see every error
    installation = Installation("bench")
    try:
        line = Line(installation.server.port)
        base = f"http://127.0.0.1:{line.port}"
        jobs = [Device(installation.server.url).start(tag) for tag in TAGS]
        clients = [Client(base, jobs[n % len(jobs)], f"d{n}") for n in range(CLIENTS)]
        acts = faults_on(installation, line)
        order = [name for n in range(args.faults) for name in [list(acts)[n % len(acts)]]]
        random.shuffle(order)
        for client in clients:
            client.start()
        back: dict[str, list[float]] = {name: [] for name in acts}
        for name in order:
            time.sleep(random.uniform(0.5, 1.5))
            acts[name]()
            back[name].append(answers_again(installation.server.url))
        for client in clients:
            client.join(timeout=300)
        _report(installation, clients, order, back)
    finally:
        installation.close()


def _report(installation: Installation, clients: list[Client], order: list[str], back: dict[str, list[float]]) -> None:
    rows = installation.cluster.rows(
        "select id, job_id, body->>'text' from bench_jobevent where kind = 'note' order by job_id, seq"
    )
    sent = [key for client in clients for key in client.sent]
    stored = Counter(key for key, _, _ in rows)
    numbers: dict[str, list[int]] = {}
    mine = set(sent)
    for text in (text for key, _, text in rows if key in mine):
        name, _, number = text.partition(":")
        numbers.setdefault(name, []).append(int(number))
    out_of_order = sum(a > b for each in numbers.values() for a, b in itertools.pairwise(each))
    print(f"{len(clients)} clients x {ENTRIES} entries, {len(order)} faults: {', '.join(order)}")
    print(f"{'entries sent':28}{len(sent):8}   in {sum(client.tries for client in clients)} tries")
    print(f"{'stored once':28}{sum(stored[key] == 1 for key in sent):8}")
    print(f"{'lost':28}{sum(stored[key] == 0 for key in sent):8}")
    print(f"{'doubled':28}{sum(stored[key] > 1 for key in sent):8}")
    print(f"{'out of order':28}{out_of_order:8}")
    print("\nseconds until it answers again, at most")
    for name, took in back.items():
        print(f"{name:28}{max(took, default=0):8.2f}")


if __name__ == "__main__":
    main()
