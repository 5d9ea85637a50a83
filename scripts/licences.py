"""Lists what ships with Kemble and under which licence each stands: Python packages as installed, front-end packages as
locked. Ends with 1, naming it, where one tells none, or one that has not been looked at.
"""

from __future__ import annotations

import json
import re
import sys
import tomllib
from collections.abc import Iterator
from importlib import metadata
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
# Licences that have been looked at: all of them let Kemble be used and passed on with its own.
KNOWN = re.compile(
    r"\b(MIT|MIT-0|BSD|0BSD|Apache|ISC|LGPL|MPL|PSF|Python|OFL|HPND|Unlicense|CC0|CC-BY|BlueOak|Zlib|Zope|ZPL)\b",
    re.IGNORECASE,
)
_WORKER = re.compile(r"^workbox-(core|expiration|precaching|routing|strategies)$")  # built into the service worker
_NAME = re.compile(r"^[A-Za-z0-9._-]+")
Row = tuple[str, str, str]


def python_packages() -> Iterator[Row]:
    """What `pyproject.toml` asks for to run, and all that those ask for."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    waiting, seen = list(project["dependencies"]), set()
    while waiting:
        asked = waiting.pop()
        match = _NAME.match(asked)
        if match is None or "extra ==" in asked:
            continue
        name = re.sub(r"[-_.]+", "-", match[0]).lower()
        if name in seen:
            continue
        seen.add(name)
        try:
            distribution = metadata.distribution(name)
        except metadata.PackageNotFoundError:
            continue  # for another system than this
        waiting += distribution.requires or []
        yield distribution.metadata["Name"], distribution.version, _licence(distribution)


def _licence(distribution: metadata.Distribution) -> str:
    told = distribution.metadata
    expression = told.get("License-Expression")  # type: ignore[attr-defined]
    if expression:
        return str(expression)
    classed = [
        item.rsplit(" :: ", 1)[-1]
        for item in told.get_all("Classifier") or []
        if item.startswith("License :: OSI Approved")
    ]
    if classed:
        return ", ".join(classed)
    return str(told.get("License") or "").strip().split("\n")[0][:80]  # type: ignore[attr-defined]


def front_end_packages() -> Iterator[Row]:
    """What is bundled: of the lock, what is not only for developing."""
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text(encoding="utf-8"))
    for where, item in lock["packages"].items():
        name = where.rsplit("node_modules/", 1)[-1]
        is_bundled = not any(item.get(mark) for mark in ("dev", "devOptional", "optional")) or _WORKER.match(name)
        if where and is_bundled:
            yield name, item.get("version", ""), str(item.get("license") or "")


def main() -> int:
    rows = {"Python": sorted(python_packages(), key=lambda row: row[0].lower())}
    rows["Front end"] = sorted(front_end_packages())
    unknown = [row for found_row in rows.values() for row in found_row if not KNOWN.search(row[2])]
    for name, version, licence in unknown:
        print(f"{name} {version}: “{licence}” is a licence that has not been looked at", file=sys.stderr)
    if unknown:
        return 1
    print("What ships with Kemble, and under which licence. Kemble's own is in LICENSE.")
    for head, found_row in rows.items():
        print(f"\n{head}\n")
        for name, version, licence in found_row:
            print(f"{name} {version}: {licence}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
