"""The examples in the core's docstrings are run: what they show is so, and its front door has some."""

import doctest
import importlib
import pkgutil

import pytest

import kemble.core

MODULES = ["kemble.core", *(package.name for package in pkgutil.walk_packages(kemble.core.__path__, "kemble.core."))]
FRONT_DOOR = {
    "kemble.core",
    "kemble.core.facts.quantity",
    "kemble.core.formats.ingredient_text",
    "kemble.core.physics.soaking",
    "kemble.core.physics.steamer",
    "kemble.core.physics.thermal",
    "kemble.core.sheet.document",
}


def test_the_front_door_is_there():
    assert set(MODULES) >= FRONT_DOOR


@pytest.mark.parametrize("name", MODULES)
def test_examples(name):
    result = doctest.testmod(importlib.import_module(name))
    assert result.failed == 0
    assert result.attempted > 0 or name not in FRONT_DOOR
