"""Print the API's OpenAPI document, the same every time."""

from __future__ import annotations

import json

from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Print the OpenAPI document of the API."
    requires_system_checks = []

    def handle(self, *args: object, **options: object) -> None:
        from config.api import api

        self.stdout.write(
            json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, sort_keys=True, ensure_ascii=False)
        )
