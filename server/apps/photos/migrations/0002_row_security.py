"""Photos belong to one workshop, and are of a drum and a job of the same."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("photos", "0001_initial")]
    operations = [
        row_security("photos_photo"),
        belongs_together("photos_photo", "drum_id", "register_drum"),
        belongs_together("photos_photo", "job_id", "bench_job"),
    ]
