"""The core's tests run without Django too: then nobody else knows the one setting that is for it."""

import pytest
from hypothesis import settings

settings.register_profile("any machine", deadline=None)  # how long a case takes says nothing of whether it is right
settings.load_profile("any machine")


def pytest_addoption(parser: pytest.Parser, pluginmanager: pytest.PytestPluginManager) -> None:
    if not pluginmanager.hasplugin("django"):
        parser.addini("DJANGO_SETTINGS_MODULE", "not for these tests")
