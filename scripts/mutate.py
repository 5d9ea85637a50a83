"""Put faults into rooms of the core, one at a time, and see whether the core's tests find them: `make mutate`.

mutmut makes the faults and runs the tests that come by each; here a seeded sample is drawn, room by room, in a copy of the
project. What survives is listed with its change, and the command fails where it is more than the share allowed.
"""

import argparse
import json
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
MAX_SURVIVORS = 0.15
SEED = 27
COPIED = ("kemble", "tests", "scripts", "docs", "manage.py", "pyproject.toml")
TESTS = {
    "plan": ["tests/core/plan"],
    "run": ["tests/core/run"],
    "sheet": ["tests/core/sheet", "tests/core/stations"],
    "stations": ["tests/core/stations", "tests/core/cards"],
}
# mutmut runs the tests once and forks from there for each fault: what was kept of that run would hide it.
FORGET = """

import functools
import gc


def pytest_sessionstart():
    for kept in gc.get_objects():
        if isinstance(kept, functools._lru_cache_wrapper) and (kept.__module__ or "").startswith("kemble."):
            kept.cache_clear()
"""


def copy_project(place: Path, room: str) -> None:
    """The project with mutmut told to change that room alone."""
    for name in COPIED:
        source = ROOT / name
        ignored = shutil.ignore_patterns("__pycache__", "screenshots")
        shutil.copytree(source, place / name, ignore=ignored) if source.is_dir() else shutil.copy(source, place / name)
    with (place / "tests" / "conftest.py").open("a") as file:
        file.write(FORGET)
    settings = {
        "source_paths": ["kemble"],
        "only_mutate": [f"kemble/core/{room}/*.py", f"kemble/core/{room}/*/*.py"],
        "also_copy": [name for name in COPIED if name != "kemble"],
        "pytest_add_cli_args_test_selection": TESTS[room],
    }
    lines = "\n".join(f"{key} = {json.dumps(value)}" for key, value in settings.items())
    with (place / "pyproject.toml").open("a") as file:
        file.write(f"\n[tool.mutmut]\n{lines}\n")


def mutmut(place: Path, *arguments: str) -> str:
    environment = {**os.environ, "KEMBLE_DATA": str(place / "data")}
    command = [sys.executable, "-m", "mutmut", *arguments]
    return subprocess.run(command, cwd=place, env=environment, capture_output=True, text=True, check=False).stdout


def results(place: Path) -> dict[str, int | None]:
    """How the tests ended by mutant: 0 where all passed, None where it was not tried."""
    ended: dict[str, int | None] = {}
    for meta in sorted((place / "mutants").rglob("*.meta")):
        ended |= json.loads(meta.read_text())["exit_code_by_key"]
    return ended


def try_room(room: str, sample: int) -> float:
    """The share of the sampled mutants that no test found."""
    with tempfile.TemporaryDirectory(prefix="kemble-mutants-") as folder:
        place = Path(folder)
        copy_project(place, room)
        mutmut(place, "run", "no such mutant")
        names = sorted(results(place))
        chosen = random.Random(SEED).sample(names, min(sample, len(names)))
        mutmut(place, "run", *chosen)
        ended = {name: code for name, code in results(place).items() if name in set(chosen)}
        survivors = [name for name, code in ended.items() if code == 0]
        untried = [name for name, code in ended.items() if code is None or code == 33]  # 33: no test comes by it
        share = (len(survivors) + len(untried)) / len(chosen)
        print(
            f"{room}: {len(names)} mutants, {len(chosen)} tried, {len(survivors)} survived, {len(untried)} met no test"
        )
        for name in (*survivors, *untried):
            changed = re.findall(r"^[-+](?![-+]).*", mutmut(place, "show", name), re.MULTILINE)
            print(f"  {name}\n    " + "\n    ".join(changed))
        return share


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0] if __doc__ else "")
    parser.add_argument("rooms", nargs="+", choices=TESTS)
    parser.add_argument("--sample", type=int, default=300)
    options = parser.parse_args()
    shares = {room: try_room(room, options.sample) for room in options.rooms}
    for room, share in shares.items():
        print(f"{room}: {share:.0%} not found, {MAX_SURVIVORS:.0%} allowed")
    sys.exit(any(share > MAX_SURVIVORS for share in shares.values()))


if __name__ == "__main__":
    main()
