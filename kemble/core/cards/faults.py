"""What can go wrong in a way: its own faults, and those of the parts that it usually has."""

from __future__ import annotations

from kemble.core.cards.card_parts import Fault
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.way import Way


def faults_of(way: Way) -> tuple[Fault, ...]:
    """The way's faults, then its parts', each id once."""
    faults_by_name = {fault.id: fault for fault in way.faults}
    for family in dict.fromkeys(way.parts.values()):
        for fault in FAMILIES[family].faults:
            faults_by_name.setdefault(fault.id, fault)
    return tuple(faults_by_name.values())
