"""The trigger that writes the trail, on every table that is followed."""

from django.db import migrations

from apps.workshops.scope import forgets_person, row_security

WRITE = """
create function audit_write() returns trigger language plpgsql as $$
declare
    outside text[] := string_to_array(tg_argv[2], ',');
    was jsonb := case when tg_op <> 'INSERT' then to_jsonb(old) end;
    new_ jsonb := case when tg_op <> 'DELETE' then to_jsonb(new) end;
    whole jsonb := coalesce(new_, was);
    shop text := case tg_argv[0] when 'workshop' then whole ->> 'id' else whole ->> 'workshop_id' end;
    entered text := coalesce(current_setting('app.workshop', true), '');
    before jsonb := coalesce(was - outside, '{}');
    after jsonb := coalesce(new_ - outside, '{}');
    named jsonb;
begin
    if shop is null or coalesce(current_setting('app.audit', true), '') = 'off' then return null; end if;
    if tg_op = 'UPDATE' then
        select coalesce(jsonb_object_agg(key, before -> key), '{}'), coalesce(jsonb_object_agg(key, value), '{}') into before, after
        from jsonb_each(after) where value is distinct from before -> key;
        if after = '{}' then return null; end if;
    end if;
    select coalesce(jsonb_object_agg(key, value), '{}') into named from jsonb_each(whole) where key = any(string_to_array(tg_argv[1], ','));
    -- A row is written into the workshop of what changed, though nobody has entered one (somebody comes in by a link).
    perform set_config('app.workshop', shop, true);
    insert into audit_change (workshop_id, at, by_id, by_name, what, row, did, about, before, after) values (
        shop::bigint, now(), nullif(current_setting('app.person', true), '')::bigint, left(coalesce(current_setting('app.person_name', true), ''), 60),
        tg_argv[0], whole ->> 'id', case tg_op when 'INSERT' then 'made' when 'UPDATE' then 'changed' else 'removed' end, named, before, after);
    perform set_config('app.workshop', entered, true);
    return null;
end $$;
"""
# As they were followed first; a table more is a migration more.
FIRST = {
    "workshops_workshop": ("workshop", "name", "id,slug"),
    "workshops_membership": ("person", "shown_name", "id,workshop_id,keeps_sound,joined_at"),
    "people_link": ("link", "shown_name,kind", "id,workshop_id,digest,user_id"),
    "register_drum": ("drum", "tag,name", "id,workshop_id,search,kept"),
    "register_kitdrum": ("kit-drum", "drum_id,kit_id", "id,workshop_id"),
    "register_place": ("place", "name", "id,workshop_id"),
    "register_owner": ("owner", "name", "id,workshop_id"),
    "register_kit": ("kit", "name", "id,workshop_id"),
    "heads_fitting": ("fitting", "drum_id,side", "id,workshop_id"),
    "heads_headline": ("head-line", "name", "id,workshop_id"),
    "heads_wireline": ("wire-line", "name", "id,workshop_id"),
    "heads_stockitem": ("stock", "name,line_id,wires_id,diameter_m", "id,workshop_id,count"),
    "heads_shelfthing": ("thing", "name", "id,workshop_id"),
    "followups_followup": ("check", "drum_id,side", "id,workshop_id"),
    "planned_plannedjob": ("planned", "drum_id,work", "id,workshop_id"),
}


def _on(table, what, about, but):
    # A workshop that is removed takes its trail with it: there is nothing left to write into.
    when = "insert or update" if what == "workshop" else "insert or update or delete"
    return f"create trigger audit_write after {when} on {table} for each row execute function audit_write('{what}', '{about}', '{but}');"


class Migration(migrations.Migration):
    dependencies = [
        ("audit", "0001_initial"),
        ("people", "0001_initial"),
        ("register", "0007_hours_week"),
        ("heads", "0015_fitting_dated"),
        ("followups", "0003_today_at_size"),
        ("planned", "0003_lacks"),
    ]

    operations = [
        row_security("audit_change"),
        forgets_person("audit_change", "by_id"),
        migrations.RunSQL(
            "do $$ declare known text; begin select conname into strict known from pg_constraint where conrelid = 'audit_change'::regclass "
            "and confrelid = 'workshops_workshop'::regclass; "
            "execute format('alter table audit_change drop constraint %I, add constraint %I foreign key (workshop_id) "
            "references workshops_workshop (id) on delete cascade deferrable initially deferred', known, known); end $$",
            migrations.RunSQL.noop,
        ),
        migrations.RunSQL(WRITE, "drop function audit_write() cascade"),
        migrations.RunSQL("\n".join(_on(table, *each) for table, each in FIRST.items()), migrations.RunSQL.noop),
    ]
