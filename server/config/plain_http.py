"""Plain http beside https: it shows the way there, hands out the shop's certificate authority, and tells that the server is up. Nothing else."""

from __future__ import annotations

from typing import Final
from urllib.parse import urlsplit

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils.html import format_html

from config.middleware import Handler

AUTHORITY_PATH: Final = "/red-tally-authority.crt"
_OPEN: Final = ("/healthz", "/readyz")
_PAGE: Final = """<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Red Tally: this way</title>
<style nonce="{nonce}">
  :root {{ color-scheme: light dark; --paper: #f5eee2; --ink: #1f231e; }}
  @media (prefers-color-scheme: dark) {{ :root {{ --paper: #14171a; --ink: #ece6d8; }} }}
  body {{ margin: 0; background: var(--paper); color: var(--ink); font: 20px/1.5 system-ui, sans-serif; overflow-wrap: anywhere; }}
  a {{ color: inherit; }}
  main {{ max-width: 38em; margin: 0 auto; padding: 2.5em 1.2em; }}
  h1 {{ font-size: 1.5em; margin: 0 0 .6em; }}
  li {{ margin: 0 0 1em; }}
  a.go {{ display: inline-block; padding: .7em 1.1em; border-radius: .4em; background: var(--ink); color: var(--paper); text-decoration: none; }}
  a:focus-visible {{ outline: 3px solid currentcolor; outline-offset: 3px; }}
</style>
</head>
<body>
<main>
<h1>Red Tally is at<br>{https}</h1>
<p><a class="go" href="{https}">Open it</a></p>
<p>Is this the first time on this device, and does it warn of an unknown certificate? Then, once:</p>
<ol>
<li><a href="{authority}">Get the shop’s certificate</a>. It vouches for this machine and for addresses within the house, for nothing else.</li>
<li>Trust it: in the device’s settings look for “install a certificate”, kind “CA certificate”; some tablets install it as a profile and ask,
under “certificate trust”, to switch it on.</li>
<li><a href="{https}">Open {https}</a>: no warning may be left. Compare the certificate’s fingerprint with the one in the window where Red Tally was started
if the network is not yours alone.</li>
</ol>
</main>
</body>
</html>
"""


def _https(request: HttpRequest) -> str:
    name = urlsplit(f"//{request.get_host()}").hostname or "localhost"
    return f"https://{f'[{name}]' if ':' in name else name}:{settings.HTTPS_PORT}/"


def way_to_https(get_response: Handler) -> Handler:
    def middleware(request: HttpRequest) -> HttpResponse:
        if request.is_secure() or request.path in _OPEN:
            return get_response(request)
        if request.path == AUTHORITY_PATH:
            answer = HttpResponse(settings.AUTHORITY.read_bytes(), content_type="application/x-x509-ca-cert")
            answer["Content-Disposition"] = f'attachment; filename="{AUTHORITY_PATH[1:]}"'
            return answer
        nonce = request.csp_nonce  # type: ignore[attr-defined]
        page = format_html(_PAGE, nonce=nonce, https=_https(request), authority=AUTHORITY_PATH)
        return HttpResponse(page, status=200 if request.method in ("GET", "HEAD") else 403)

    return middleware
