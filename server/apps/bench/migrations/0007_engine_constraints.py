"""What was brought along is required from here on; what it was made from goes."""

import django.contrib.postgres.constraints
import django.contrib.postgres.fields.ranges
from django.db import migrations, models
from django.db.backends.postgresql.psycopg_any import NumericRange

PARTS = {
    "batter": (0, 1), "resonant": (1, 2), "heads": (0, 2), "wires": (2, 3), "hardware": (3, 4), "drum": (0, 4),
}


def takes(part):
    return models.Q(part=part, takes=NumericRange(*PARTS[part], "[)"))


class Migration(migrations.Migration):
    dependencies = [("bench", "0006_engine_data")]
    operations = [
        migrations.RemoveConstraint("job", "job_side"),
        migrations.RemoveConstraint("job", "job_one_open_a_side"),
        *[
            migrations.RemoveField("job", name)
            for name in ("frozen", "new_head", "old_head", "procedure", "reason", "side", "stock_item")
        ],
        migrations.RemoveField("jobevent", "slot"),
        migrations.AlterField("job", "work", models.CharField(max_length=40)),
        migrations.AlterField("job", "part", models.CharField(max_length=10)),
        migrations.AlterField("job", "takes", django.contrib.postgres.fields.ranges.IntegerRangeField()),
        migrations.AlterField("job", "plan", models.JSONField()),
        migrations.AlterField("job", "plan_shape", models.PositiveSmallIntegerField()),
        migrations.AlterField("jobevent", "version", models.PositiveSmallIntegerField()),
        migrations.AddConstraint(
            "job",
            models.CheckConstraint(
                condition=takes("batter") | takes("resonant") | takes("heads") | takes("wires") | takes("hardware") | takes("drum"),
                name="job_part",
            ),
        ),
        migrations.AddConstraint(
            "job",
            django.contrib.postgres.constraints.ExclusionConstraint(
                condition=models.Q(("state", "open")),
                expressions=[("drum", "="), ("takes", "&&")],
                name="job_one_open_a_part",
            ),
        ),
    ]
