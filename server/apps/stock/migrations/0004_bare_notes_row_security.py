"""Notes of bare heads belong to one workshop."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security


class Migration(migrations.Migration):
    dependencies = [("stock", "0003_bare_notes")]
    operations = [row_security("stock_barenote"), belongs_together("stock_barenote", "stock_item_id", "heads_stockitem")]
