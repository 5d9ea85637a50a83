"""What can go wrong in a way: its own faults, and those of the parts that it usually has."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace

from kemble.core.cards.card_parts import Fault
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.way import Way
from kemble.core.facts.vocabulary import PartRole


def faults_of(way: Way, roles: Collection[PartRole] | None = None) -> tuple[Fault, ...]:
    """The way's faults, then its parts', each id once. With `roles`, only those that can show in a sheet with these parts."""
    faults_by_name = {fault.id: fault for fault in way.faults}
    for family in dict.fromkeys(way.parts.values()):
        of = tuple(role for role, usual in way.parts.items() if usual == family)
        for fault in FAMILIES[family].faults:
            faults_by_name.setdefault(fault.id, replace(fault, of=of))
    faults = faults_by_name.values()
    return tuple(fault for fault in faults if roles is None or not fault.of or set(fault.of) & set(roles))
