"""A power cut, as far as a program can make one: the server is killed, and its file system forgets all that was not synced.

The data folder lies in a file system of our own (FUSE), which keeps every write in memory until the file is synced. Cooks
save and tell events; in the middle of it the server is killed with -9 and what was not synced is dropped. Then it is started
again, and everything that it had answered must be there, in a whole database.

Needs Linux with /dev/fuse, libfuse 2 and the package fusepy, which Kemble itself does not: run it with them on the path.
`--unsafe` switches SQLite's syncing off, to see that a loss would be seen.

    python scripts/power_cut.py --cuts 20
"""

from __future__ import annotations

import argparse
import errno
import os
import random
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "tests" / "helpers")]
UNSAFE = """
from kemble.site.settings import *
DATABASES["default"]["OPTIONS"]["init_command"] = "PRAGMA journal_mode=WAL; PRAGMA synchronous=OFF; PRAGMA foreign_keys=ON;"
"""
FORGETS = "user.forget"  # setting this attribute on the root is the power cut


def mount(disk: Path, place: Path) -> None:
    """The file system, in the foreground: `disk` is what a power cut leaves."""
    from fuse import FUSE, FuseOSError, Operations

    class Forgetful(Operations):
        def __init__(self) -> None:
            self.unsynced: dict[str, bytearray] = {}
            self.guard = threading.RLock()

        def real(self, path: str) -> str:
            return str(disk) + path

        def content(self, path: str) -> bytearray:
            """The file as it is to be changed, in memory until it is synced."""
            if path not in self.unsynced:
                self.unsynced[path] = bytearray(Path(self.real(path)).read_bytes())
            return self.unsynced[path]

        def getattr(self, path: str, fh: int | None = None) -> dict[str, float]:
            try:
                told = os.lstat(self.real(path))
            except OSError as error:
                raise FuseOSError(errno.ENOENT) from error
            names = ("st_mode", "st_nlink", "st_uid", "st_gid", "st_size", "st_atime", "st_mtime", "st_ctime")
            result = {name: getattr(told, name) for name in names}
            with self.guard:
                if path in self.unsynced:
                    result["st_size"] = len(self.unsynced[path])
            return result

        def readdir(self, path: str, fh: int) -> list[str]:
            return [".", "..", *os.listdir(self.real(path))]

        def create(self, path: str, mode: int, fi: object = None) -> int:
            os.close(os.open(self.real(path), os.O_CREAT | os.O_WRONLY, mode))
            return 0

        def open(self, path: str, flags: int) -> int:
            return 0

        def read(self, path: str, size: int, offset: int, fh: int) -> bytes:
            with self.guard:
                if path in self.unsynced:
                    return bytes(self.unsynced[path][offset : offset + size])
            with open(self.real(path), "rb") as file:
                file.seek(offset)
                return file.read(size)

        def write(self, path: str, data: bytes, offset: int, fh: int) -> int:
            with self.guard:
                content = self.content(path)
                if len(content) < offset:
                    content.extend(b"\0" * (offset - len(content)))
                content[offset : offset + len(data)] = data
            return len(data)

        def truncate(self, path: str, length: int, fh: int | None = None) -> None:
            with self.guard:
                content = self.content(path)
                del content[length:]
                content.extend(b"\0" * (length - len(content)))

        def fsync(self, path: str, datasync: int, fh: int) -> int:
            with self.guard:
                if path in self.unsynced:
                    Path(self.real(path)).write_bytes(self.unsynced.pop(path))
            return 0

        def rename(self, old: str, new: str) -> None:
            with self.guard:
                os.rename(self.real(old), self.real(new))
                if old in self.unsynced:
                    self.unsynced[new] = self.unsynced.pop(old)

        def unlink(self, path: str) -> None:
            with self.guard:
                self.unsynced.pop(path, None)
                os.unlink(self.real(path))

        def link(self, target: str, source: str) -> None:
            os.link(self.real(source), self.real(target))

        def mkdir(self, path: str, mode: int) -> None:
            os.mkdir(self.real(path), mode)

        def chmod(self, path: str, mode: int) -> None:
            os.chmod(self.real(path), mode)

        def utimens(self, path: str, times: object = None) -> None:
            return None

        def setxattr(self, path: str, name: str, value: bytes, options: int, position: int = 0) -> int:
            if name == FORGETS:
                with self.guard:
                    self.unsynced.clear()
            return 0

        def statfs(self, path: str) -> dict[str, int]:
            told = os.statvfs(str(disk))
            return {name: getattr(told, name) for name in ("f_bsize", "f_frsize", "f_blocks", "f_bfree", "f_bavail")}

    # Nothing of ours in the kernel's memory either: direct_io would forbid the shared memory that SQLite's log needs.
    FUSE(Forgetful(), str(place), foreground=True, attr_timeout=0, entry_timeout=0, auto_cache=True)


