"""Who is deleted as a person stays in the record by name."""

from django.db import migrations

from apps.workshops.scope import forgets_person


class Migration(migrations.Migration):
    dependencies = [("heads", "0006_shelf_things_row_security")]
    operations = [
        forgets_person("heads_fitting", "fitted_by_id"),
    ]
