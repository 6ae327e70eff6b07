"""“Resonant first” was obeyed on toms only: what workshops had is called what it was, and what is chosen from here on is obeyed on every drum."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("workshops", "0012_callout_weights")]
    operations = [
        migrations.RemoveConstraint("workshop", "workshop_first_head"),
        migrations.AlterField("workshop", "first_head", models.CharField(max_length=10, default="usual")),
        migrations.RunSQL(
            "UPDATE workshops_workshop SET first_head = 'usual' WHERE first_head = 'resonant'",
            "UPDATE workshops_workshop SET first_head = 'resonant' WHERE first_head = 'usual'",
        ),
        migrations.AddConstraint(
            "workshop",
            models.CheckConstraint(
                condition=models.Q(first_head__in=["usual", "batter", "resonant"]), name="workshop_first_head"
            ),
        ),
    ]
