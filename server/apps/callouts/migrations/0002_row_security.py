"""Call-outs and their logs belong to one workshop; who is deleted as a person stays by name."""

from django.db import migrations

from apps.workshops.scope import belongs_together, forgets_person, row_security


class Migration(migrations.Migration):
    dependencies = [("callouts", "0001_initial"), ("register", "0008_kits_wish")]
    operations = [
        row_security("callouts_callout", "callouts_calloutdrum", "callouts_calloutevent"),
        belongs_together("callouts_callout", "kit_id", "register_kit"),
        belongs_together("callouts_calloutdrum", "callout_id", "callouts_callout"),
        belongs_together("callouts_calloutdrum", "drum_id", "register_drum"),
        belongs_together("callouts_calloutevent", "callout_id", "callouts_callout"),
        forgets_person("callouts_calloutevent", "by_id"),
    ]
