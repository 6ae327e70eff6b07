"""Every job of before, open and closed, gets its whole plan; every entry is read once and kept as what it said."""

from django.db import migrations
from django.db.backends.postgresql.psycopg_any import NumericRange

TAKES = {"batter": (0, 1), "resonant": (1, 2)}


def bring_along(apps, schema_editor):
    from apps.bench.before_engine import entry_of_before, plan_of_before
    from apps.bench.stored import PLAN_SHAPE, entry_to, plan_to
    from apps.workshops.scope import enter_workshop
    from drumwork.work.plan import Head

    Workshop, Job = apps.get_model("workshops", "Workshop"), apps.get_model("bench", "Job")
    JobHead, JobEvent = apps.get_model("bench", "JobHead"), apps.get_model("bench", "JobEvent")
    for workshop in Workshop.objects.all():
        enter_workshop(workshop.pk)
        for job in Job.objects.filter(workshop=workshop).select_related("drum").iterator(chunk_size=200):
            other = job.drum.rods_resonant if job.side == "batter" else job.drum.rods_batter
            head = Head(job.new_head, job.old_head)
            plan = plan_of_before(
                job.frozen, job.procedure, job.side, head, other, workshop.a4_hz, workshop.even_spread_hz
            )
            job.work, job.part, job.takes = plan.work, job.side, NumericRange(*TAKES[job.side], "[)")
            job.plan, job.plan_shape = plan_to(plan), PLAN_SHAPE
            job.save(update_fields=["work", "part", "takes", "plan", "plan_shape"])
            JobHead.objects.create(
                workshop=workshop,
                job=job,
                side=job.side,
                stock_item_id=job.stock_item_id,
                new_head=job.new_head,
                old_head=job.old_head,
                reason=job.reason,
            )
            for event in JobEvent.objects.filter(job=job, version=1):
                entry = entry_of_before(event.body, workshop.a4_hz)
                event.kind, event.body, event.version = entry.kind, entry_to(entry), 2
                event.save(update_fields=["kind", "body", "version"])


class Migration(migrations.Migration):
    dependencies = [("bench", "0005_engine_tables")]
    operations = [migrations.RunPython(bring_along, migrations.RunPython.noop)]
