"""How the web processes are run; gunicorn reads this. What differs between installations comes from the environment (docs/running.md)."""

import os

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
