"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("bench", "0001_initial"),
        ("register", "0002_row_security"),
        ("heads", "0002_row_security"),
    ]
    operations = [
        row_security("bench_job", "bench_jobevent"),
        belongs_together("bench_job", "drum_id", "register_drum"),
        belongs_together("bench_job", "stock_item_id", "heads_stockitem"),
        belongs_together("bench_jobevent", "job_id", "bench_job"),
    ]
