from django.db import migrations, models
from django.db.models.functions import Upper


class Migration(migrations.Migration):
    dependencies = [("register", "0009_one_tag_in_any_letters")]
    operations = [
        migrations.RemoveConstraint("drum", "drum_tag_unique"),
        migrations.AddConstraint(
            "drum", models.UniqueConstraint(models.F("workshop"), Upper("tag"), name="drum_tag_unique")
        ),
        migrations.AddIndex("drum", models.Index(fields=["workshop", "tag"], name="drum_tag")),
    ]
