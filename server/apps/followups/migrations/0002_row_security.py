"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("followups", "0001_initial"),
        ("register", "0002_row_security"),
    ]
    operations = [
        row_security("followups_followup"),
        belongs_together("followups_followup", "drum_id", "register_drum"),
    ]
