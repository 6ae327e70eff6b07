"""Print the API's OpenAPI document, the same every time. Needs no database."""

from __future__ import annotations

import json
import os

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
os.environ.setdefault("RT_SECRET_KEY", "document-only")
os.environ.setdefault("RT_DATABASE_URL", "postgresql://unused@127.0.0.1/unused")
django.setup()

from config.api import api  # noqa: E402 - Django must be set up first

document = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))  # text keys throughout
print(json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False))
