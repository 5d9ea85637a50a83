"""How the modules lie together, and what every way must have outside its card."""

import ast
import re
from graphlib import CycleError, TopologicalSorter
from pathlib import Path

import pytest

from kemble.core.cards.ways import WAYS

ROOT = Path(__file__).resolve().parents[1]
DRAWINGS = ROOT / "web" / "src" / "ui" / "WayDrawing.tsx"
FROZEN = ROOT / "tests" / "fixtures" / "facts"


def imports_of(package):
    """By module, the modules of the package that it imports, for types only too."""
    files = {
        ".".join(path.relative_to(package.parent).with_suffix("").parts).removesuffix(".__init__"): path
        for path in package.rglob("*.py")
    }
    imports = {}
    for module, path in files.items():
        named = set()
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Import):
                named |= {alias.name for alias in node.names}
            elif isinstance(node, ast.ImportFrom):
                named |= {node.module, *(f"{node.module}.{alias.name}" for alias in node.names)}
        # `from package import module` imports the module; the package's own names are not told apart from it.
        imports[module] = {name for name in named if name in files and not module.startswith(f"{name}.")} - {module}
    return imports


def test_no_module_imports_itself_by_way_of_others():
    imports = imports_of(ROOT / "kemble")
    assert len(imports) > 250
    TopologicalSorter(imports).prepare()


def test_a_circle_is_found(tmp_path):
    house = tmp_path / "house"
    house.mkdir()
    (house / "roof.py").write_text(
        "from typing import TYPE_CHECKING\nif TYPE_CHECKING:\n    from house.wall import Wall\n"
    )
    (house / "wall.py").write_text("from house import roof\n")
    with pytest.raises(CycleError):
        TopologicalSorter(imports_of(house)).prepare()


@pytest.mark.parametrize("way", WAYS)
def test_a_way_has_all_that_lies_outside_its_card(way):
    drawn = re.findall(r'^  "?([a-z-]+)"?: \(\) =>', DRAWINGS.read_text(encoding="utf-8"), re.MULTILINE)
    assert way in drawn, f'The way "{way}" has no drawing: add one to DRAWINGS in {DRAWINGS.relative_to(ROOT)}.'
    frozen = FROZEN / f"starting-{way}.json"
    assert frozen.exists(), f'The starting sheet of "{way}" is not frozen: run scripts/freeze_facts.py.'
    signs = WAYS[way].signs
    assert signs.ingredients, f'The card of "{way}" says no ingredients by which a recipe shows that it is of this way.'
    assert bool(signs.method) == bool(signs.words), f'The card of "{way}" needs `method` and `words` both, or neither.'


def test_every_drawing_is_of_a_way():
    drawn = re.findall(r'^  "?([a-z-]+)"?: \(\) =>', DRAWINGS.read_text(encoding="utf-8"), re.MULTILINE)
    assert set(drawn) <= WAYS.keys(), "A drawing in WayDrawing.tsx is of no way."
