"""A real server in a process of its own, and a hand that asks it as a page would."""

import http.client
import json
import multiprocessing
import os
import re
import shutil
import socket
import sqlite3
import subprocess
import sys
import time
import uuid
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from datetime import datetime, timedelta
from pathlib import Path

from filelock import FileLock

ROOT = Path(__file__).resolve().parents[2]
# The shell is the same browser without a window to draw: a page costs it less than half.
CHROMIUM = next(filter(None, map(shutil.which, ("chromium-headless-shell", "chromium", "chromium-browser"))), None)
ARGUMENTS = [
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip

QUICK = {
    "DJANGO_SETTINGS_MODULE": "quick_settings",
    "PYTHONPATH": str(ROOT / "tests" / "helpers"),
}  # tries at a password cost little
PAUSE_S = 0.02  # between two tries at a server that does not answer; whoever spins takes its time from it


def until(told, within_s=60):
    """Ask until what is told is so, and give it."""
    end = time.monotonic() + within_s
    while not (result := told()):
        assert time.monotonic() < end, "it did not come to be"
        time.sleep(PAUSE_S)
    return result


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def forking():
    """Forks of a process in which loaded_server.py was imported: a second and a half of processor, spent once for all."""
    helpers = QUICK["PYTHONPATH"]
    if helpers not in os.environ.get("PYTHONPATH", "").split(os.pathsep):
        os.environ["PYTHONPATH"] = os.pathsep.join(filter(None, (helpers, os.environ.get("PYTHONPATH"))))
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload(["loaded_server"])
    return context


def run_in_fork(*told):
    from loaded_server import run_command

    run_command(*told)


def run_forked(command, arguments, environment):
    """What `manage.py` ("manage") or `kemble` says and how it ends, as subprocess.run() tells it."""
    context = forking()
    pipes = [context.Pipe(duplex=False) for _ in range(2)]
    process = context.Process(target=run_in_fork, args=(command, arguments, environment, *(end for _, end in pipes)))
    process.start()
    for _, end in pipes:
        end.close()
    with ThreadPoolExecutor(2) as pool:
        texts = list(pool.map(lambda pipe: os.fdopen(os.dup(pipe[0].fileno())).read(), pipes))
    process.join()
    return subprocess.CompletedProcess([command, *arguments], process.exitcode, *texts)


class Server:
    """`manage.py serve` as a cook starts it, come into with the key that it prints.

    Forked from a process that has loaded the libraries, since tests start it often; `afresh` starts the command itself.
    """

    def __init__(self, data, *options, afresh=False, **environment):
        self.data, self.options, self.afresh = Path(data), options, afresh
        self.process = self.said = None
        own = {"DJANGO_SETTINGS_MODULE": "kemble.site.settings", "KEMBLE_DATA": str(data)}  # not those of whoever tests
        self.environment = {**os.environ, **own, **environment}
        self.environment.pop("PYTHONDONTWRITEBYTECODE", None)  # compiled once, started often
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.key = self.session = None

    @property
    def is_up(self):
        return (self.process.poll() is None) if self.afresh else self.process.is_alive()

    def _begin(self, *arguments):
        if self.afresh:
            self.process = subprocess.Popen(
                [sys.executable, "manage.py", *arguments],
                cwd=ROOT, env=self.environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
            )  # fmt: skip
            self.said = self.process.stdout
            return
        context = forking()
        hearing, said = context.Pipe(duplex=False)
        self.process = context.Process(target=run_in_fork, args=("manage", arguments, self.environment, said, said))
        self.process.start()
        said.close()
        self.said = os.fdopen(os.dup(hearing.fileno()))

    def _ended(self, within_s=20):
        wait = self.process.wait if self.afresh else self.process.join
        wait(within_s)
        assert not self.is_up, "it does not stop"
        self.said.close()

    def start(self, *options, come_in=True):
        self._begin("serve", "--port", str(self.port), *(options or self.options))
        heard = []
        for line in self.said:  # it prints where it is before it answers
            heard.append(line)
            if line.startswith("Kemble is at"):
                match = re.search(r"#key=(\S+)", line)
                self.key = match and match[1]
                break
        else:
            raise RuntimeError("".join(heard))
        hand = Hand(self.port)
        while hand.try_to("GET", "/api/session")[0] is None:
            if not self.is_up:
                raise RuntimeError(self.said.read())
            time.sleep(PAUSE_S)
        if come_in and self.session is None and self.key:
            self.session = hand.come_in(self.key)
        return self

    def hand(self):
        """A browser of the owner's."""
        hand = Hand(self.port)
        hand.cookies["sessionid"] = self.session
        return hand

    @property
    def cookie(self):
        """What lets Playwright's browser in."""
        return {"name": "sessionid", "value": self.session, "url": self.url}

    def manage(self, *arguments):
        """What a command of `manage.py` says and how it ends, as subprocess.run() tells it."""
        return run_forked("manage", arguments, self.environment)

    def stop(self):
        self.process.terminate()
        self._ended()

    def kill(self):
        """As a power cut would: nothing is closed, nothing is said."""
        self.process.kill()
        self._ended()


class Prepared:
    """Data folders laid out once and copied: migrations and the demo take longer than most tests.

    Only what lies in the folder is copied; the server that is started on a copy is one like any other.
    """

    def __init__(self, root):
        self.root = Path(root)

    def copy(self, kind, data):
        """A folder of that kind ("empty" or "demo"), as a server left it that was started and stopped."""
        laid_out = self.root / f"prepared-{kind}"
        with FileLock(f"{laid_out}.lock"):
            if not laid_out.exists():
                making = Server(self.root / f"making-{kind}", *(["--demo"] if kind == "demo" else []), afresh=True)
                making.start()
                making.hand().ask("GET", "/sheets")  # so that its cards are worked once, not in every copy
                making.stop()
                making.data.rename(laid_out)
        shutil.copytree(laid_out, data, dirs_exist_ok=True)
        late = timedelta(seconds=time.time() - (laid_out / "kemble.sqlite3").stat().st_mtime)
        with closing(sqlite3.connect(Path(data) / "kemble.sqlite3")) as database, database:
            redate(database, late)
        return data


def redate(database, by):
    """What is cooking in a demo that was laid out a while ago is as far on as if it had been laid out now."""

    def later(text):
        return (datetime.fromisoformat(text) + by).isoformat(" " if " " in text else "T")

    going = "SELECT id, began, clock_began, frozen FROM kitchen_run WHERE finished IS NULL"
    for number, began, clock_began, frozen in database.execute(going).fetchall():
        document = json.loads(frozen)
        plan = document["plan"]
        plan["serve"], plan["begin"] = later(plan["serve"]), later(plan["begin"])
        for scheduled in plan["scheduled"]:
            scheduled["starts"], scheduled["ends"] = later(scheduled["starts"]), later(scheduled["ends"])
        database.execute(
            "UPDATE kitchen_run SET began = ?, clock_began = ?, frozen = ? WHERE id = ?",
            (later(began), later(clock_began), json.dumps(document), number),
        )
        events = database.execute("SELECT id, at FROM kitchen_runevent WHERE run_id = ?", (number,)).fetchall()
        moved = [(later(at), event) for event, at in events]
        database.executemany("UPDATE kitchen_runevent SET at = ? WHERE id = ?", moved)


class Hand:
    """One browser's worth of cookies over plain HTTP."""

    def __init__(self, port, host="127.0.0.1"):
        self.port, self.host, self.cookies = port, host, {}

    def try_to(self, method, path, body=None, text=None, **headers):
        """(status, body), or (None, None) when nobody answers. `text` is a body as it is to go out."""
        sent = {
            "Host": f"{self.host}:{self.port}",
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            **headers,
        }
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)
        try:
            connection.request(method, path, text or (json.dumps(body) if body is not None else None), sent)
            answer = connection.getresponse()
            text = answer.read()
        except (OSError, http.client.HTTPException):
            return None, None
        finally:
            connection.close()
        for line in answer.headers.get_all("Set-Cookie") or []:
            name, _, value = line.partition(";")[0].partition("=")
            self.cookies[name] = value
        readable = "json" in (answer.headers.get("Content-Type") or "")
        return answer.status, json.loads(text) if text and readable else None

    def had(self, path):
        """(status, content) of a file."""
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        cookies = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        connection.request("GET", path, headers={"Host": f"{self.host}:{self.port}", "Cookie": cookies})
        answer = connection.getresponse()
        return answer.status, answer.read()

    def send_file(self, path, content, **fields):
        """The body of the answer to a form with a file in it."""
        if "csrftoken" not in self.cookies:
            self.try_to("GET", "/")
        border = uuid.uuid4().hex
        parts = [
            f'--{border}\r\nContent-Disposition: form-data; name="{name}"\r\n\r\n{value}\r\n'.encode()
            for name, value in fields.items()
        ]
        head = f'--{border}\r\nContent-Disposition: form-data; name="file"; filename="file"\r\n'.encode()
        form = b"".join(
            [*parts, head, b"Content-Type: application/zip\r\n\r\n", content, f"\r\n--{border}--\r\n".encode()]
        )
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        sent = {
            "Host": f"{self.host}:{self.port}",
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies["csrftoken"],
            "Content-Type": f"multipart/form-data; boundary={border}",
        }
        connection.request("POST", path, form, sent)
        answer = connection.getresponse()
        result = json.loads(answer.read())
        assert answer.status == 200, result
        return result

    def ask(self, method, path, body=None):
        """The body of an answer that must be a good one."""
        if method != "GET" and "csrftoken" not in self.cookies:
            self.try_to("GET", "/")
        status, result = self.try_to(method, f"/api{path}", body)
        assert status is not None, f"{method} {path}: nobody answered"
        assert status < 300, f"{method} {path}: {status} {result}"
        return result

    def insist(self, method, path, body):
        """Ask again and again until somebody answers, as a page's queue does; a refusal is handed back."""
        if "csrftoken" not in self.cookies:
            while self.try_to("GET", "/")[0] is None:
                time.sleep(PAUSE_S)
        while True:
            status, result = self.try_to(method, f"/api{path}", body)
            if status is not None and status < 500:
                return status, result
            time.sleep(PAUSE_S)

    def come_in(self, key):
        self.ask("POST", "/session/key", {"key": key})
        return self.cookies["sessionid"]


def new_uid():
    return uuid.uuid4().hex
