"""A whole installation of its own for browser tests and screenshots: database cluster, demo, web server.

Nothing here touches the cluster or the data that `./start` serves.
"""

from __future__ import annotations

import contextlib
import fcntl
import functools
import hashlib
import os
import random
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator, Mapping
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]


def free_port() -> int:
    """One nobody listens on, below those the system gives to who connects: there a client could be connected with itself."""
    for port in random.sample(range(20_000, 30_000), 200):
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
    raise RuntimeError("No free port between 20000 and 29999.")


READY_S = 150.0


def wait_ready(url: str, otherwise: str = "") -> None:
    """Until the server answers, and its database too. A whole `./start` loads the demo first, which a busy machine takes long over."""
    end = time.monotonic() + READY_S
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(f"{url}/readyz", timeout=5):
                return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError(f"The server at {url} did not become ready. {otherwise}")


class Cluster:
    """A PostgreSQL cluster made by tools/pg, that can be stopped and started under the server's feet."""

    def __init__(self, name: str) -> None:
        self.env = {**os.environ, "RT_PGDATA": str(ROOT / ".data" / f"pg-{name}"), "RT_PGPORT": str(free_port())}
        self.env.pop("RT_DATABASE_URL", None)

    def _pg(self, *words: str) -> str:
        command = [str(ROOT / "tools" / "pg"), *words]
        return subprocess.run(command, env=self.env, check=True, stdout=subprocess.PIPE, text=True).stdout.strip()

    def start(self, like: str = "") -> None:
        """Up again; or for the first time, `like` another that is stopped."""
        if like:
            self._pg("copy-of", f"pg-{like}")
        self._pg("start")

    def stop(self) -> None:
        self._pg("stop")

    def destroy(self) -> None:
        self._pg("destroy")

    @property
    def url(self) -> str:
        return self._pg("url")

    @property
    def admin_url(self) -> str:
        return self._pg("url", "admin")

    @property
    def backup_url(self) -> str:
        return self._pg("url", "backup")

    def rows(self, sql: str, autocommit: bool = False) -> list[list[str]]:
        """What is stored, read as the cluster's superuser, past every row rule."""
        import psycopg

        with psycopg.connect(self.admin_url, autocommit=autocommit) as connection:
            answer = connection.execute(sql)
            return [[str(value) for value in row] for row in answer] if answer.description else []


class Server:
    """Production web processes on one port."""

    def __init__(self, database_url: str, workers: int = 2, extra: Mapping[str, str] | None = None) -> None:
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.workers = workers
        self.env = {
            **os.environ,
            "RT_DATABASE_URL": database_url,
            "RT_SECRET_KEY": "browser-tests",
            "RT_DEMO": "1",
            **(extra or {}),
        }
        self.process: subprocess.Popen[bytes] | None = None
        self.log = ROOT / ".data" / f"server-{self.port}.log"

    def manage(self, *words: str) -> None:
        subprocess.run([sys.executable, str(ROOT / "server" / "manage.py"), *words], env=self.env, check=True)

    def printed(self, *words: str) -> str:
        """What a command says."""
        command = [sys.executable, str(ROOT / "server" / "manage.py"), *words]
        return subprocess.run(command, env=self.env, check=True, stdout=subprocess.PIPE, text=True).stdout.strip()

    def start(self, ready: bool = True) -> None:
        command = [
            str(Path(sys.executable).parent / "gunicorn"), "--chdir", str(ROOT / "server"), "--bind", f"127.0.0.1:{self.port}",
            "--config", str(ROOT / "server" / "config" / "serving.py"), "--workers", str(self.workers),
        ]  # fmt: skip
        self.process = subprocess.Popen(command, env=self.env, stderr=self.log.open("ab"), start_new_session=True)
        if ready:
            wait_ready(self.url, f"its log is {self.log}")

    def kill(self) -> None:
        """A full stop: every web process dies at once, whatever it is doing."""
        assert self.process is not None
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        if self.process is None or self.process.poll() is not None:
            return
        os.killpg(self.process.pid, signal.SIGTERM)
        self.process.wait(timeout=20)
        self.log.unlink(missing_ok=True)


TABLES = (("migrate", "--skip-checks"),)
DEMO = (*TABLES, ("load_demo", "--unasked"))
"""What fills an empty database, as `./start --no-demo` and a plain `./start` do it."""


@contextlib.contextmanager
def in_turn() -> Iterator[None]:
    """Journeys run in two lanes: while one makes or copies what is prepared, the other waits."""
    with (ROOT / ".data" / "prepared.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        yield


@functools.cache
def prepared(*steps: tuple[str, ...]) -> str:
    """The name of a stopped cluster in which these commands have run, to be copied in the same turn: made once for the code as it is now, today."""
    name = "prepared-" + hashlib.sha256(repr(steps).encode()).hexdigest()[:8]
    cluster, stamp = Cluster(name), ROOT / ".data" / "stamps" / name
    code = [*(ROOT / "server").rglob("*.py"), *(ROOT / "core" / "src").rglob("*.py"), ROOT / "tools" / "pg"]
    mark = hashlib.sha256(time.strftime("%F %H").encode())  # the demo is told from now
    for path in sorted(code):
        mark.update(path.read_bytes())
    if stamp.exists() and stamp.read_text() == mark.hexdigest():
        return name
    cluster.destroy()
    stamp.unlink(missing_ok=True)
    cluster.start(like=prepared(*steps[:-1]) if len(steps) > 1 else "")
    server = Server(cluster.url)
    server.manage(*steps[-1], "--verbosity", "0")
    cluster.stop()
    stamp.write_text(mark.hexdigest())
    return name


class Installation:
    """Cluster and server together, with the demo in it or after other `steps`; a context that takes itself down."""

    def __init__(self, name: str, steps: tuple[tuple[str, ...], ...] = DEMO, workers: int = 2) -> None:
        self.cluster = Cluster(name)
        with in_turn():
            self.cluster.start(like=prepared(*steps))
        try:
            self.server = Server(self.cluster.url, workers)
            self.server.start()
        except BaseException:  # what is half made is taken down again, or the next one could not begin
            self.cluster.destroy()
            raise

    @property
    def named_url(self) -> str:
        """By a name: browsers give passkeys to nothing else."""
        return self.server.url.replace("127.0.0.1", "localhost")

    def close(self) -> None:
        self.server.stop()
        self.cluster.destroy()

    def __enter__(self) -> Installation:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()
