"""docs/running.md, line by line: every command in it is run here as it is written there, or by the journey that is named; every setting is one that is read."""

from __future__ import annotations

import os
import re
import secrets
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest

from e2e.support.installation import ROOT, TABLES, Cluster, free_port, in_turn, prepared, wait_ready

PAGE = (ROOT / "docs" / "running.md").read_text(encoding="utf-8")
COMMAND = re.compile(
    r"^(?:RT_\w+=\S+ )*(?:\./start|tools/|\.venv/bin/python server/manage\.py|systemctl |journalctl |create role |add_workshop |password_link |first_word)"
)
HERE = "here"
ELSEWHERE = "needs a machine started by systemd"
WALKED = {
    "./start": "test_start_and_stop.py::test_a_second_start_that_ends_leaves_the_first_its_database",
    "./test": HERE,
    "tools/pg url": HERE,
    "tools/pg stop": "test_keys_and_words.py::test_foreign_keys_are_named_and_nothing_is_touched_and_there_is_a_way_back",
    "tools/pg rekey": "test_keys_and_words.py::test_foreign_keys_are_named_and_nothing_is_touched_and_there_is_a_way_back",
    "tools/pg psql": "test_start_and_stop.py::test_what_is_there_is_set_aside_when_a_backup_comes_back",
    "tools/service --host 0.0.0.0 --https > red-tally.service": "test_upgrade_and_service.py::test_the_unit_is_one_systemd_takes",
    "systemctl enable --now red-tally": ELSEWHERE,
    "journalctl -u red-tally": ELSEWHERE,
    "tools/upgrade": "test_upgrade_and_service.py::test_a_backup_of_the_old_version_comes_first",
    ".venv/bin/python server/manage.py tidy": HERE,
    "tools/backup FILE": HERE,
    "tools/backup --into FOLDER [--keep 14] [--days 60]": HERE,
    "tools/backup --into FOLDER": HERE,
    "tools/restore": HERE,
    "tools/restore FILE --check": HERE,
    "tools/restore FILE [--set-aside]": "test_start_and_stop.py::test_what_is_there_is_set_aside_when_a_backup_comes_back",
    "create role redtally_backup login bypassrls in role pg_read_all_data password '…';": HERE,
    "RT_DATABASE_URL=… RT_BACKUP_URL=postgresql://redtally_backup:…@host:port/name tools/backup FILE": HERE,
    "./start --host 0.0.0.0": "test_on_the_network.py::test_the_bench_works_over_plain_http_by_name",
    "./start --host 0.0.0.0 --https": "test_over_https.py::test_a_tablet_signs_in_and_has_what_browsers_keep_for_https",
    "tools/certificate": "test_over_https.py::test_the_certificate_holds_for_the_machine_and_vouches_for_nobody_else",
    "RT_DATABASE_URL=… RT_SECRET_KEY=… ./start --setup --no-demo": HERE,
    ".venv/bin/python server/manage.py first_word": HERE,
    'add_workshop "Name" --user NAME --shown "Shown Name"': HERE,
    ".venv/bin/python server/manage.py password_link NAME": HERE,
}  # fmt: skip


def said_commands() -> set[str]:
    """Whatever on the page is a command: between backticks, or on a line of a block; comments left out."""
    blocks = re.findall(r"^```\n(.*?)^```", PAGE, re.M | re.S)
    lines = [line.split("  #")[0].strip() for block in blocks for line in block.splitlines()]
    spans = [
        " ".join(span.split())
        for span in re.findall(r"`([^`\n]+(?:\n[^`\n]+)?)`", re.sub(r"^```.*?^```", "", PAGE, flags=re.M | re.S))
    ]
    return {each for each in (*lines, *spans) if COMMAND.match(each)}


def test_every_command_on_the_page_is_walked() -> None:
    assert said_commands() - {"./test"} == WALKED.keys() - {"./test"}
    for where in set(WALKED.values()) - {HERE, ELSEWHERE}:
        file, test = where.split("::")
        assert f"def {test}(" in (ROOT / "e2e" / file).read_text(encoding="utf-8"), where


def test_every_setting_on_the_page_is_read_and_every_one_read_is_on_it() -> None:
    table = dict(re.findall(r"^\| `(RT_\w+)`(?:, `RT_\w+`)? \|.*\| ([^|]*) \|$", PAGE, re.M))
    rows = set(re.findall(r"^\| .*", PAGE, re.M))
    named = {name for row in rows for name in re.findall(r"RT_\w+", row.split(" | ")[0])} | {"RT_NEW_PASSWORD"}
    assert named <= set(re.findall(r"RT_\w+", PAGE))
    places = [
        *(ROOT / "server").glob("config/*.py"),
        *(ROOT / "server").glob("apps/**/*.py"),
        ROOT / "start",
        *(ROOT / "tools").glob("*"),
    ]
    code = "\n".join(
        path.read_text(encoding="utf-8") for path in places if path.is_file() and path.suffix in ("", ".py", ".sh")
    )
    read = set(re.findall(r"(?:environ(?:\.get)?[\[(]\"|env\(\"|flag\(\"|\$\{)(RT_[A-Z_]+)", code))
    between_ourselves = {
        "RT_WORKERS", "RT_HTTPS_PORT", "RT_AUTHORITY", "RT_PGDATA", "RT_PGDATABASE", "RT_PGUSER", "RT_PLACE", "RT_DB", "RT_WEB_DIST",
    }  # fmt: skip
    assert named - read == set()
    assert read - named - between_ourselves == set()
    for name, default in table.items():
        if plain := re.fullmatch(r"`([^`]+)`", default.replace("`0`", "")):  # off is merely not on
            assert re.search(rf'{name}"?(?:\)?, "|:-)(?:\$ROOT/)?{re.escape(plain[1])}["}}]', code), (
                f"{name} is not {plain[1]} by default"
            )


