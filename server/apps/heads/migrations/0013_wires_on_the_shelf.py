"""A set of wires on the shelf is of a line of the same workshop."""

from django.db import migrations

from apps.workshops.scope import belongs_together


class Migration(migrations.Migration):
    dependencies = [("heads", "0012_shelf_of_everything")]
    operations = [belongs_together("heads_stockitem", "wires_id", "heads_wireline")]
