"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("hearing", "0001_initial")]
    operations = [
        row_security("hearing_heardtap"),
        belongs_together("hearing_heardtap", "job_id", "bench_job"),
    ]
