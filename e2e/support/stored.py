"""What the server has stored of a job."""

from __future__ import annotations

from e2e.support.installation import Installation


def readings(installation: Installation, job: str) -> dict[int, float]:
    rows = installation.cluster.rows(
        "select body->>'rod', body->>'typed' from bench_jobevent "
        f"where job_id = '{job}' and kind = 'reading' and standing = 'applied' order by seq"
    )
    return {int(rod): float(typed.rstrip("?")) for rod, typed in rows}


def heard_taps(installation: Installation, job: str) -> list[list[str]]:
    """What became of every tap, for when a round does not end as it should."""
    return installation.cluster.rows(
        f"select rod, status, reason, hz from hearing_heardtap where job_id = '{job}' order by heard_at"
    )
