"""Room for the engine: what a job is about, its whole plan, its heads, findings; nothing is taken away yet."""

import django.contrib.postgres.fields.ranges
import django.db.models.deletion
from django.db import migrations, models

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [
        ("bench", "0004_kept_answer_row_security"),
        ("heads", "0004_wires_row_security"),
        ("register", "0003_bed_and_port_rods"),
        ("workshops", "0005_ways_of_two_heads"),
    ]
    operations = [
        migrations.AddField("job", "work", models.CharField(max_length=40, null=True)),
        migrations.AddField("job", "part", models.CharField(max_length=10, null=True)),
        migrations.AddField("job", "takes", django.contrib.postgres.fields.ranges.IntegerRangeField(null=True)),
        migrations.AddField("job", "plan", models.JSONField(null=True)),
        migrations.AddField("job", "plan_shape", models.PositiveSmallIntegerField(null=True)),
        migrations.AddField("jobevent", "version", models.PositiveSmallIntegerField(default=1)),
        migrations.CreateModel(
            name="JobHead",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("side", models.CharField(max_length=10)),
                ("new_head", models.CharField(blank=True, max_length=60)),
                ("old_head", models.CharField(blank=True, max_length=60)),
                ("reason", models.CharField(blank=True, max_length=200)),
                ("job", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="heads", to="bench.job")),
                ("stock_item", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to="heads.stockitem")),
                ("workshop", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="+", to="workshops.workshop")),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=["job", "side"], name="job_head_one_a_side"),
                    models.CheckConstraint(condition=models.Q(("side__in", ["batter", "resonant"])), name="job_head_side"),
                ],
            },
        ),
        migrations.CreateModel(
            name="DrumFinding",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("finding", models.CharField(max_length=40)),
                ("side", models.CharField(blank=True, max_length=10)),
                ("rod", models.PositiveSmallIntegerField(blank=True, null=True)),
                ("degree", models.PositiveSmallIntegerField()),
                ("note", models.CharField(blank=True, max_length=300)),
                ("owed", models.CharField(choices=[("replace", "Replace"), ("fetch", "Fetch"), ("repair", "Repair"), ("qualified", "Qualified"), ("adjust", "Adjust"), ("look", "Look")], max_length=10)),
                ("part", models.CharField(blank=True, max_length=40)),
                ("found_at", models.DateTimeField()),
                ("by_name", models.CharField(blank=True, max_length=60)),
                ("put_right_at", models.DateTimeField(blank=True, null=True)),
                ("drum", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="findings", to="register.drum")),
                ("job", models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to="bench.job")),
                ("workshop", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="+", to="workshops.workshop")),
            ],
            options={
                "ordering": ["-found_at"],
                "indexes": [models.Index(condition=models.Q(("put_right_at__isnull", True)), fields=["drum"], name="drum_finding_open")],
                "constraints": [
                    models.CheckConstraint(condition=models.Q(("side__in", ["", "batter", "resonant"])), name="drum_finding_side"),
                    models.CheckConstraint(condition=models.Q(("degree__range", (1, 3))), name="drum_finding_degree"),
                ],
            },
        ),
        row_security("bench_jobhead", "bench_drumfinding"),
        belongs_together("bench_jobhead", "job_id", "bench_job"),
        belongs_together("bench_jobhead", "stock_item_id", "heads_stockitem"),
        belongs_together("bench_drumfinding", "drum_id", "register_drum"),
        belongs_together("bench_drumfinding", "job_id", "bench_job"),
    ]
