"""The core's tests run without Django too: then nobody else knows the one setting that is for it."""

import pytest


def pytest_addoption(parser: pytest.Parser, pluginmanager: pytest.PytestPluginManager) -> None:
    if not pluginmanager.hasplugin("django"):
        parser.addini("DJANGO_SETTINGS_MODULE", "not for these tests")