class Shop:
    """A PostgreSQL of one's own, and a shell beside it."""

    def __init__(self, cluster: Cluster) -> None:
        self.cluster, self.password = cluster, secrets.token_hex(8)
        self.env = {key: value for key, value in os.environ.items() if not key.startswith("RT_")} | {
            "RT_SECRET_KEY": "own"
        }

    def url(self, database: str, role: str = "shop") -> str:
        where = self.cluster.url.rpartition("@")[2].partition("/")[0]
        return f"postgresql://{role}:{self.password}@{where}/{database}"

    def admin(self, statement: str) -> None:
        with psycopg.connect(self.cluster.admin_url, autocommit=True) as connection:
            connection.execute(statement)  # type: ignore[call-overload]

    def says(self, command: str, **settings: str) -> str:
        ran = subprocess.run(["bash", "-c", command], cwd=ROOT, env=self.env | settings, capture_output=True, text=True)
        assert ran.returncode == 0, f"{command}\n{ran.stdout}{ran.stderr}"
        return ran.stdout


@pytest.fixture
def shop() -> Iterator[Shop]:
    cluster = Cluster("own-postgresql")
    with in_turn():
        cluster.start(like=prepared(*TABLES))
    made = Shop(cluster)
    for statement in ("drop owned by redtally_backup", "drop role redtally_backup"):  # one's own has none yet
        made.admin(statement)
    yield made
    cluster.destroy()


def get(url: str) -> int:
    try:
        with urllib.request.urlopen(url, timeout=10) as answer:
            return int(answer.status)
    except urllib.error.HTTPError as error:
        return error.code


def test_a_postgresql_of_ones_own_from_its_role_to_a_restored_backup(shop: Shop, tmp_path: Path) -> None:
    """Sections “Several web processes, your own PostgreSQL”, “Making a workshop” and “Backups”, in the order a shop would."""
    shop.admin(f"create role shop login password '{shop.password}'")
    shop.admin("create database book owner shop")
    own = {"RT_DATABASE_URL": shop.url("book")}
    shop.says("./start --setup --no-demo", **own)
    word = shop.says(".venv/bin/python server/manage.py first_word", **own).strip()
    assert re.fullmatch(r"\w{4}(-\w{4}){3}", word)
    add = 'add_workshop "Name" --user NAME --shown "Shown Name"'
    shop.says(f".venv/bin/python server/manage.py {add}", **own, RT_NEW_PASSWORD="low-tide-by-noon")
    link = shop.says(".venv/bin/python server/manage.py password_link NAME", **own).strip()
    assert link.startswith("/reset#")
    shop.says(".venv/bin/python server/manage.py tidy", **own)

    file, folder = tmp_path / "all.tar", tmp_path / "copies"
    statement = re.search(r"^create role redtally_backup .*;$", PAGE, re.M)
    assert statement
    shop.admin(statement[0].replace("…", shop.password))
    own["RT_BACKUP_URL"] = shop.url("book", "redtally_backup")
    shop.says(f"tools/backup {file}", **own)
    shop.says(f"tools/backup --into {folder} --keep 14 --days 60", **own)
    shop.says(f"tools/restore {file} --check", **own)
    assert len(list(folder.glob("*.tar"))) == 1
    shop.admin("create database again owner shop")
    again = {"RT_DATABASE_URL": shop.url("again"), "RT_BACKUP_URL": shop.url("again", "redtally_backup")}
    shop.says(f"tools/restore {file}", **again)

    port = free_port()
    serving = subprocess.Popen(["./start", "--port", str(port)], cwd=ROOT, env=shop.env | again, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, start_new_session=True, text=True)  # fmt: skip
    try:
        wait_ready(f"http://127.0.0.1:{port}")
        with psycopg.connect(again["RT_DATABASE_URL"]) as connection:
            assert connection.execute("select name, demo from workshops_workshop").fetchall() == [("Name", False)]
        assert (get(f"http://127.0.0.1:{port}/healthz"), get(f"http://127.0.0.1:{port}/readyz")) == (200, 200)
        shop.cluster.stop()
        end = time.monotonic() + 60
        while get(f"http://127.0.0.1:{port}/readyz") == 200 and time.monotonic() < end:
            time.sleep(0.1)
        assert (get(f"http://127.0.0.1:{port}/healthz"), get(f"http://127.0.0.1:{port}/readyz")) == (200, 503)
    finally:
        serving.terminate()
        serving.wait(timeout=120)
        if serving.stdout:
            serving.stdout.close()


def test_the_address_with_its_password_opens_the_book(shop: Shop) -> None:
    """`tools/pg url`: the own cluster lets nobody in without it."""
    with psycopg.connect(shop.cluster.url) as connection:
        assert connection.execute("select count(*) from workshops_workshop").fetchone() == (0,)
    with pytest.raises(psycopg.OperationalError, match="password"):
        psycopg.connect(re.sub(r":[^:@/]+@", ":wrong@", shop.cluster.url))
