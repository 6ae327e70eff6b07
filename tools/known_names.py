"""No procedure is known by name outside the core's catalogue, the demo and tests: a lint for CI."""

from __future__ import annotations

import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "core" / "src"))

from drumwork.procedures.catalogue import CATALOGUE  # noqa: E402

PLACES = ("server/apps", "web/src")
ALLOWED = ("/demo/", "/tests/", ".test.", "/migrations/", "schema.d.ts")
KINDS = (".py", ".ts", ".tsx")


def main() -> int:
    found = 0
    for place in PLACES:
        for path in sorted((ROOT / place).rglob("*")):
            name = path.relative_to(ROOT).as_posix()
            if path.suffix not in KINDS or any(each in f"/{name}" for each in ALLOWED):
                continue
            for number, line in enumerate(path.read_text().splitlines(), start=1):
                for known in CATALOGUE:
                    if f'"{known}"' in line or f"'{known}'" in line or f"={known}" in line:
                        print(f"{name}:{number}: names the procedure “{known}”; ask the catalogue instead")
                        found += 1
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
