"""Twenty thousand drums brought in from a list and brought again, beside a list of a hundred; and how much memory it takes.

In process, on a database of its own: what is measured is reading, checking and writing, not the way there.
"""

from __future__ import annotations

import gc
import io
import os
import resource
import sys
import time

from e2e.support.installation import ROOT, Cluster, Server

DRUMS, FEW = 20_000, 100
KINDS = ("snare", "rack tom", "floor tom", "bass drum")


def sheet(count: int, prefix: str) -> bytes:
    rows = ["tag;name;kind;size;lugs;location;kit;top head;head changed"]
    for n in range(count):
        rows.append(
            f"{prefix}-{n:05};Drum {n};{KINDS[n % 4]};14 x 5 1/2;8;room {n % 40};kit {n % 300};single 10 coated;2024-0{1 + n % 9}-05"
        )
    return "\n".join(rows).encode()


def memory_mb() -> float:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def main() -> None:
    cluster = Cluster("bench-bringing")
    cluster.start()
    try:
        Server(cluster.url).manage("migrate", "--verbosity", "0")
        os.environ |= {
            "RT_DATABASE_URL": cluster.url,
            "RT_SECRET_KEY": "bench",
            "DJANGO_SETTINGS_MODULE": "config.settings",
        }
        sys.path.insert(0, str(ROOT / "server"))
        import django

        django.setup()
        from django.contrib.auth.models import User
        from django.db import connection, transaction

        from apps.bringing.taking import reading_drums
        from apps.people.first import begin_workshop
        from apps.sheets.steps import at_once

        gc.freeze()  # as config.wsgi does
        member = begin_workshop("Loft", "in", User.objects.create_user("petra"), "Petra")

        def take(raw: bytes) -> tuple[float, int, int]:
            began = time.perf_counter()
            with transaction.atomic():
                from apps.workshops.scope import enter_workshop

                enter_workshop(member.workshop_id)
                seen = at_once(reading_drums(io.BytesIO(raw), None, True, member))
            return time.perf_counter() - began, seen.new, seen.same

        few, new, _ = take(sheet(FEW, "F"))
        print(f"{new} drums: {few:.2f} s ({memory_mb():.0f} MB)")
        for words in ("new", "the same list again"):
            took, new, same = take(sheet(DRUMS, "B"))
            print(
                f"{DRUMS} drums, {words}: {took:.1f} s, {new} new, {same} as they are; {took / DRUMS / (few / FEW):.2f} times a drum of the short list ({memory_mb():.0f} MB)"
            )
        connection.close()
    finally:
        cluster.destroy()


if __name__ == "__main__":
    main()
