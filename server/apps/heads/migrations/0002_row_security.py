"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("heads", "0001_initial"),
        ("register", "0002_row_security"),
    ]
    operations = [
        row_security("heads_headline", "heads_stockitem", "heads_fitting"),
        belongs_together("heads_stockitem", "line_id", "heads_headline"),
        belongs_together("heads_fitting", "drum_id", "register_drum"),
    ]
