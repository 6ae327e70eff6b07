"""Write docs/formats/archive.schema.json from the tables; tools/client calls it."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "server"))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
os.environ.setdefault("RT_SECRET_KEY", "document-only")
os.environ.setdefault("RT_DATABASE_URL", "postgresql://unused@127.0.0.1/unused")

import django  # noqa: E402

django.setup()

from apps.archive.schema import schema  # noqa: E402

(ROOT / "docs" / "formats" / "archive.schema.json").write_text(
    json.dumps(schema(), indent=1, ensure_ascii=False) + "\n"
)
