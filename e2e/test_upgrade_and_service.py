"""Upgrading backs up first and stops where something does not work; the service unit is one systemd takes."""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

import pytest

from e2e.support.installation import ROOT


class Checkout:
    """A checkout of a small repository with this project's upgrade, whose backup and start only write down that they ran."""

    def __init__(self, at: Path) -> None:
        self.origin, self.here = at / "origin", at / "here"
        (self.origin / "tools").mkdir(parents=True)
        shutil.copy(ROOT / "tools" / "upgrade", self.origin / "tools" / "upgrade")
        self.stub("tools/backup", 'echo "backup of $(cat version)" >> ../ran; touch "$1"')
        self.stub("start", 'echo "start $1 of $(cat version)" >> ../ran')
        (self.origin / ".gitignore").write_text(".data\n")
        self.git("init", "-q", "-b", "main")
        self.release("one")
        subprocess.run(["git", "clone", "-q", str(self.origin), str(self.here)], check=True)

    def git(self, *words: str) -> None:
        who = ["-c", "user.name=x", "-c", "user.email=x@x.example"]
        subprocess.run(["git", *who, *words], cwd=self.origin, check=True)

    def stub(self, name: str, does: str) -> None:
        path = self.origin / name
        path.write_text(f"#!/bin/sh\nset -e\n{does}\n")
        path.chmod(0o755)

    def release(self, version: str) -> None:
        (self.origin / "version").write_text(version)
        self.git("add", "-A")
        self.git("commit", "-qm", version)

    def upgrade(self) -> subprocess.CompletedProcess[str]:
        return subprocess.run(["tools/upgrade"], cwd=self.here, capture_output=True, text=True)

    @property
    def ran(self) -> list[str]:
        path = self.here.parent / "ran"
        return path.read_text().splitlines() if path.exists() else []


@pytest.fixture
def checkout(tmp_path: Path) -> Checkout:
    return Checkout(tmp_path)


def test_a_backup_of_the_old_version_comes_first(checkout: Checkout) -> None:
    checkout.release("two")
    done = checkout.upgrade()
    assert done.returncode == 0, done.stderr
    assert checkout.ran == ["backup of one", "start --setup of two"]
    assert len(list((checkout.here / ".data" / "backups").glob("before-upgrade-*.tar"))) == 1


def test_where_the_backup_fails_nothing_else_is_done(checkout: Checkout) -> None:
    checkout.stub("tools/backup", "exit 1")
    checkout.release("one and a half")
    subprocess.run(["git", "pull", "-q"], cwd=checkout.here, check=True)
    checkout.release("two")
    done = checkout.upgrade()
    assert done.returncode == 1
    assert "nothing else was done" in done.stderr
    assert (checkout.here / "version").read_text() == "one and a half"


def test_a_set_up_that_fails_says_the_way_back(checkout: Checkout) -> None:
    checkout.stub("start", "exit 1")
    checkout.release("two")
    done = checkout.upgrade()
    assert done.returncode == 1
    assert "git checkout" in done.stderr
    assert "tools/restore .data/backups/before-upgrade-" in done.stderr


def test_a_changed_program_is_left_alone(checkout: Checkout) -> None:
    (checkout.here / "version").write_text("mine")
    done = checkout.upgrade()
    assert (done.returncode, checkout.ran) == (1, [])
    assert "git stash" in done.stderr


def test_the_unit_is_one_systemd_takes(tmp_path: Path) -> None:
    made = subprocess.run(
        ["tools/service", "--host", "0.0.0.0", "--https"], cwd=ROOT, check=True, stdout=subprocess.PIPE, text=True
    )
    assert f"ExecStart={ROOT}/start --host 0.0.0.0 --https\n" in made.stdout
    unit = tmp_path / "red-tally.service"
    unit.write_text(made.stdout)
    if verify := shutil.which("systemd-analyze"):
        checked = subprocess.run([verify, "verify", str(unit)], capture_output=True, text=True)
        assert checked.returncode == 0, checked.stderr
