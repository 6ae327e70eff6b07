"""Walks and what was seen on them belong to one workshop; who is deleted as a person stays by name."""

from django.db import migrations

from apps.workshops.scope import belongs_together, forgets_person, row_security


class Migration(migrations.Migration):
    dependencies = [("inspecting", "0001_initial")]
    operations = [
        row_security(
            "inspecting_walk",
            "inspecting_walkdrum",
            "inspecting_walkevent",
            "inspecting_verdict",
            "inspecting_overrule",
        ),
        belongs_together("inspecting_walkdrum", "walk_id", "inspecting_walk"),
        belongs_together("inspecting_walkdrum", "drum_id", "register_drum"),
        belongs_together("inspecting_walkevent", "walk_id", "inspecting_walk"),
        belongs_together("inspecting_verdict", "walk_id", "inspecting_walk"),
        belongs_together("inspecting_verdict", "drum_id", "register_drum"),
        belongs_together("inspecting_overrule", "verdict_id", "inspecting_verdict"),
        forgets_person("inspecting_walkevent", "by_id"),
    ]
