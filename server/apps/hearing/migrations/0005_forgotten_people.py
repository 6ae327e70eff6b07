"""Who is deleted as a person stays in the record by name."""

from django.db import migrations

from apps.workshops.scope import forgets_person


class Migration(migrations.Migration):
    dependencies = [("hearing", "0004_step")]
    operations = [
        forgets_person("hearing_heardtap", "by_id"),
    ]
