"""The shelf under pressure, and a walk being saved.

Fifty people want one of ten heads at the same moment, each over a connection of their own: exactly ten get one. A walk of forty drums is entered
tick by tick as a phone sends it; each save as a ratio to the bare endpoint of the same server in the same run.
"""

from __future__ import annotations

import json
import statistics
import threading
import uuid
from datetime import UTC, date, datetime, timedelta

from benchmarks.api import Client, timed
from e2e.support.installation import Installation

WANT, HEADS, WALK, BARE = 50, 10, 40, 300
SIZE_M = 0.2794


def _drums(client: Client) -> list[str]:
    tags = [f"BS-{n:03d}" for n in range(WANT)]
    for tag in tags:
        drum = {
            "tag": tag, "name": f"Drum {tag}", "kind": "rack-tom", "diameter": "11", "depth": "8", "rods_batter": 6, "rods_resonant": 6,
            "place": "bench shelf", "owner": "Marrow Quay",
        }  # fmt: skip
        client.call("POST", "/api/register/drums", drum)
    return tags


def _events(tag: str, *bodies: dict[str, object]) -> dict[str, object]:
    now = datetime.now(UTC).isoformat()
    return {
        "events": [
            {
                "id": str(uuid.uuid4()),
                "device": "bench",
                "seen": 0,
                "made_at": now,
                "v": 1,
                "body": {"drum": tag, **each},
            }
            for each in bodies
        ]
    }


def _seen(finding: str) -> dict[str, object]:
    return {"kind": "seen", "finding": finding, "degree": 2, "side": "batter", "spot": {"x": 0.1, "y": 0.2}}


def _walk(client: Client, tags: list[str]) -> str:
    walk = str(uuid.uuid4())
    client.call("POST", "/api/inspect/walks", {"id": walk, "tags": tags})
    return walk


def reservations(installation: Installation, client: Client, tags: list[str]) -> None:
    """Fifty plans at once, each of a walk of its own, all for the same ten heads."""
    installation.cluster.rows(
        f"insert into heads_stockitem (workshop_id, line_id, diameter_m, count, shelf) "
        f"select workshop_id, id, {SIZE_M}, {HEADS}, 'S1' from heads_headline where name = 'single 10 coated'",
        autocommit=True,
    )
    item = int(installation.cluster.rows(f"select id from heads_stockitem where diameter_m = {SIZE_M}")[0][0])
    walks = {tag: _walk(client, [tag]) for tag in tags}
    for tag, walk in walks.items():
        client.call("POST", f"/api/inspect/walks/{walk}/events", _events(tag, _seen("coat-worn"), {"kind": "looked"}))
    clients = [Client(installation.server.port) for _ in tags]
    gate, answers = threading.Barrier(len(tags)), list[dict[str, list[object]]]()
    due = (date.today() + timedelta(days=7)).isoformat()

    def want(tag: str, of: Client) -> None:
        work = {
            "id": str(uuid.uuid4()), "tag": tag, "work": "new-batter-head", "part": "batter", "due_on": due,
            "heads": [{"side": "batter", "stock_item": item}],
        }  # fmt: skip
        gate.wait()
        answers.append(json.loads(of.call("POST", f"/api/inspect/walks/{walks[tag]}/plan", {"works": [work]})))

    threads = [threading.Thread(target=want, args=each) for each in zip(tags, clients, strict=True)]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    got = sum(len(each["planned"]) for each in answers)
    stored = installation.cluster.rows(f"select count(*) from heads_promise where stock_item_id = {item}")[0][0]
    print(
        f"{WANT} wanted one of {HEADS} heads at once: {got} got one, {WANT - got} were refused; promised in the database {stored}"
    )


def walk_saved(client: Client, tags: list[str]) -> None:
    """Forty drums: two ticks, one made worse, and the look done, each sent by itself."""
    walk = _walk(client, tags[:WALK])
    path = f"/api/inspect/walks/{walk}/events"
    ticks, looks = list[float](), list[float]()
    bare = list[float]()
    for tag in tags[:WALK]:
        for finding in ("dents", "defaced"):
            ticks.append(timed(lambda tag=tag, f=finding: client.call("POST", path, _events(tag, _seen(f)))))  # type: ignore[misc]
        looks.append(timed(lambda tag=tag: client.call("POST", path, _events(tag, {"kind": "looked"}))))  # type: ignore[misc]
        bare += [timed(lambda: client.call("GET", "/api/bare")) for _ in range(BARE // WALK)]
    base, saves = statistics.median(bare), [*ticks, *looks]
    print(f"bare endpoint (fixed fifty rows): median {base:.2f} ms")
    for name, each in (("any save", saves), ("a tick", ticks), ("a look done, with its verdict", looks)):
        p95 = statistics.quantiles(each, n=20)[-1]
        median = statistics.median(each)
        print(f"{name}: median {median / base:.1f} times ({median:.1f} ms), p95 {p95 / base:.1f} times")


def main() -> None:
    installation = Installation("bench-shelf")
    try:
        client = Client(installation.server.port)
        tags = _drums(client)
        for _ in range(40):
            client.call("GET", "/api/bare")
        walk_saved(client, tags)
        reservations(installation, client, tags)
    finally:
        installation.close()


if __name__ == "__main__":
    main()
