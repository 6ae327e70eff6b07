"""Whether anything changed in a workshop since it was asked last: one small query, so that every device can ask every second."""

from __future__ import annotations

from typing import Final

from django.db import connection

from apps.workshops.models import Workshop

__all__ = ["pulse_of"]

_LAST: Final = """
select concat_ws('.',
  (select max(id) from audit_change where workshop_id = %(of)s),
  (select count(*) || '-' || coalesce(sum(last_seq), 0) || '-' || count(*) filter (where state = 'open') from bench_job where workshop_id = %(of)s),
  (select max(touched_at) from inspecting_walk where workshop_id = %(of)s),
  (select count(answered_at) from inspecting_verdict where workshop_id = %(of)s),
  (select concat_ws('-', max(touched_at), max(reported_at), count(answered_at)) from callouts_callout where workshop_id = %(of)s),
  (select max(id) from history_logentry where workshop_id = %(of)s),
  (select count(*) || '-' || count(put_right_at) from bench_drumfinding where workshop_id = %(of)s),
  (select count(*) || '-' || count(ended_at) from stock_loan where workshop_id = %(of)s),
  (select concat_ws('-', count(*), max(at)) from heads_promise where workshop_id = %(of)s),
  (select concat_ws('-', count(*), count(ended_at)) from stock_goesback where workshop_id = %(of)s),
  (select max(at) from stock_movement where workshop_id = %(of)s))
"""
"""Logs grow, and what is followed leaves a trail; rows that are only marked are counted."""


def pulse_of(workshop: Workshop) -> str:
    with connection.cursor() as cursor:
        cursor.execute(_LAST, {"of": workshop.pk})
        (pulse,) = cursor.fetchone()
    return str(pulse)
