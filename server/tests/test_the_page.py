"""The page, the worker that keeps it on a device, and how a page learns that it is old."""

from __future__ import annotations

import os
from pathlib import Path
from typing import Any

import pytest
from django.test import Client


@pytest.fixture
def built(settings: Any, tmp_path: Path) -> Path:
    (tmp_path / "index.html").write_text('<meta name="build" content="__BUILD__"><script nonce="__CSP_NONCE__">')
    (tmp_path / "sw.js").write_text("self.addEventListener('fetch', () => {})")
    settings.WEB_DIST = tmp_path
    return tmp_path


def build_of() -> str:
    return str(Client().get("/api/session")["X-Build"])


@pytest.mark.django_db
def test_page_and_answers_name_the_same_build_and_another_once_another_is_given_out(built: Path) -> None:
    first = build_of()
    assert f'content="{first}"' in Client().get("/drums/MQ-001").content.decode()
    page = built / "index.html"
    page.write_text(page.read_text() + "<p>")
    os.utime(page, ns=(1, 1))  # whatever the clock of the disk makes of two writings in a row
    assert build_of() != first
    (built / "index.html").unlink()
    assert build_of() == ""


@pytest.mark.django_db
def test_the_worker_is_at_the_root_and_never_kept_by_the_way(built: Path) -> None:
    """A worker answers for what lies below it, and is asked for anew: Service Workers (W3C), 2.2 and 'Update'."""
    answer = Client().get("/sw.js")
    assert (answer.status_code, answer["Content-Type"]) == (200, "text/javascript")
    assert "no-cache" in answer["Cache-Control"]
    assert "worker-src 'self'" in Client().get("/")["Content-Security-Policy"]
    (built / "sw.js").unlink()
    assert Client().get("/sw.js").status_code == 503


@pytest.mark.django_db
def test_a_page_that_was_kept_gets_a_token_with_the_session() -> None:
    """The page comes from the device: its cookie may have run out."""
    client = Client(enforce_csrf_checks=True)
    assert "csrftoken" in client.get("/api/session").cookies
    said = {"username": "nobody", "password": "none"}
    token = client.cookies["csrftoken"].value
    refused = client.post("/api/session", said, content_type="application/json", headers={"X-CSRFToken": token})
    assert refused.json()["code"] != "csrf"
