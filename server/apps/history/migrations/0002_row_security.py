"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("history", "0001_initial"),
        ("register", "0002_row_security"),
    ]
    operations = [
        row_security("history_logentry", "history_pitchrecord"),
        belongs_together("history_logentry", "drum_id", "register_drum"),
        belongs_together("history_pitchrecord", "drum_id", "register_drum"),
    ]
