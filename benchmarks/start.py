"""Set-up and start times by step: a fresh clone (cold), the same again (warm), and from the command to the first answer."""

from __future__ import annotations

import re
import signal
import subprocess
import tempfile
import time
import urllib.request
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]


def serve(clone: Path) -> tuple[float, list[str]]:
    """Seconds from ./start to the first page, and the lines it said meanwhile."""
    began, said = time.perf_counter(), []
    process = subprocess.Popen(["./start", "--port", "8642"], cwd=clone, stderr=subprocess.PIPE, text=True)
    assert process.stderr is not None
    address = None
    for line in process.stderr:
        said.append(line.rstrip())
        if match := re.search(r"http://[\d.]+:\d+", line):
            address = match[0]
            break
    assert address, "\n".join(said)
    while True:
        try:
            with urllib.request.urlopen(address, timeout=2):
                break
        except OSError:
            time.sleep(0.02)
    took = time.perf_counter() - began
    process.send_signal(signal.SIGINT)
    process.wait(timeout=30)
    return took, said


def main() -> None:
    with tempfile.TemporaryDirectory(prefix="red-tally-bench-", dir="/var/tmp") as folder:
        clone = Path(folder) / "clone"
        subprocess.run(["git", "clone", "--quiet", str(ROOT), str(clone)], check=True)
        for name in ("cold", "warm", "warm again"):
            took, said = serve(clone)
            print(f"{name}: {took:.1f} s from ./start to the first page")
            print("\n".join(f"  {line.strip()}" for line in said if re.search(r"\d s$", line)))
        subprocess.run(["tools/pg", "destroy"], cwd=clone, check=True)


if __name__ == "__main__":
    main()
