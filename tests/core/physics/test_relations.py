"""Every relation of the physics says what it takes and in which unit, what it gives, where it holds and where it is from."""

import importlib
import inspect
import pkgutil
import re

import pytest

from kemble.core import physics

MODULES = [
    importlib.import_module(module.name) for module in pkgutil.iter_modules(physics.__path__, f"{physics.__name__}.")
]
RELATIONS = {
    f"{module.__name__.rpartition('.')[2]}.{name}": function_type
    for module in MODULES
    for name, function_type in inspect.getmembers(module, inspect.isfunction)
    if function_type.__module__ == module.__name__ and not name.startswith("_")
}


def test_they_are_found():
    assert {"thermal.boiling_point_c", "doneness.gel_temperature_c", "time_spread.spread"} <= RELATIONS.keys()
    assert len(RELATIONS) > 40


@pytest.mark.parametrize("name", RELATIONS)
def test_a_relation_says_all_of_itself(name):
    doc = inspect.getdoc(RELATIONS[name]) or ""
    heads = re.findall(r"^(Takes|Gives|Holds|From): (.+)", doc, re.MULTILINE)
    assert [head for head, _ in heads] == ["Takes", "Gives", "Holds", "From"]
    said = set(re.findall(r"`(\w+)`", doc))
    assert set(inspect.signature(RELATIONS[name]).parameters) - said == set()
