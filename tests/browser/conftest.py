"""A real server with the demo kitchen, and pages that fail a test when anything goes wrong in them."""

import os
import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import expect

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = shutil.which("chromium") or shutil.which("chromium-browser")
ARGUMENTS = [
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip


expect.set_options(timeout=20_000)  # a slow machine is no failure


class Server:
    """`manage.py serve` as a cook starts it, in a process of its own."""

    def __init__(self, data, *options):
        self.data, self.options, self.process = data, options, None
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"

    def start(self, *options):
        command = [sys.executable, "manage.py", "serve", "--port", str(self.port), *(options or self.options)]
        environment = {**os.environ, "KEMBLE_DATA": str(self.data)}
        self.process = subprocess.Popen(
            command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT
        )
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                urllib.request.urlopen(f"{self.url}/api/session", timeout=2)
                return self
            except OSError:
                if self.process.poll() is not None:
                    raise RuntimeError(self.process.stdout.read().decode()) from None
        raise RuntimeError("the server did not answer within a minute")

    def stop(self):
        self.process.terminate()
        self.process.wait(timeout=20)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": CHROMIUM, "args": ARGUMENTS}


@pytest.fixture(scope="session")
def demo(tmp_path_factory):
    """The demo kitchen. Shared: a test that must not meet another's changes takes `kitchen`."""
    server = Server(tmp_path_factory.mktemp("demo"), "--demo").start()
    yield server
    server.stop()


@pytest.fixture
def kitchen(tmp_path):
    """A demo kitchen of the test's own, which it may stop and start."""
    server = Server(tmp_path / "data", "--demo").start()
    yield server
    server.stop()


@pytest.fixture
def empty_kitchen(tmp_path):
    server = Server(tmp_path / "data").start()
    yield server
    server.stop()


@pytest.fixture
def watched(page):
    """The page, with everything that went wrong in it. Anything from outside counts."""
    wrong = []
    page.on("pageerror", lambda error: wrong.append(f"error: {error}"))
    page.on(
        "console",
        lambda message: (
            wrong.append(f"console: {message.text}")
            if message.type == "error" and "status of 4" not in message.text and "net::ERR_" not in message.text
            else None
        ),
    )
    page.on(
        "request",
        lambda request: (
            wrong.append(f"outside: {request.url}")
            if not request.url.startswith(("http://127.0.0.1:", "data:", "blob:"))
            else None
        ),
    )
    page.set_viewport_size({"width": 1280, "height": 800})
    yield page
    assert wrong == []
