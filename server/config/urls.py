"""Addresses: the API, health, and the one page that is the app."""

from django.urls import path, re_path

from config import pages
from config.api import api

urlpatterns = [
    path("healthz", pages.healthz),
    path("readyz", pages.readyz),
    path("sw.js", pages.worker),
    path("api/", api.urls),
    re_path(r"^(?!api/|static/).*$", pages.app),
]
handler400 = "config.one_shape.bad_request"
handler404 = "config.pages.not_found"
handler500 = "config.pages.server_error"
