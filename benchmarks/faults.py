"""Entries under faults, of all three logs: workers killed, the whole server killed, the database stopped or killed, its disk full, the network cut;
what was sent against what is stored, and what was seen against what is in the record.

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
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

from e2e.support import device as devices
from e2e.support.device import Device
from e2e.support.installation import Cluster, Installation, free_port, wait_ready

ENTRIES = 200
"""Of a device at the bench; on walks and call-outs as many as there are things to say."""
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


@dataclass(frozen=True)
class Log:
    """One log that devices write to: where entries go, what the n-th entry of a device says, and where they are stored."""

    name: str
    path: str
    version: int
    table: str
    says: Callable[[int], dict[str, object]]
    entries: int


class Client(threading.Thread):
    """One device with its outbox."""

    def __init__(self, base: str, log: Log, name: str) -> None:
        super().__init__(daemon=True)
        self.device, self.log, self.name_ = Device(base), log, name
        self.sent: list[str] = []
        self.refused: list[str] = []
        self.tries = 0

    def run(self) -> None:
        for number in range(self.log.entries):
            event = {
                "id": str(uuid.uuid4()), "device": self.name_, "seen": 0, "made_at": datetime.now(UTC).isoformat(), "v": self.log.version,
                "body": self.log.says(number),
            }  # fmt: skip
            self.sent.append(str(event["id"]))
            while not self._answered(event):
                time.sleep(0.1)

    def _answered(self, event: dict[str, object]) -> bool:
        self.tries += 1
        body = {"events": [event], "sent_at": datetime.now(UTC).isoformat()}
        try:
            answer = self.device.call("POST", self.log.path, body)
        except (OSError, urllib.error.URLError, http.client.HTTPException, ValueError):
            return False
        receipt = answer["receipts"][0]
        if receipt["standing"] == "refused":
            self.refused.append(f"{self.log.name}: {receipt['message']}")
        return bool(receipt["standing"] in ("applied", "refused"))


SEEN = ("thread-dry", "thread-gritty", "thread-over-oiled", "rod-bent", "rod-seized", "casing-loose", "insert-loose")
AT_RODS = [(finding, side, rod) for finding in SEEN for side in ("batter", "resonant") for rod in range(1, 7)]
MISSING = [(side, rod) for rod in range(1, 4) for side in ("batter", "resonant")]


def drum(owner: Device, tag: str) -> str:
    """A drum of six rods, of this bench alone."""
    body = {"tag": tag, "name": tag, "kind": "rack-tom", "diameter": "12", "depth": "8", "rods_batter": 6, "rods_resonant": 6, "place": "bench", "owner": "bench"}  # fmt: skip
    owner.call("POST", "/api/register/drums", body)
    return tag


def jobs(owner: Device) -> Iterator[Log]:
    """Two devices a job, notes."""
    for tag in TAGS:
        job = owner.start(tag)
        for each in "ab":
            says = partial(lambda name, n: {"kind": "note", "text": f"{name}:{n}"}, f"{tag}{each}")
            yield Log("bench", f"/api/bench/jobs/{job}/events", 2, "bench_jobevent", says, ENTRIES)


def walks(owner: Device) -> Iterator[Log]:
    """Two devices a walk, of one drum: each says what is at its rods, and again and again that it was looked at."""
    for n in range(2):
        tag = drum(owner, f"WALK-{n}")
        key = str(uuid.uuid4())
        owner.call("POST", "/api/inspect/walks", {"id": key, "tags": [tag]})
        for half in (0, 1):
            mine = [
                {"kind": "seen", "drum": tag, "finding": finding, "degree": 2, "side": side, "rod": rod}
                for finding, side, rod in AT_RODS[half::2]
            ]
            said: list[dict[str, object]] = []
            for each in mine:
                said += [each, {"kind": "looked", "drum": tag}]
            yield Log(
                "walks", f"/api/inspect/walks/{key}/events", 1, "inspecting_walkevent", said.__getitem__, len(said)
            )


def callouts(owner: Device) -> Iterator[Log]:
    """Two devices a call-out, of four drums: what is missing at their rods."""
    for n in range(2):
        tags = [drum(owner, f"CALL-{n}{each}") for each in range(4)]
        kit = owner.call("POST", "/api/kits", {"name": f"kit {n}", "drums": [{"tag": tag} for tag in tags]})["id"]
        key = str(uuid.uuid4())
        owner.call("POST", "/api/callouts", {"id": key, "kit": kit, "minutes": 30})
        every = [{"kind": "ticked", "drum": tag, "finding": "rod-missing", "side": side, "rod": rod} for tag in tags for side, rod in MISSING]  # fmt: skip
        for half in (0, 1):
            said: list[dict[str, object]] = list(every[half::2])
            yield Log(
                "call-outs", f"/api/callouts/{key}/events", 1, "callouts_calloutevent", said.__getitem__, len(said)
            )


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


class SmallDisk:
    """The cluster on a disk of its own that can be filled: a file system in memory, which needs root."""

    def __init__(self, cluster: Cluster) -> None:
        self.cluster, self.data = cluster, Path(cluster.env["RT_PGDATA"])
        self.at = self.data.parent / f"{self.data.name}-disk"
        self.there = os.geteuid() == 0 and self.data.is_dir() and self._move()

    def _move(self) -> bool:
        self.at.mkdir(exist_ok=True)
        if subprocess.run(
            ["mount", "-t", "tmpfs", "-o", "size=400m,mode=755", "tmpfs", str(self.at)], capture_output=True
        ).returncode:
            return False
        self.cluster.stop()
        subprocess.run(["cp", "-a", str(self.data), str(self.at / "pg")], check=True)
        subprocess.run(["rm", "-rf", str(self.data)], check=True)
        self.data.symlink_to(self.at / "pg")
        self.cluster.start()
        return True

    def fill(self, seconds: float) -> None:
        ballast = self.at / "ballast"
        with contextlib.suppress(OSError), ballast.open("wb") as file:
            while True:
                file.write(bytes(65536))
                file.flush()
        time.sleep(seconds)
        ballast.unlink()

    def close(self) -> None:
        if self.there:
            self.data.unlink(missing_ok=True)
            subprocess.run(["umount", str(self.at)], check=False)
        if self.at.is_dir():
            self.at.rmdir()


def started_again(cluster: Cluster) -> None:
    """As `./start` does it: tried until it comes."""
    for _ in range(100):
        with contextlib.suppress(subprocess.CalledProcessError):
            cluster.start()
            return
        time.sleep(0.2)


def faults_on(installation: Installation, line: Line, disk: SmallDisk) -> dict[str, Callable[[], None]]:
    server, cluster = installation.server, installation.cluster

    def kill_worker() -> None:
        assert server.process is not None
        os.kill(random.choice(workers_of(server.process.pid)), signal.SIGKILL)

    def kill_all() -> None:
        server.kill()
        server.start(ready=False)

    def stop_database() -> None:
        cluster.stop()
        time.sleep(OUT_S)
        cluster.start()

    def kill_postmaster() -> None:
        os.kill(int((Path(cluster.env["RT_PGDATA"]) / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)
        time.sleep(OUT_S)
        started_again(cluster)

    def fill_disk() -> None:
        disk.fill(OUT_S)
        started_again(cluster)

    acts = {
        "a worker killed": kill_worker,
        "the whole server killed": kill_all,
        "the database stopped": stop_database,
        "the postmaster killed": kill_postmaster,
        "the network cut": lambda: line.cut(CUT_S),
    }
    return acts | ({"the disk full": fill_disk} if disk.there else {})


class Memory(threading.Thread):
    """The most that any web process held, megabytes."""

    def __init__(self, installation: Installation) -> None:
        super().__init__(daemon=True)
        self.installation, self.most, self.over = installation, 0.0, False

    def run(self) -> None:
        while not self.over:
            process = self.installation.server.process
            for worker in workers_of(process.pid) if process else ():
                with contextlib.suppress(OSError, StopIteration):
                    lines = Path(f"/proc/{worker}/status").read_text().splitlines()
                    self.most = max(
                        self.most, int(next(each for each in lines if each.startswith("VmHWM")).split()[1]) / 1024
                    )
            time.sleep(0.2)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--faults", type=int, default=12, help="how many (12)")
    args = parser.parse_args()
    random.seed(args.seed)
    devices.TRIES = 1  # clients see every error
    installation = Installation("bench")
    disk = SmallDisk(installation.cluster)
    try:
        wait_ready(installation.server.url)
        line = Line(installation.server.port)
        base = f"http://127.0.0.1:{line.port}"
        owner = Device(installation.server.url)
        logs = [*jobs(owner), *walks(owner), *callouts(owner)]
        clients = [Client(base, log, f"d{n}") for n, log in enumerate(logs)]
        acts = faults_on(installation, line, disk)
        order = [name for n in range(args.faults) for name in [list(acts)[n % len(acts)]]]
        random.shuffle(order)
        memory = Memory(installation)
        for each in (memory, *clients):
            each.start()
        back: dict[str, list[float]] = {name: [] for name in acts}
        for name in order:
            time.sleep(random.uniform(0.5, 1.5))
            acts[name]()
            back[name].append(answers_again(installation.server.url))
        for client in clients:
            client.join(timeout=600)
        memory.over = True
        _report(installation, clients, order, back, memory.most, disk.there)
    finally:
        installation.close()
        disk.close()


def _missing(installation: Installation) -> tuple[int, int]:
    """Of what was said to be at a rod: how much there is to be in the record, and how much is not."""
    rows = installation.cluster.rows(
        "select d.tag, f.finding, f.side, f.rod from bench_drumfinding f join register_drum d on d.id = f.drum_id where f.put_right_at is null"
    )
    there = {tuple(row) for row in rows}
    wanted = {(f"WALK-{n}", finding, side, str(rod)) for n in range(2) for finding, side, rod in AT_RODS}
    wanted |= {
        (f"CALL-{n}{each}", "rod-missing", side, str(rod))
        for n in range(2)
        for each in range(4)
        for side, rod in MISSING
    }
    return len(wanted), len(wanted - there)


def _report(
    installation: Installation,
    clients: list[Client],
    order: list[str],
    back: dict[str, list[float]],
    most: float,
    filled: bool,
) -> None:
    print(f"{len(clients)} clients, {len(order)} faults: {', '.join(order)}")
    if not filled:
        print("The disk was not filled: that needs root, and a cluster in this checkout.")
    print(f"{'':28}{'bench':>10}{'walks':>10}{'call-outs':>10}")
    table: dict[str, list[int]] = {}
    for name in ("bench", "walks", "call-outs"):
        mine = [client for client in clients if client.log.name == name]
        rows = installation.cluster.rows(f"select id, seq from {mine[0].log.table}")
        stored, seqs = Counter(key for key, _ in rows), {key: int(seq) for key, seq in rows}
        sent = [key for client in mine for key in client.sent]
        refused = sum(len(client.refused) for client in mine)
        disorder = sum(
            a > b for client in mine for a, b in itertools.pairwise(seqs[key] for key in client.sent if key in seqs)
        )
        for label, figure in (
            ("entries sent", len(sent)), ("tries", sum(client.tries for client in mine)), ("stored once", sum(stored[key] == 1 for key in sent)),
            ("refused", refused), ("lost", sum(stored[key] == 0 for key in sent) - refused), ("doubled", sum(stored[key] > 1 for key in sent)),
            ("out of order", disorder),
        ):  # fmt: skip
            table.setdefault(label, []).append(figure)
    for label, figures in table.items():
        print(f"{label:28}" + "".join(f"{each:10}" for each in figures))
    for said in sorted({each for client in clients for each in client.refused})[:5]:
        print(f"refused: {said}")
    wanted, missing = _missing(installation)
    print(f"{'findings missing':28}{missing:10}   of {wanted} said, in the record")
    print(f"{'memory of a web process':28}{most:10.0f}   MB at most")
    print("\nseconds until it answers again, at most")
    for name, took in back.items():
        print(f"{name:28}{max(took, default=0):8.2f}")


if __name__ == "__main__":
    main()
