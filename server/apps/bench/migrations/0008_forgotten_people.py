"""Who is deleted as a person stays in the record by name."""

from django.db import migrations

from apps.workshops.scope import forgets_person


class Migration(migrations.Migration):
    dependencies = [("bench", "0007_engine_constraints")]
    operations = [
        forgets_person("bench_job", "opened_by_id"),
        forgets_person("bench_jobevent", "by_id"),
    ]
