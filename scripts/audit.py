"""Looks through what Kemble is built of, as far as that goes without a network: everything locked to one content, nothing
from anywhere but the registries, nothing installed that runs a program of its own, nothing asked for that is not used.

Known holes are told by services on the net: `uvx pip-audit -r requirements-dev.txt` and `npm audit` in web/, where there
is one. Ends with 1, naming what it found.
"""

from __future__ import annotations

import json
import re
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
# Asked for to run, and never imported by name: who uses it.
BY_NAME_ONLY = {
    "brotli": "WhiteNoise packs the front end with it",
    "tzdata": "zoneinfo, where the system has no zones",
}
_CALLED = {"django-csp": "csp", "django-ninja": "ninja", "pillow": "PIL", "pyserial": "serial"}
_LOCKED = re.compile(r"^([A-Za-z0-9._-]+)(?:\[[\w,-]+\])?==(\S+)")
# They run a program when they are installed, and have been looked at: a binary for the system is put in its place.
KNOWN_SCRIPTS = {"esbuild", "fsevents"}


def python_locks() -> Iterator[str]:
    """Every package of the lock is one version, by its hash."""
    text = (ROOT / "requirements-dev.txt").read_text(encoding="utf-8")
    entries = re.split(
        r"\n(?=[A-Za-z0-9])", "\n".join(line for line in text.splitlines() if not line.lstrip().startswith("#"))
    )
    locked = {}
    for entry in filter(str.strip, entries):
        match = _LOCKED.match(entry.strip())
        if match is None:
            yield f"requirements-dev.txt: “{entry.strip()[:50]}” is not locked to a version"
            continue
        locked[_plain(match[1])] = match[2].rstrip("\\").strip()
        if "--hash=sha256:" not in entry:
            yield f"requirements-dev.txt: {match[1]} has no hash"
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    for asked in (*project["dependencies"], *project["optional-dependencies"]["dev"]):
        name, version = asked.split("==")
        if locked.get(_plain(name)) != version:
            yield f"pyproject.toml asks for {asked}, locked is {locked.get(_plain(name))}"


def _plain(name: str) -> str:
    return re.sub(r"[-_.]+", "-", name).lower()


def python_use() -> Iterator[str]:
    """What is asked for to run is imported somewhere."""
    code = "\n".join(path.read_text(encoding="utf-8") for path in (ROOT / "kemble").rglob("*.py"))
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    for asked in project["dependencies"]:
        name = asked.split("==")[0]
        module = _CALLED.get(name, name.replace("-", "_"))
        if name not in BY_NAME_ONLY and not re.search(rf"\b(import|from) {module}\b|\"{module}[\".]", code):
            yield f"pyproject.toml: nothing imports {name}"


def front_end_locks() -> Iterator[str]:
    """Every package is one content, from a registry, and runs nothing when it is installed."""
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text(encoding="utf-8"))
    for where, item in lock["packages"].items():
        if not where or item.get("inBundle"):  # of another package's content
            continue
        name = where.rpartition("node_modules/")[2]
        if not str(item.get("integrity", "")).startswith("sha512-"):
            yield f"package-lock.json: {name} has no sha512"
        if re.match(r"(git|http:|file:|github:)", str(item.get("resolved", ""))):
            yield f"package-lock.json: {name} comes from elsewhere"
        if item.get("hasInstallScript") and name not in KNOWN_SCRIPTS:
            yield f"package-lock.json: {name} runs a program when it is installed"


def front_end_use() -> Iterator[str]:
    """What is bundled is imported somewhere, and locked at what is asked for."""
    package = json.loads((ROOT / "web" / "package.json").read_text(encoding="utf-8"))
    sources = [path for kind in ("*.ts", "*.tsx", "*.css") for path in (ROOT / "web" / "src").rglob(kind)]
    code = "\n".join(path.read_text(encoding="utf-8") for path in sources)
    for name in package["dependencies"]:
        if not re.search(rf"[\"']{re.escape(name)}[\"'/]", code):
            yield f"web/package.json: nothing imports {name}"
    for name, version in (package["dependencies"] | package["devDependencies"]).items():
        # A second major version of a package stands under a name of its own: npm:typescript@7.0.2.
        if not re.fullmatch(r"(npm:[\w@/.-]+@)?\d+\.\d+\.\d+", version):
            yield f"web/package.json: {name} is not one version ({version})"


def main() -> int:
    result = [says for look in (python_locks, python_use, front_end_locks, front_end_use) for says in look()]
    for says in result:
        print(says, file=sys.stderr)
    return int(bool(result))


if __name__ == "__main__":
    raise SystemExit(main())
