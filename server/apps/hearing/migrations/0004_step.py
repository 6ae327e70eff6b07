"""A tap belongs to a clearing step; before there was one, named “clear”."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("hearing", "0003_other_muted")]
    operations = [
        migrations.AddField("heardtap", "step", models.CharField(max_length=40, default="clear"), preserve_default=False)
    ]
