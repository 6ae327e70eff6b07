"""Lines of snare wires belong to one workshop, like everything else."""

from django.db import migrations

from apps.workshops.scope import row_security


class Migration(migrations.Migration):
    dependencies = [
        ("heads", "0003_wires"),
    ]
    operations = [
        row_security("heads_wireline"),
    ]
