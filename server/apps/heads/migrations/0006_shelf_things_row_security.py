"""Rows belong to one workshop: seen and written only from inside it."""

from django.db import migrations

from apps.workshops.scope import row_security


class Migration(migrations.Migration):
    dependencies = [("heads", "0005_shelf_things")]
    operations = [row_security("heads_shelfthing")]
