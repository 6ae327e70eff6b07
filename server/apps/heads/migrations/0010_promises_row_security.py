"""Promises belong to one workshop, and are of a head and a drum of the same."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("heads", "0009_promises")]
    operations = [
        row_security("heads_promise"),
        belongs_together("heads_promise", "stock_item_id", "heads_stockitem"),
        belongs_together("heads_promise", "drum_id", "register_drum"),
    ]
