"""Call-outs keep which rod is in which drum, and hear when a loan is over."""

from __future__ import annotations

from django.apps import AppConfig


class CallOutsConfig(AppConfig):
    name = "apps.callouts"

    def ready(self) -> None:
        from apps.callouts.given_back import rod_is_back
        from apps.stock.loans import ended

        ended.connect(rod_is_back, dispatch_uid="callouts.rod_is_back")
