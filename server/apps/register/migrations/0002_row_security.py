"""Rows belong to one workshop: seen and written only from inside it, and pointing only within it."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("register", "0001_initial"),
    ]
    operations = [
        row_security("register_place", "register_owner", "register_kit", "register_drum", "register_kitdrum"),
        belongs_together("register_drum", "place_id", "register_place"),
        belongs_together("register_drum", "owner_id", "register_owner"),
        belongs_together("register_kitdrum", "kit_id", "register_kit"),
        belongs_together("register_kitdrum", "drum_id", "register_drum"),
    ]
