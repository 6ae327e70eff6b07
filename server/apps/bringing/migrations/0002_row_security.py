"""Each workshop reads its lists its own way."""

from django.db import migrations

from apps.workshops.scope import row_security


class Migration(migrations.Migration):
    dependencies = [("bringing", "0001_initial")]

    operations = [row_security("bringing_readso")]
