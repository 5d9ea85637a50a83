"""The look through what Kemble is built of sees each thing that it is there to see."""

import json
import runpy
import shutil
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
LOOKS = runpy.run_path(str(ROOT / "scripts" / "audit.py"))


@pytest.fixture
def copy(tmp_path, monkeypatch):
    """What it reads, in a folder where it may be spoiled; and what is found there."""
    for name in ("requirements-dev.txt", "pyproject.toml", "web/package.json", "web/package-lock.json"):
        (tmp_path / name).parent.mkdir(exist_ok=True)
        shutil.copy(ROOT / name, tmp_path / name)
    for name in ("kemble", "web/src"):
        (tmp_path / name).symlink_to(ROOT / name)

    def found(look):
        monkeypatch.setitem(LOOKS[look].__globals__, "ROOT", tmp_path)
        return list(LOOKS[look]())

    return tmp_path, found


def spoil(path, old, new):
    text = path.read_text(encoding="utf-8")
    assert old in text
    path.write_text(text.replace(old, new, 1), encoding="utf-8")


def test_as_it_stands_there_is_nothing(copy):
    _, result = copy
    assert [
        says for look in ("python_locks", "python_use", "front_end_locks", "front_end_use") for says in result(look)
    ] == []


def test_a_package_of_any_version_or_of_any_content(copy):
    folder, result = copy
    spoil(folder / "requirements-dev.txt", "pydantic==2", "pydantic>=2")
    with (folder / "requirements-dev.txt").open("a", encoding="utf-8") as file:
        file.write("something==1.0\n")
    said = "\n".join(result("python_locks"))
    assert "“pydantic>=2" in said
    assert "something has no hash" in said
    assert "asks for pydantic==2" in said


def test_what_nobody_uses(copy):
    folder, result = copy
    spoil(folder / "pyproject.toml", '"brotli==', '"unheard-of==1.0",\n  "brotli==')
    assert result("python_use") == ["pyproject.toml: nothing imports unheard-of"]
    spoil(
        folder / "web/package.json",
        '"d3-scale"',
        '"unheard-of": "^1.0.0",\n    "other-name": "npm:d3-scale@^4.0.0",\n    "d3-scale"',
    )
    assert result("front_end_use") == [
        "web/package.json: nothing imports unheard-of",
        "web/package.json: nothing imports other-name",
        "web/package.json: unheard-of is not one version (^1.0.0)",
        "web/package.json: other-name is not one version (npm:d3-scale@^4.0.0)",
    ]


def test_what_comes_from_elsewhere_or_runs_when_it_is_installed(copy):
    folder, result = copy
    path = folder / "web/package-lock.json"
    lock = json.loads(path.read_text(encoding="utf-8"))
    lock["packages"]["node_modules/unheard-of"] = {"resolved": "git+ssh://example", "hasInstallScript": True}
    path.write_text(json.dumps(lock), encoding="utf-8")
    assert [says.partition("unheard-of ")[2] for says in result("front_end_locks")] == [
        "has no sha512", "comes from elsewhere", "runs a program when it is installed",
    ]  # fmt: skip
