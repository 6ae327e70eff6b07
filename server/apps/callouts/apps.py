"""Call-outs keep which rod is in which drum, and hear when a loan is over."""

from __future__ import annotations

from django.apps import AppConfig


class CallOutsConfig(AppConfig):
    name = "apps.callouts"

    def ready(self) -> None:
        from apps.callouts.given_back import never_lent, rod_is_away, rod_is_back
        from apps.stock.loans import begun, ended, undone

        begun.connect(rod_is_away, dispatch_uid="callouts.rod_is_away")
        ended.connect(rod_is_back, dispatch_uid="callouts.rod_is_back")
        undone.connect(never_lent, dispatch_uid="callouts.never_lent")