class Cook(threading.Thread):
    """Saves a sheet and tells of events, and notes what was answered."""

    def __init__(self, server, number):
        super().__init__(daemon=True)
        self.hand, self.number, self.told, self.ends = server.hand(), number, [], False
        self.sheet = self.hand.ask("POST", "/sheets", {"way": "set-cake"})
        self.making = self.hand.ask("POST", "/runs", {"sheet": self.sheet["id"]})["id"]
        self.revision = 1

    def run(self):
        from serving import new_uid

        while not self.ends:
            uid = new_uid()
            event = {"uid": uid, "kind": "noted", "text": f"note {len(self.told)}"}
            if self.hand.try_to("POST", f"/api/runs/{self.making}/events", event)[0] == 200:
                self.told.append(uid)
            body = {"uid": new_uid(), "revision": self.revision, "sheet": self.sheet["sheet"]}
            status, answer = self.hand.try_to("PUT", f"/api/sheets/{self.sheet['id']}", body)
            if status == 200:
                self.revision = answer["revision"]

    def lost(self, server):
        """What was answered before the cut and is not there."""
        hand = server.hand()
        status, run = hand.try_to("GET", f"/api/runs/{self.making}")
        _, sheet = hand.try_to("GET", f"/api/sheets/{self.sheet['id']}")
        if status != 200:
            return len(self.told) + 1
        there = {event["uid"] for event in run["events"]}
        return len(set(self.told) - there) + int((sheet or {}).get("revision", 0) < self.revision)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--cuts", type=int, default=20)
    parser.add_argument("--unsafe", action="store_true")
    parser.add_argument("--mount", nargs=2, type=Path, help=argparse.SUPPRESS)
    options = parser.parse_args()
    if options.mount:
        mount(*options.mount)
        return 0
    from serving import Server, until

    folder = Path(tempfile.mkdtemp(prefix="kemble-power-"))
    disk, place = folder / "disk", folder / "data"
    disk.mkdir()
    place.mkdir()
    (folder / "unsafe_settings.py").write_text(UNSAFE)
    environment = {"PYTHONPATH": str(folder)} | (
        {"DJANGO_SETTINGS_MODULE": "unsafe_settings"} if options.unsafe else {}
    )
    system = subprocess.Popen([sys.executable, __file__, "--mount", str(disk), str(place)])
    server, lost, answered = None, 0, 0
    try:
        until(lambda: os.path.ismount(place))
        server = Server(place, **environment).start()
        cooks = [Cook(server, number) for number in range(4)]
        for cut in range(options.cuts):
            for cook in cooks:
                cook.ends = False
                cook.start()
            time.sleep(random.uniform(0.5, 2.5))
            server.kill()
            os.setxattr(place, FORGETS, b"1")
            for cook in cooks:
                cook.ends = True
            for cook in cooks:
                cook.join()
            server.start(come_in=False)
            gone = sum(cook.lost(server) for cook in cooks)
            answered = sum(len(cook.told) + cook.revision for cook in cooks)
            lost += gone
            print(f"cut {cut + 1}: {answered} writes answered so far, {gone} lost", flush=True)
            cooks = [again(cook, server) for cook in cooks]
        print(f"{options.cuts} cuts, {answered} writes answered, {lost} lost")
        return int(lost > 0)
    finally:
        if server is not None and server.is_up:
            server.kill()
        system.terminate()
        subprocess.run(["umount", "-l", str(place)], check=False)


def again(cook, server):
    """The same cook, for the next cut: a thread is begun once."""
    fresh = Cook.__new__(Cook)
    threading.Thread.__init__(fresh, daemon=True)
    fresh.hand, fresh.number, fresh.told, fresh.ends = server.hand(), cook.number, list(cook.told), False
    fresh.sheet, fresh.making, fresh.revision = cook.sheet, cook.making, cook.revision
    fresh.hand.try_to("GET", "/")  # for its token
    return fresh


if __name__ == "__main__":
    raise SystemExit(main())
