"""What happens on a shelf belongs to one workshop; what lay there before movements were kept begins as counted."""

from django.db import migrations

from apps.workshops.scope import belongs_together, row_security

BEGUN = """
do $$ declare shop bigint; begin
for shop in select id from workshops_workshop loop
    perform set_config('app.workshop', shop::text, true);
    insert into stock_movement (workshop_id, stock_item_id, act, why, delta, after, place, batch, words, by_name, at)
    select workshop_id, id, gen_random_uuid(), 'counted', count, count, '', '', 'as it stood when the shelf was begun', '', now()
    from heads_stockitem where count > 0;
end loop;
perform set_config('app.workshop', '', true);
end $$;
"""


class Migration(migrations.Migration):
    dependencies = [("stock", "0001_initial"), ("heads", "0013_wires_on_the_shelf")]
    operations = [
        row_security("stock_heap", "stock_movement", "stock_goesback", "stock_loan", "stock_shelfcode"),
        belongs_together("stock_heap", "stock_item_id", "heads_stockitem"),
        belongs_together("stock_movement", "stock_item_id", "heads_stockitem"),
        belongs_together("stock_movement", "drum_id", "register_drum"),
        belongs_together("stock_goesback", "stock_item_id", "heads_stockitem"),
        belongs_together("stock_loan", "stock_item_id", "heads_stockitem"),
        belongs_together("stock_loan", "from_drum_id", "register_drum"),
        belongs_together("stock_loan", "to_drum_id", "register_drum"),
        belongs_together("stock_shelfcode", "stock_item_id", "heads_stockitem"),
        migrations.RunSQL(BEGUN, migrations.RunSQL.noop),
    ]
