"""Shared by all tests: kitchens made ready once, the long ones first."""

import pytest
from hypothesis import settings
from serving import Prepared
from thorough import examples

# How long an example takes is the machine's affair: speed is measured in `make bench`.
settings.register_profile("untimed", deadline=None, max_examples=examples(100))
settings.load_profile("untimed")


@pytest.fixture(scope="session")
def prepared(tmp_path_factory, worker_id):
    """Kitchens to copy: an empty one and the demo, each laid out once for all workers."""
    base = tmp_path_factory.getbasetemp()
    return Prepared(base if worker_id == "master" else base.parent)


def pytest_collection_modifyitems(items):
    """What takes minutes begins first, so that no worker is left alone with it at the end.

    Playwright's loop stays the running one of its process, and dies when another test runs one of its own there.
    """
    browser = {"tests/browser/" in item.nodeid for item in items}
    if len(browser) > 1:
        raise pytest.UsageError("The browser's tests run in a process of their own: pytest tests/browser.")
    items.sort(key=lambda item: "test_processes" not in item.nodeid)
