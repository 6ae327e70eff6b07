"""p50 and p95 of the busiest endpoints, as ratios to a bare endpoint of the same server in the same run."""

from __future__ import annotations

import http.client
import json
import random
import statistics
import time
import uuid
from collections.abc import Callable
from datetime import UTC, datetime

from e2e.support.installation import Installation

DRUMS = 20_000
ROUNDS = 300
WARM_UP = 40


class Client:
    """One kept-alive connection with a session."""

    def __init__(self, port: int) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", port)
        self.cookies: dict[str, str] = {}
        self.call("GET", "/")
        self.call("POST", "/api/session", {"username": "ines", "password": "slack-water-41"})

    def call(self, method: str, path: str, body: object = None) -> bytes:
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), "Content-Type": "application/json"}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        self.connection.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.connection.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        text = answer.read()
        assert answer.status < 300, text[:300]
        return text


def fill(installation: Installation) -> None:
    """Drums up to 20,000, in the demo's workshop, with heads, checks and history: a tenth is owed a new head, a fiftieth a check."""
    installation.cluster.rows(
        f"""insert into register_drum (workshop_id, tag, name, kind, diameter_m, depth_m, shell, rods_batter, rods_resonant, lost_batter,
        lost_resonant, bed_rods, port_rods, thread, hoops, snare_bed, badge, place_id, owner_id, state, note, kept, search)
        select d.workshop_id, 'B-' || lpad(n::text, 6, '0'), 'Drum ' || n, (array['snare','rack-tom','floor-tom','bass'])[1 + n % 4],
        0.3, 0.2, 'birch', 8, 8, '{{}}', '{{}}', '{{}}', '{{}}', 'M6', 'die-cast', false, 'between', d.place_id, d.owner_id, 'in', '', '{{}}', lower('B-' || n || ' drum ' || n)
        from generate_series(1, {DRUMS} - (select count(*) from register_drum)) n, (select * from register_drum order by tag limit 1) d
        returning 1"""
    )
    # Both heads of every drum, one changed before; a tenth of the batter heads past their life.
    installation.cluster.rows(
        """insert into heads_fitting (workshop_id, drum_id, side, head, fitted_at, fitted_by_name, retired_at, retired_because)
        select d.workshop_id, d.id, side, 'single 10 coated',
        now() - case when before then interval '50 months' when side = 'batter' and d.id % 10 = 0 then interval '14 months' + interval '1 day' * (d.id % 400)
                     else interval '1 day' * (10 + d.id % 300) end,
        'Ines Calloway', case when before then now() - interval '30 months' end, ''
        from register_drum d, unnest(array['batter', 'resonant']) side, unnest(array[true, false]) before where d.tag like 'B-%' returning 1"""
    )
    # A check done and one to come on every drum, some of them overdue; and twenty lines of history.
    installation.cluster.rows(
        """insert into followups_followup (workshop_id, drum_id, side, due_at, why, done_at)
        select d.workshop_id, d.id, 'batter', now() + interval '1 day' * case when done then -300 when d.id % 50 = 0 then -3 else 20 + d.id % 300 end,
        'new batter head; its check', case when done then now() - interval '299 days' end
        from register_drum d, unnest(array[true, false]) done where d.tag like 'B-%' returning 1"""
    )
    installation.cluster.rows(
        """insert into history_logentry (workshop_id, drum_id, at, kind, side, text, outcome, by_name, record)
        select d.workshop_id, d.id, now() - interval '1 day' * 20 * n, 'bench', 'batter', 'Check', 'even', 'Ines Calloway', '{}'
        from register_drum d, generate_series(1, 20) n where d.tag like 'B-%' returning 1"""
    )
    # A register that has grown for years has been vacuumed and has its statistics.
    for table in ("register_drum", "heads_fitting", "followups_followup", "history_logentry"):
        installation.cluster.rows(f"vacuum analyze {table}", autocommit=True)


def timed(act: Callable[[], object]) -> float:
    began = time.perf_counter()
    act()
    return (time.perf_counter() - began) * 1000


def quantile(values: list[float], share: float) -> float:
    return statistics.quantiles(values, n=100)[round(share * 100) - 1]


def main() -> None:
    installation = Installation("bench")
    try:
        fill(installation)
        client = Client(installation.server.port)
        seq, job = [0], [""]

        def fresh_job(number: int) -> None:
            """A new job now and then, so that its log stays as long as a real one's."""
            job[0] = str(uuid.uuid4())
            tag = f"B-{number + 2:06d}"
            client.call(
                "POST", "/api/bench/jobs", {"id": job[0], "tag": tag, "work": "settling-check", "part": "batter"}
            )
            for _ in range(30):
                event()

        def event() -> None:
            body = {
                "kind": "reading",
                "step": "clear",
                "lap": 0,
                "rod": random.randint(1, 8),
                "typed": f"{random.uniform(170, 180):.1f}",
            }
            entry = {
                "id": str(uuid.uuid4()),
                "device": "bench",
                "seen": 9999,
                "made_at": datetime.now(UTC).isoformat(),
                "v": 2,
                "body": body,
            }
            seq[0] = json.loads(client.call("POST", f"/api/bench/jobs/{job[0]}/events", {"events": [entry]}))[
                "last_seq"
            ]

        fresh_job(-1)
        for _ in range(270):
            event()
        long_job = job[0]

        acts: dict[str, Callable[[], object]] = {
            "bare (baseline)": lambda: client.call("GET", "/api/bare"),
            "Today": lambda: client.call("GET", "/api/today"),
            "register, first page": lambda: client.call("GET", "/api/register/drums"),
            "register, a search": lambda: client.call("GET", "/api/register/drums?text=drum%20123"),
            "register, page 100": lambda: client.call("GET", "/api/register/drums?offset=5000"),
            "Bench event": event,
            "Bench, 300 entries": lambda: client.call("GET", f"/api/bench/jobs/{long_job}"),
            "Bench, nothing new": lambda: client.call("GET", f"/api/bench/jobs/{job[0]}?since={seq[0]}"),
        }

        times: dict[str, list[float]] = {name: [] for name in acts}
        for number in range(ROUNDS + WARM_UP):  # in turn, so that a slow moment of the machine hits all alike
            if number % 60 == 0:
                fresh_job(number)
            for name, act in acts.items():
                took = timed(act)
                if number >= WARM_UP:
                    times[name].append(took)
        base = {share: quantile(times["bare (baseline)"], share) for share in (0.5, 0.95)}
        print(f"{DRUMS} drums, {ROUNDS} rounds in turn, one connection")
        print(f"{'':24}{'p50 ms':>9}{'ratio':>8}{'p95 ms':>9}{'ratio':>8}")
        for name, values in times.items():
            p50, p95 = quantile(values, 0.5), quantile(values, 0.95)
            print(f"{name:24}{p50:9.1f}{p50 / base[0.5]:8.1f}{p95:9.1f}{p95 / base[0.95]:8.1f}")
    finally:
        installation.close()


if __name__ == "__main__":
    main()
