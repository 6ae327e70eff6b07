"""Row security: which workshop's rows this transaction may see and write."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection, migrations, transaction

__all__ = ["acting", "belongs_together", "forgets_person", "enter_workshop", "inside", "row_security", "without_trail"]


def enter_workshop(workshop_id: int) -> None:
    """For the rest of the current transaction, only this workshop's rows exist."""
    with connection.cursor() as cursor:
        cursor.execute("select set_config('app.workshop', %s, true)", [str(workshop_id)])


def acting(name: str, user_id: int | None = None) -> None:
    """For the rest of the current transaction, changes are this person’s: where somebody comes in who is not signed in yet."""
    with connection.cursor() as cursor:
        cursor.execute(
            "select set_config('app.person', %s, true), set_config('app.person_name', %s, true)",
            [str(user_id or ""), name],
        )


def without_trail() -> None:
    """For the rest of the current transaction nothing is written into the audit trail: a whole workshop is loaded or removed."""
    with connection.cursor() as cursor:
        cursor.execute("select set_config('app.audit', 'off', true)")


@contextmanager
def inside(workshop_id: int) -> Iterator[None]:
    """A transaction inside one workshop, for commands and tests."""
    with transaction.atomic():
        enter_workshop(workshop_id)
        yield


def row_security(*tables: str) -> migrations.RunSQL:
    """Force row security on tables with a workshop_id: reads and writes of other workshops' rows do not happen."""
    # As a sub-select the setting is read once a query, not once a row.
    own = "workshop_id = (select nullif(current_setting('app.workshop', true), '')::bigint)"
    on = [
        f"alter table {t} enable row level security; alter table {t} force row level security;"
        f"create policy own_workshop on {t} using ({own}) with check ({own});"
        for t in tables
    ]
    off = [f"drop policy own_workshop on {t}; alter table {t} disable row level security;" for t in tables]
    return migrations.RunSQL("\n".join(on), "\n".join(off))


def belongs_together(table: str, column: str, parent: str) -> migrations.RunSQL:
    """A composite foreign key: a row and what it points at are in the same workshop.

    The parent's (id, workshop_id) gets the unique index this needs, once.
    """
    unique, name = f"{parent}_in_workshop", f"{table}_{column}_same_workshop"
    return migrations.RunSQL(
        f"create unique index if not exists {unique} on {parent} (id, workshop_id);"
        f"alter table {table} add constraint {name} foreign key ({column}, workshop_id) "
        f"references {parent} (id, workshop_id) deferrable initially deferred;",
        f"alter table {table} drop constraint {name};",
    )


def forgets_person(table: str, column: str) -> migrations.RunSQL:
    """A person who is deleted leaves rows behind without them, in whatever workshop: the database itself sees to it, past row security."""
    change = (
        "do $$ declare known text; begin "
        f"select conname into strict known from pg_constraint where conrelid = '{table}'::regclass and contype = 'f' "
        "and confrelid = 'auth_user'::regclass and conkey = array[(select attnum from pg_attribute "
        f"where attrelid = '{table}'::regclass and attname = '{column}')]; "
        f"execute format('alter table {table} drop constraint %I, add constraint %I foreign key ({column}) "
        "references auth_user (id) {on} deferrable initially deferred', known, known); end $$;"
    )
    return migrations.RunSQL(change.replace("{on}", "on delete set null"), change.replace("{on} ", ""))
