"""Print the API's OpenAPI document, the same every time."""

from __future__ import annotations

import json

from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Print the OpenAPI document of the API."
    requires_system_checks = []

    def handle(self, *args: object, **options: object) -> None:
        from config.api import api

        document = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))  # text keys throughout
        self.stdout.write(json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False))
