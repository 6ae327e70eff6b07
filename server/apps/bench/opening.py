"""A job as the Bench opens it, written once and kept as long as the database says that nothing it was made of has changed."""

from __future__ import annotations

from collections import OrderedDict
from typing import NamedTuple
from uuid import UUID

from django.db import connection
from django.utils import timezone

from apps.bench.models import Job, JobHead, KeptAnswer
from apps.bench.selectors import job_by_id, written_bench
from apps.heads.models import Fitting, HeadLine, StockItem
from apps.register.models import Drum
from apps.workshops.models import Workshop

__all__ = ["opened_bench"]

_MOST_KNOWN = 60


def _versions(rows: str) -> str:
    """The versions of some rows, as one text; see accounts.signed_in for why xmin and ctid tell them."""
    return f"(select string_agg(r.xmin || r.ctid::text, ' ' order by r.id) from {rows})"


def _table(of: type[Job | JobHead | KeptAnswer | Fitting | HeadLine | StockItem | Drum | Workshop]) -> str:
    return of._meta.db_table


_STANDS = f"""
    select concat_ws('/', j.xmin || j.ctid::text, d.xmin || d.ctid::text, w.xmin || w.ctid::text,
        {_versions(f"{_table(JobHead)} r where r.job_id = j.id")},
        {_versions(f"{_table(JobHead)} h join {_table(StockItem)} r on r.id = h.stock_item_id where h.job_id = j.id")},
        {
    _versions(f'''{_table(JobHead)} h join {_table(StockItem)} s on s.id = h.stock_item_id
            join {_table(HeadLine)} r on r.id = s.line_id where h.job_id = j.id''')
},
        {_versions(f"{_table(Fitting)} r where r.drum_id = d.id and r.retired_at is null")},
        {
    _versions(f'''{_table(Fitting)} f join {_table(HeadLine)} r on r.name = f.head
            where f.drum_id = d.id and f.retired_at is null''')
},
        {_versions(f"{_table(KeptAnswer)} r where r.drum_id = d.id")})
    from {_table(Job)} j join {_table(Drum)} d on d.id = j.drum_id join {_table(Workshop)} w on w.id = j.workshop_id
    where j.id = %s
"""


class _Written(NamedTuple):
    stands: tuple[str, str]
    answer: bytes


_WRITTEN: OrderedDict[UUID, _Written] = OrderedDict()


def _stands(job_id: UUID) -> tuple[str, str]:
    """What the answer is made of: the rows' versions, and the month that is written on a head."""
    with connection.cursor() as cursor:
        cursor.execute(_STANDS, [job_id])
        row = cursor.fetchone()
    if row is None:
        raise Job.DoesNotExist
    return row[0], f"{timezone.localtime():%Y-%m}"


def _written_anew(job_id: UUID) -> bytes:
    job = job_by_id(job_id)
    return f'{{"last_seq":{job.last_seq},"bench":{written_bench(job)}}}'.encode()


def opened_bench(job_id: UUID) -> bytes:
    """The whole `BenchAnswer` of a job as JSON, or Job.DoesNotExist."""
    stands = _stands(job_id)  # asked before anything is read: what is written is never older than it says
    found = _WRITTEN.pop(job_id, None)
    if found is None or found.stands != stands:
        found = _Written(stands, _written_anew(job_id))
    _WRITTEN[job_id] = found
    while len(_WRITTEN) > _MOST_KNOWN:
        _WRITTEN.popitem(last=False)
    return found.answer
