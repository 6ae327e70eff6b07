"""Https on the shop's network, as docs/running.md has it: `./start --https`, the certificate trusted once, and all that browsers keep for https."""

from __future__ import annotations

import base64
import contextlib
import hashlib
import http.client
import json
import signal
import socket
import ssl
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

from e2e.support.browser import Browser
from e2e.support.installation import Installation, Server, free_port
from e2e.test_start_and_stop import Started, of_group

NAME = "bench.shop.example"


class Shop:
    """`./start --https` on the demo, and the folder its certificates lie in."""

    def __init__(self, installation: Installation, folder: Path) -> None:
        self.folder, self.port = folder, free_port()
        settings = {
            "RT_DATABASE_URL": installation.cluster.url,
            "RT_SECRET_KEY": "over-https",
            "RT_CERTIFICATES": str(folder),
            "RT_ALLOWED_HOSTS": f"127.0.0.1,localhost,{NAME}",
        }
        self.started = Started(settings, "--demo", "--https", "--https-port", str(self.port))
        self.started.ready()

    def context(self) -> ssl.SSLContext:
        """A device that was told to trust the shop's authority and nothing else."""
        return ssl.create_default_context(cafile=str(self.folder / "authority.crt"))

    def ask(
        self, method: str, path: str, body: object = None, name: str = "127.0.0.1", source: str = "", **headers: str
    ) -> tuple[int, str]:
        raw = socket.create_connection(
            ("127.0.0.1", self.port), timeout=30, source_address=(source, 0) if source else None
        )
        with self.context().wrap_socket(raw, server_hostname=name) as secured:
            connection = http.client.HTTPConnection(name, self.port)
            connection.sock = secured
            token = {
                "Cookie": "csrftoken=" + "a" * 32,
                "X-CSRFToken": "a" * 32,
                "Referer": f"https://{name}:{self.port}/",
            }
            data = json.dumps(body) if body is not None else None
            connection.request(method, path, data, {"Content-Type": "application/json", **token, **headers})
            answer = connection.getresponse()
            return answer.status, answer.read().decode()

    def key_hash(self) -> str:
        words = ["openssl", "x509", "-in", str(self.folder / "server.crt"), "-pubkey", "-noout"]
        pem = subprocess.run(words, check=True, capture_output=True, text=True).stdout
        der = base64.b64decode("".join(pem.splitlines()[1:-1]))
        return base64.b64encode(hashlib.sha256(der).digest()).decode()


@pytest.fixture(scope="module")
def shop(installation: Installation, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Shop]:
    opened = Shop(installation, tmp_path_factory.mktemp("certificates"))
    yield opened
    assert opened.started.end(signal.SIGINT) == 0
    assert of_group(opened.started.process.pid) == []


