"""How the web processes are run; gunicorn reads this. What differs between installations comes from the environment (docs/running.md)."""

import os
import resource
from typing import Any

os.environ.setdefault("RT_STATEMENT_S", "30")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

wsgi_app = "config.wsgi:application"
worker_class = "config.worker.BufferedWorker"
workers = int(os.environ.get("RT_WORKERS", "2"))
threads = int(os.environ.get("RT_THREADS", "6"))
preload_app = True  # everything is loaded before the first request, once for all processes
control_socket_disable = True
loglevel = "warning"
worker_tmp_dir = "/dev/shm" if os.access("/dev/shm", os.W_OK) else None
graceful_timeout = 25
worker_mb = int(os.environ.get("RT_WORKER_MB", "1400"))


def post_fork(server: Any, worker: Any) -> None:
    """The last line: a process that asks for more memory than this is told there is none, and the machine goes on."""
    if worker_mb:
        resource.setrlimit(resource.RLIMIT_DATA, (worker_mb * 1024**2, worker_mb * 1024**2))
