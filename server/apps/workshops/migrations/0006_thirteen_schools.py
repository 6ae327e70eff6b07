"""Ways for every quarrel of the trade; grease becomes one of four."""

from django.db import migrations, models

NEW = {
    "grease": "when-dry",
    "after_stretch": "back",
    "evenness": "even",
    "resonant": "equal",
    "means": "pitch",
    "snare_note": "none",
    "bed_rods": "matched",
    "bass_pitch": "lowest",
    "old_heads": "never",
}


def four_ways(apps, schema_editor):
    apps.get_model("workshops", "Workshop").objects.filter(grease_dry_threads=False).update(grease="never")


def two_ways(apps, schema_editor):
    apps.get_model("workshops", "Workshop").objects.filter(grease="never").update(grease_dry_threads=False)


class Migration(migrations.Migration):
    dependencies = [("workshops", "0005_ways_of_two_heads")]
    operations = [
        *(migrations.AddField("workshop", name, models.CharField(max_length=20, default=usual)) for name, usual in NEW.items()),
        migrations.RunPython(four_ways, two_ways),
        migrations.RemoveField("workshop", "grease_dry_threads"),
    ]
