"""Https for the shop's own network: ends TLS and hands what is inside to the web processes, each connection with its sender's address.

Run beside gunicorn by `./start --https`. How the address is handed on: the PROXY protocol, version 1, section 2.1 (one line before the first byte).
The web processes take that line on a socket only this account can reach, so nobody can make an address up.
"""

from __future__ import annotations

import argparse
import asyncio
import contextlib
import signal
import ssl
from typing import Final

HANDSHAKE_S: Final = 10
BLOCK: Final = 64 * 1024


async def _carry(source: asyncio.StreamReader, target: asyncio.StreamWriter) -> None:
    while data := await source.read(BLOCK):
        target.write(data)
        await target.drain()


def introduction(peer: tuple[str, int], here: tuple[str, int]) -> bytes:
    """The line that says who is connected: `PROXY TCP4 from to port port`."""
    family = "TCP6" if ":" in peer[0] else "TCP4"
    return f"PROXY {family} {peer[0]} {here[0]} {peer[1]} {here[1]}\r\n".encode()


async def _relay(inner: str, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
    """One connection, until either end has had enough."""
    with contextlib.closing(writer), contextlib.suppress(OSError, ssl.SSLError):
        up_reader, up_writer = await asyncio.open_unix_connection(inner)
        with contextlib.closing(up_writer):
            up_writer.write(introduction(writer.get_extra_info("peername")[:2], writer.get_extra_info("sockname")[:2]))
            ways = [asyncio.create_task(_carry(reader, up_writer)), asyncio.create_task(_carry(up_reader, writer))]
            _, left = await asyncio.wait(ways, return_when=asyncio.FIRST_COMPLETED)
            for way in left:
                way.cancel()
            await asyncio.gather(*ways, return_exceptions=True)


async def serve(host: str, port: int, inner: str, chain: str, key: str) -> None:
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.minimum_version = ssl.TLSVersion.TLSv1_2
    context.load_cert_chain(chain, key)

    async def each(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        await _relay(inner, reader, writer)

    server = await asyncio.start_server(each, host, port, ssl=context, ssl_handshake_timeout=HANDSHAKE_S)
    ended = asyncio.Event()
    for word in (signal.SIGTERM, signal.SIGINT):
        asyncio.get_running_loop().add_signal_handler(word, ended.set)
    async with server:
        await ended.wait()


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--host", required=True)
    asked.add_argument("--port", type=int, required=True)
    asked.add_argument("--inner", required=True, help="the web processes' socket")
    asked.add_argument("--chain", required=True)
    asked.add_argument("--key", required=True)
    said = asked.parse_args()
    asyncio.run(serve(said.host, said.port, said.inner, said.chain, said.key))


if __name__ == "__main__":
    main()