def test_the_certificate_holds_for_the_machine_and_vouches_for_nobody_else(shop: Shop, tmp_path: Path) -> None:
    for name in ("127.0.0.1", "localhost", NAME):
        assert shop.ask("GET", "/healthz", name=name) == (200, '{"ok": true}')
    with pytest.raises(ssl.SSLCertVerificationError, match=r"Hostname mismatch|not valid for"):
        shop.ask("GET", "/healthz", name="elsewhere.example")
    for kept in ("authority.key", "server.key"):
        assert (shop.folder / kept).stat().st_mode & 0o077 == 0
    # Who gets hold of the authority's key can still not vouch for another site (RFC 5280, 4.2.1.10).
    authority = shop.folder
    forged = {"key": tmp_path / "forged.key", "csr": tmp_path / "forged.csr", "crt": tmp_path / "forged.crt"}
    more = tmp_path / "more"
    more.write_text("subjectAltName=DNS:bank.example\n")
    for words in (
        ["req", "-new", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes", "-subj", "/CN=x", "-keyout", forged["key"], "-out", forged["csr"]],
        ["x509", "-req", "-in", forged["csr"], "-CA", authority / "authority.crt", "-CAkey", authority / "authority.key", "-set_serial", "7", "-extfile", more, "-out", forged["crt"]],
    ):  # fmt: skip
        subprocess.run(["openssl", *map(str, words)], check=True, capture_output=True)
    verified = subprocess.run(
        ["openssl", "verify", "-CAfile", str(authority / "authority.crt"), str(forged["crt"])],
        capture_output=True,
        text=True,
    )
    assert verified.returncode != 0
    assert "permitted subtree violation" in verified.stderr


def test_a_certificate_that_serves_stays_and_a_new_name_keeps_the_authority(tmp_path: Path) -> None:
    """A new authority would have to be trusted by every tablet anew."""

    def made(*names: str) -> tuple[bytes, bytes]:
        subprocess.run(["tools/certificate", str(tmp_path / "c"), *names], check=True, capture_output=True)
        return (tmp_path / "c" / "authority.crt").read_bytes(), (tmp_path / "c" / "server.crt").read_bytes()

    first = made("192.168.1.5", NAME)
    assert made("192.168.1.5") == first
    other_address = made("192.168.1.9", NAME)  # what the network gave the machine this morning
    assert other_address[0] == first[0]
    assert other_address[1] != first[1]
    assert made("other.example")[0] != first[0]


def test_a_tablet_signs_in_and_has_what_browsers_keep_for_https(shop: Shop) -> None:
    browser = Browser(f"https://{NAME}:{shop.port}", called=NAME, trusts=shop.key_hash())
    try:
        browser.sign_in()
        assert browser.script("return isSecureContext && !!navigator.mediaDevices && 'serviceWorker' in navigator")
        cookies = {each["name"]: each for each in browser.driver.get_cookies()}
        assert cookies["sessionid"]["secure"]
        assert cookies["csrftoken"]["secure"]
        browser.sees("Today")
        assert browser.console_errors() == []
    finally:
        browser.close()


def test_plain_http_shows_the_way_and_gives_nothing_else(shop: Shop) -> None:
    browser = Browser(f"http://{NAME}:{shop.started.port}", called=NAME)
    try:
        browser.go("/drums/MQ-052")
        browser.sees("Get the shop’s certificate")
        ways = browser.script("return [...document.querySelectorAll('a')].map((each) => each.href)")
        assert ways[0] == f"https://{NAME}:{shop.port}/"
    finally:
        browser.close()
    plain = http.client.HTTPConnection("127.0.0.1", shop.started.port, timeout=30)
    plain.request("GET", "/red-tally-authority.crt")
    assert plain.getresponse().read() == (shop.folder / "authority.crt").read_bytes()
    plain.request(
        "POST",
        "/api/session",
        json.dumps({"username": "bram", "password": "slack-water-41"}),
        {"Content-Type": "application/json"},
    )
    refused = plain.getresponse()
    assert (refused.status, refused.getheader("Set-Cookie")) == (403, None)


def test_the_lock_out_knows_devices_apart_through_the_relay(shop: Shop) -> None:
    """One device's wrong tries shut out that device, not a colleague's; what it says of itself counts for nothing."""
    wrong, right = {"username": "bram", "password": "no"}, {"username": "bram", "password": "slack-water-41"}
    made_up = [
        shop.ask("POST", "/api/session", wrong, source="127.0.0.2", **{"X-Forwarded-For": f"203.0.113.{n}"})[0]
        for n in range(8)
    ]
    assert made_up[-1] == 429
    assert shop.ask("POST", "/api/session", right, source="127.0.0.2")[0] == 429
    assert shop.ask("POST", "/api/session", right, source="127.0.0.3")[0] == 200


def test_nobody_can_pretend_to_be_the_relay(shop: Shop) -> None:
    """The line that says who is connected counts on the relay's own socket alone, and a broken one there ends the connection."""
    with socket.create_connection(("127.0.0.1", shop.started.port), timeout=30) as plain:
        plain.sendall(b"PROXY TCP4 203.0.113.9 127.0.0.1 4000 443\r\nGET /healthz HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
        assert b" 200 " not in plain.recv(4096)
    (inner,) = [
        line.split()[-1] for line in Path("/proc/net/unix").read_text().splitlines() if line.endswith("/web.sock")
    ]
    assert Path(inner).parent.stat().st_mode & 0o077 == 0
    for words in (b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n", b"PROXY TCP4 nobody 127.0.0.1 1 2\r\n", b"P" * 400):
        with socket.socket(socket.AF_UNIX) as raw:
            raw.settimeout(30)
            raw.connect(inner)
            raw.sendall(words)
            with contextlib.suppress(ConnectionResetError):
                assert raw.recv(4096) == b""


def test_a_declared_proxy_is_believed_and_nobody_else(installation: Installation) -> None:
    """A proxy of one's own in front (`RT_PROXY`): the address it adds counts; the same header from elsewhere does not."""
    server = Server(
        installation.cluster.url, workers=1, extra={"RT_PROXY": "127.0.0.1", "RT_ALLOWED_HOSTS": "127.0.0.1"}
    )
    server.start()

    def sign_in(password: str, client: str, source: str = "127.0.0.1") -> int:
        connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=30, source_address=(source, 0))
        token = {"Cookie": "csrftoken=" + "a" * 32, "X-CSRFToken": "a" * 32}
        body = json.dumps({"username": "ines", "password": password})
        connection.request(
            "POST", "/api/session", body, {"Content-Type": "application/json", "X-Forwarded-For": client, **token}
        )
        return connection.getresponse().status

    try:
        assert [sign_in("no", "198.51.100.7") for _ in range(7)][-1] == 429
        assert sign_in("slack-water-41", "198.51.100.7") == 429
        assert sign_in("slack-water-41", "198.51.100.8") == 200
        # What a client wrote into the header itself stands before what the proxy added, and does not count.
        assert sign_in("slack-water-41", "198.51.100.8, 198.51.100.7") == 429
        assert [sign_in("no", f"198.51.100.{n}", source="127.0.0.2") for n in range(20, 28)][-1] == 429
    finally:
        server.stop()
