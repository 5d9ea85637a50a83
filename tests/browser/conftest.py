"""A real server with the demo kitchen, and pages that fail a test when anything goes wrong in them."""

import pytest
from playwright.sync_api import expect
from serving import ARGUMENTS, CHROMIUM, Server
from watching import watching

PATIENCE_MS = 60_000  # a slow machine is no failure
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": CHROMIUM, "args": ARGUMENTS}


@pytest.fixture
def browser_context_args(browser_context_args):
    """Without the service worker, which fetches the whole shell for every new browser: test_without_network.py lets it in."""
    return {**browser_context_args, "service_workers": "block"}


@pytest.fixture(scope="session")
def demo(tmp_path_factory, prepared):
    """The demo kitchen. Shared: a test that must not meet another's changes takes `kitchen`."""
    server = Server(prepared.copy("demo", tmp_path_factory.mktemp("demo")), "--demo", "--keep").start()
    yield server
    server.stop()


@pytest.fixture
def kitchen(tmp_path, prepared):
    """A demo kitchen of the test's own, which it may stop and start."""
    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    yield server
    server.stop()


@pytest.fixture
def empty_kitchen(tmp_path, prepared):
    server = Server(prepared.copy("empty", tmp_path / "data")).start()
    yield server
    server.stop()


@pytest.fixture
def watched(page, request):
    """The owner's page; the test fails with whatever went wrong in it."""
    for name in ("demo", "kitchen", "empty_kitchen"):
        if name in request.fixturenames:
            page.context.add_cookies([request.getfixturevalue(name).cookie])
    page.set_default_timeout(PATIENCE_MS)
    wrong = watching(page)
    page.set_viewport_size({"width": 1280, "height": 800})
    yield page
    assert wrong == []
