"""Who is deleted as a person stays in the record by name."""

from django.db import migrations

from apps.workshops.scope import forgets_person


class Migration(migrations.Migration):
    dependencies = [("photos", "0002_row_security")]
    operations = [
        forgets_person("photos_photo", "by_id"),
    ]
