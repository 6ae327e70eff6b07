"""Planned work belongs to one workshop, and is of a drum of the same."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("planned", "0001_initial")]
    operations = [
        row_security("planned_plannedjob"),
        belongs_together("planned_plannedjob", "drum_id", "register_drum"),
    ]
