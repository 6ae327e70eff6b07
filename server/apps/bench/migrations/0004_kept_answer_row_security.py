"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("bench", "0003_kept_answer")]
    operations = [
        row_security("bench_keptanswer"),
        belongs_together("bench_keptanswer", "drum_id", "register_drum"),
    ]
