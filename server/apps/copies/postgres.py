"""PostgreSQL's own programs, and what is counted in a database past every row rule."""

from __future__ import annotations

import os
import subprocess
from pathlib import Path
from typing import IO, Any
from urllib.parse import unquote, urlsplit

import psycopg
from psycopg import sql

from apps.copies.errors import CannotCopy

__all__ = ["connect", "counts", "environment", "migrations", "program", "run", "tables"]


def program(name: str) -> str:
    """Where the newest installed one of PostgreSQL's programs is; else the one on the path."""
    folders = [
        os.environ.get("PG_BINDIR", ""),
        *map(str, sorted(Path("/usr/lib/postgresql").glob("*/bin"), key=_version)),
    ]
    return next((str(Path(each) / name) for each in folders if each and (Path(each) / name).exists()), name)


def _version(folder: Path) -> float:
    digits = folder.parent.name
    return -float(digits) if digits.replace(".", "", 1).isdigit() else 0.0


def environment(url: str) -> dict[str, str]:
    """Where libpq finds server, role and password: never on a command line, which every account can list."""
    parts = urlsplit(url)
    said = {
        "PGHOST": parts.hostname or "127.0.0.1",
        "PGPORT": str(parts.port or 5432),
        "PGUSER": unquote(parts.username or ""),
        "PGPASSWORD": unquote(parts.password or ""),
        "PGDATABASE": parts.path.lstrip("/"),
    }
    return {**os.environ, **{name: value for name, value in said.items() if value}, "PGCONNECT_TIMEOUT": "5"}


def run(url: str, name: str, *words: str, out: int | IO[bytes] | None = None) -> None:
    """Run one of PostgreSQL's programs against a database."""
    try:
        ran = subprocess.run([program(name), *words], env=environment(url), stdout=out, stderr=subprocess.PIPE)
    except FileNotFoundError as error:
        raise CannotCopy(f"{name} is not installed. Install the Debian package postgresql-client-15.") from error
    if ran.returncode:
        raise CannotCopy(f"{name} stopped: {ran.stderr.decode(errors='replace').strip()[-2000:]}")


def connect(url: str, **more: Any) -> psycopg.Connection[tuple[Any, ...]]:
    try:
        return psycopg.connect(url, connect_timeout=5, **more)
    except psycopg.OperationalError as error:
        raise CannotCopy(f"The database does not let us in: {str(error).strip()}") from error


def tables(connection: psycopg.Connection[tuple[Any, ...]]) -> list[str]:
    found = connection.execute(
        "select relname from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by relname"
    )
    return [str(name) for (name,) in found]


def counts(connection: psycopg.Connection[tuple[Any, ...]]) -> dict[str, int]:
    """Rows of every table. Only a role that row security does not hold back may count."""
    free = connection.execute("select rolbypassrls or rolsuper from pg_roles where rolname = current_user").fetchone()
    if not free or not free[0]:
        raise CannotCopy(
            "This role sees no workshop’s rows, and would write an empty backup. Give RT_BACKUP_URL a role with BYPASSRLS "
            "(docs/running.md, “Backups”)."
        )
    found: dict[str, int] = {}
    for table in tables(connection):
        row = connection.execute(sql.SQL("select count(*) from {}").format(sql.Identifier(table))).fetchone()
        found[table] = int(row[0]) if row else 0
    return found


def migrations(connection: psycopg.Connection[tuple[Any, ...]]) -> list[str]:
    found = connection.execute("select app || '.' || name from django_migrations order by 1")
    return [str(name) for (name,) in found]
