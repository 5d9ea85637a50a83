"""What a server that has been up for long weighs: over ten thousand requests, and five hundred streams that break off."""

import os
import socket
import sys
import time
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests" / "helpers"))

from promises import amount, measured
from serving import Server, until

READS = ("/runs", "/kitchen", "/session", "/sheets", "/log/3", "/ways")
REQUESTS, STREAMS = amount(10_000, 60), amount(500, 6)
MOST_FILES = 12  # that it may have grown by


def weighs(pid):
    """(MB in memory, files open)."""
    line = next(
        splitline for splitline in Path(f"/proc/{pid}/status").read_text().splitlines() if splitline.startswith("VmRSS")
    )
    return int(line.split()[1]) / 1024, len(os.listdir(f"/proc/{pid}/fd"))


@pytest.fixture
def server(tmp_path, prepared):
    result = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    yield result
    result.stop()


def broken_off(server, name):
    """A stream that is listened to for a moment, and left without a word."""
    head = (
        f"GET /api/{name}/live HTTP/1.1\r\nHost: 127.0.0.1:{server.port}\r\nCookie: sessionid={server.session}\r\n\r\n"
    )
    with socket.create_connection(("127.0.0.1", server.port), timeout=20) as line:
        line.sendall(head.encode())
        line.recv(200)


def test_it_does_not_grow(server):
    pid, hand = server.process.pid, server.hand()

    def read(count):
        for i in range(count):
            assert hand.try_to("GET", f"/api{READS[i % len(READS)]}")[0] == 200

    time.sleep(amount(10, 0))  # until it has loaded what it loads after the first page (serve.py)
    read(amount(1_000, 20))  # and keeps what it keeps
    before, files = weighs(pid)
    read(REQUESTS)
    after, _ = weighs(pid)
    for i in range(STREAMS):
        broken_off(server, ("scale", "probe")[i % 2])
    until(lambda: weighs(pid)[1] <= files + MOST_FILES)
    streamed, now = weighs(pid)
    print(
        f"\n  {before:.0f} MB; after {REQUESTS:,} requests {after:.0f}, after {STREAMS} streams {streamed:.0f} MB;"
        f" files {files} to {now}"
    )
    measured("memory", streamed - before)
