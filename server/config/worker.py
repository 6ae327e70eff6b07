"""The web process: requests are taken in whole before a thread is given to them, so that slow senders hold up nobody.

Gunicorn starts, watches and replaces the processes; inside each, Waitress reads and writes the sockets in one loop and runs the app in
threads. What is added to it here: a time limit on a request that does not come to its end, a limit on connections from one address, the
one error shape, a thread for `/healthz` alone, whatever the others wait for, and a socket on which `config.relay` says who is connected.
"""

from __future__ import annotations

import json
import os
import socket
import sys
import time
from collections import Counter
from ipaddress import ip_address
from types import FrameType
from typing import Any, Final

from gunicorn.workers.base import Worker
from waitress import wasyncore
from waitress.adjustments import Adjustments
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser, ParsingError
from waitress.server import TcpWSGIServer
from waitress.task import ErrorTask, ThreadedTaskDispatcher

from config.one_shape import refusal

__all__ = ["BufferedWorker"]

REQUEST_S: Final = 60
"""How long a request may take to come in."""
IDLE_S: Final = 60
MOST_CONNECTIONS: Final = 1000
MOST_FROM_ONE: Final = 200
MOST_BODY: Final = 66 * 1024 * 1024
"""A little more than the largest recording that is taken, which the app refuses in words of its own."""
MOST_HEADER: Final = 32 * 1024
STOP_S: Final = 20
LONGEST_INTRODUCTION: Final = 107
"""PROXY protocol, version 1, section 2.1."""


class _Refusal(ErrorTask):
    """What cannot be taken in, in the one error shape."""

    def execute(self) -> None:
        status, _, _ = self.request.error.to_response(None)
        code = int(status.split()[0])
        body = json.dumps(refusal(code)).encode()
        self.status = status
        self.response_headers.append(("Content-Type", "application/json"))
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


class _Request(HTTPRequestParser):
    """One request; a first line in letters that no address has is answered like any other that cannot be understood."""

    def parse_header(self, header_plus: bytes) -> None:
        if not header_plus.partition(b"\n")[0].isascii():
            raise ParsingError("The first line is not in ASCII (RFC 9112, section 3)")
        super().parse_header(header_plus)


class _SecureRequest(_Request):
    """What came in over https."""

    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        self.url_scheme = "https"


class _Channel(HTTPChannel):
    """One connection; knows since when a request has been coming in, and from whom."""

    parser_class = _Request
    error_task_class = _Refusal
    began: float | None = None
    introduction: bytes | None = None
    """Of one handed on by the relay: what has come of the line that says from whom."""

    def introduced(self, data: bytes) -> bytes:
        """Take in the relay's line; what follows it."""
        line, ended, rest = ((self.introduction or b"") + data).partition(b"\r\n")
        self.introduction = None if ended else line
        if ended:
            word, _, sender, _, port, _ = line.decode("ascii", "replace").split(" ")
            if word != "PROXY":
                raise ValueError(word)
            self.addr = (str(ip_address(sender)), int(port))
            self.parser_class = _SecureRequest
            self.server.count(self)
        elif len(line) > LONGEST_INTRODUCTION:
            raise ValueError("no end")
        return rest

    def received(self, data: bytes) -> bool:
        if self.introduction is not None:
            try:
                data = self.introduced(data)
            except ValueError:
                self.will_close = True
                return False
        taken = bool(super().received(data))
        self.began = None if self.request is None else (self.began or time.time())
        return taken


class _Server(TcpWSGIServer):
    channel_class = _Channel

    def __init__(self, *words: Any, **more: Any) -> None:
        super().__init__(*words, **more)
        self.health = ThreadedTaskDispatcher()
        self.health.set_thread_count(1)

    def add_task(self, task: _Channel) -> None:
        of_health = all(each.error is None and each.path == "/healthz" for each in task.requests)
        (self.health if of_health else self.task_dispatcher).add_task(task)

    def maintenance(self, now: float) -> None:
        super().maintenance(now)
        for channel in self.active_channels.values():
            if channel.began and now - channel.began > REQUEST_S:
                channel.will_close = True

    def handle_accept(self) -> None:
        super().handle_accept()
        newest = next(reversed(self.active_channels.values()), None)
        if newest is None or newest.addr[0] == self.adj.trusted_proxy:
            return
        self.count(newest)

    def count(self, newest: _Channel) -> None:
        """One more from this address; one too many is closed."""
        if Counter(each.addr[0] for each in self.active_channels.values())[newest.addr[0]] > MOST_FROM_ONE:
            newest.will_close = True


class _RelayedChannel(_Channel):
    """One connection that the relay hands on: it begins with the line that says from whom."""

    introduction = b""


class _RelayServer(_Server):
    """On a socket of this machine that its owner alone can reach."""

    channel_class = _RelayedChannel

    def getsockname(self) -> tuple[str, str]:
        return ("unix", "")

    def set_socket_options(self, conn: socket.socket) -> None:
        """There are none to set."""

    def fix_addr(self, addr: object) -> tuple[str, int]:
        return ("", 0)

    def handle_accept(self) -> None:
        TcpWSGIServer.handle_accept(self)  # counted once it is known from whom


class BufferedWorker(Worker):
    """A Waitress server in a gunicorn process."""

    def run(self) -> None:
        settings: dict[str, Any] = {
            "threads": self.cfg.threads,
            "channel_timeout": IDLE_S,
            "cleanup_interval": 5,
            "connection_limit": MOST_CONNECTIONS,
            "max_request_body_size": MOST_BODY,
            "max_request_header_size": MOST_HEADER,
            "asyncore_use_poll": True,
            "clear_untrusted_proxy_headers": True,
            "ident": None,
        }
        if proxy := os.environ.get("RT_PROXY", ""):
            settings |= {"trusted_proxy": proxy, "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"}}
        adjustments, listeners = Adjustments(**settings), [each.sock for each in self.sockets]
        dispatcher = ThreadedTaskDispatcher()
        sockets: dict[int, Any] = {}
        dispatcher.set_thread_count(adjustments.threads)
        servers = [
            (_RelayServer if sock.family == socket.AF_UNIX else _Server)(
                self.wsgi, sockets, True, sock, dispatcher=dispatcher, adj=adjustments, bind_socket=False,
                sockinfo=(sock.family, sock.type, sock.proto, sock.getsockname()))
            for sock in listeners
        ]  # fmt: skip
        while self.alive and self.ppid == os.getppid():
            self.notify()
            servers[0].asyncore.loop(timeout=1, map=sockets, use_poll=True, count=1)
        for server in servers:
            server.accepting = False
            wasyncore.dispatcher.close(server)  # no new ones; what is in hand is answered
        self._finish(servers[0], dispatcher, sockets)

    def _finish(self, server: _Server, dispatcher: ThreadedTaskDispatcher, sockets: dict[int, Any]) -> None:
        """Answer what is being worked on, then go."""
        end = time.monotonic() + STOP_S
        while time.monotonic() < end and (
            dispatcher.queue
            or dispatcher.active_count
            or any(getattr(each, "total_outbufs_len", 0) for each in sockets.values())
        ):
            self.notify()
            server.asyncore.loop(timeout=0.1, map=sockets, use_poll=True, count=1)
        dispatcher.shutdown(timeout=1)

    def handle_quit(self, sig: int, frame: FrameType | None) -> None:
        self.alive = False
        sys.exit(0)
