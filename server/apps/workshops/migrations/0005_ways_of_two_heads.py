"""Which head goes first, and how turns are confirmed."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("workshops", "0004_tap_round")]
    operations = [
        migrations.AddField("workshop", "first_head", models.CharField(max_length=10, default="resonant")),
        migrations.AddField("workshop", "cadence", models.CharField(max_length=10, default="rod")),
        migrations.AddField("workshop", "slacken_by", models.CharField(max_length=10, default="pass")),
        migrations.AddConstraint(
            "workshop",
            models.CheckConstraint(condition=models.Q(first_head__in=["batter", "resonant"]), name="workshop_first_head"),
        ),
        migrations.AddConstraint(
            "workshop",
            models.CheckConstraint(
                condition=models.Q(cadence__in=["rod", "pair", "pass"], slacken_by__in=["rod", "pair", "pass"]),
                name="workshop_cadence",
            ),
        ),
    ]
