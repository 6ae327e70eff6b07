"""A device without a screen, that speaks to a server over HTTP."""

from __future__ import annotations

import http.cookiejar
import json
import time
import urllib.error
import urllib.request
import uuid
from datetime import UTC, datetime

from e2e.support.installation import wait_ready

TRIES, WAIT_S = 60, 0.25


class Device:
    """A device without a screen."""

    def __init__(self, base: str, username: str = "bram") -> None:
        wait_ready(base)
        self.base, self.jar = base, http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(base + "/")
        self.call("POST", "/api/session", {"username": username, "password": "slack-water-41"})

    def call(self, method: str, path: str, body: object = None) -> dict:
        token = next((cookie.value for cookie in self.jar if cookie.name == "csrftoken"), "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token or ""}
        data = json.dumps(body).encode() if body is not None else None
        request = urllib.request.Request(self.base + path, data, headers, method=method)
        for left in reversed(range(TRIES)):
            try:
                with self.opener.open(request) as answer:
                    return json.loads(answer.read() or b"{}")
            except urllib.error.HTTPError as error:
                if error.code != 503 or not left:
                    error.msg += f" {method} {path}: {error.read().decode()}"
                    raise
                time.sleep(WAIT_S)  # a database that comes back: a device asks again
        raise AssertionError("unreachable")

    def start(self, tag: str, part: str = "batter") -> str:
        """A new head on this side."""
        body = {"id": str(uuid.uuid4()), "tag": tag, "work": f"new-{part}-head", "part": part}
        return str(self.call("POST", "/api/bench/jobs", body)["id"])

    def enter(self, job: str, *bodies: dict, device: str = "script", seen: int = 9999) -> list[dict]:
        now = datetime.now(UTC).isoformat()
        events = [
            {"id": str(uuid.uuid4()), "device": device, "seen": seen, "made_at": now, "v": 2, "body": body}
            for body in bodies
        ]
        return list(self.call("POST", f"/api/bench/jobs/{job}/events", {"events": events})["receipts"])
