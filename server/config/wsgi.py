"""WSGI entry for the production server: everything a request may need is loaded here, before the first one comes."""

import gc
import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()

from config.warm import warm_up  # noqa: E402 - Django must be set up first

warm_up()
# What is loaded stays: from now on only what requests make is looked through for what can go (and processes forked from here keep sharing it).
gc.collect()
gc.freeze()
