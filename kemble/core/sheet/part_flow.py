"""Which part of a sheet feeds which, in what order they are made, and whether that is possible."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping, Sequence

from pydantic_core import PydanticCustomError

from kemble.core.cards.card_parts import stage_step
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.way import Way
from kemble.core.facts.vocabulary import PartId
from kemble.core.sentences import say
from kemble.core.sheet.parts import Part, place_of


def feeds(way: Way, parts: Sequence[Part]) -> Iterator[tuple[str, PartId]]:
    """Every pair of a part and the part that it goes into: by what is taken of it, then by where its rest goes."""
    ids = {part.id for part in parts}
    for part in parts:
        for take in part.takes:
            yield take.source[0], part.id
        for _, place in output_places(way, part):
            if place in ids:
                yield part.id, place


def output_places(way: Way, part: Part) -> Iterator[tuple[str, str]]:
    """Each output of a part that is given a place, "" being what it is made for, and where its rest goes."""
    if part.id != "base":
        for output in dict.fromkeys(("", *part.rest)):
            yield output, place_of(way.id, part, output).to


def working_order(way: Way, parts: Sequence[Part]) -> tuple[PartId, ...]:
    """The parts as they are to be made: each after those that go into it, else as the sheet has them."""
    before: dict[PartId, set[str]] = {part.id: set() for part in parts}
    for source, taker in feeds(way, parts):
        before[taker].add(source)
    done: list[PartId] = []
    left = list(before)
    while left:
        made_next = next(
            part_id for part_id in left if before[part_id].issubset(done)
        )  # there is one: loops are refused
        left.remove(made_next)
        done.append(made_next)
    return tuple(done)


def check_flow(way: Way, parts: Sequence[Part], stage_count: int, staged: Mapping[str, int]) -> None:
    """Raises PydanticCustomError, with a path, where a part takes what is not there, or what comes of itself.

    `stage_count` is how many stages the sheet gives its heat, `staged` how many its method gives other steps: each is a step
    that something can join.
    """
    _check_takes(parts)
    _check_places(parts)
    _check_joins(way, parts, stage_count, staged)
    _check_loops(way, parts)


def _check_takes(parts: Sequence[Part]) -> None:
    parts_by_id = {part.id: part for part in parts}
    for p, part in enumerate(parts):
        others = [role for role in parts_by_id if role not in ("base", part.id)]
        for j, take in enumerate(part.takes):
            role, output = take.source
            path = f"parts.{p}.takes.{j}.of"
            if role not in others:
                raise PydanticCustomError(
                    "kemble_take",
                    'there is no "{of}" to take',
                    {"path": path, "of": take.of, "accepts": " or ".join(others) or "a sheet with a part to take of"},
                )
            made = FAMILIES[family].outputs if (family := parts_by_id[role].family) else None
            if output and made is not None and output not in [family_output.id for family_output in made]:
                raise PydanticCustomError(
                    "kemble_take",
                    'the {role} makes no "{output}"',
                    {
                        "path": path,
                        "role": role,
                        "output": output,
                        "accepts": " or ".join(f"{role}.{family_output.id}" for family_output in made),
                    },
                )


def _check_places(parts: Sequence[Part]) -> None:
    ids = {part.id for part in parts}
    for p, part in enumerate(parts):
        made = [output.id for output in FAMILIES[part.family].outputs] if part.family else None
        for output, place in part.rest.items():
            if output and made is not None and output not in made:
                raise PydanticCustomError(
                    "kemble_rest",
                    'the {role} makes no "{output}"',
                    {
                        "path": f"parts.{p}.rest.{output}",
                        "role": part.id,
                        "output": output,
                        "accepts": " or ".join(made),
                    },
                )
            if place.to not in ("whole", "beside", "kept") and (place.to not in ids or place.to == part.id):
                raise PydanticCustomError(
                    "kemble_rest",
                    "there is no {to} for it to go into",
                    {
                        "path": f"parts.{p}.rest.{output}.to",
                        "to": place.to,
                        "accepts": " or ".join([*sorted(ids - {part.id}), "whole", "beside", "kept"]),
                    },
                )


def _check_joins(way: Way, parts: Sequence[Part], stage_count: int, staged: Mapping[str, int]) -> None:
    """What goes into the base or onto the whole joins at a step of the way; into a part, at one of its family's."""
    of_heat = [stage_step(step.id, n) for step in way.steps if step.window for n in range(2, stage_count + 1)]
    way_steps = [*(step.id for step in way.steps), *of_heat, *_stages(staged, [step.id for step in way.steps])]
    for p, part in enumerate(parts):
        families = [FAMILIES[part.family]] if part.family else [f for f in FAMILIES.values() if part.role in f.roles]
        own = [step.id for family in families for step in family.steps]
        steps = way_steps if part.id == "base" else [*own, *_stages(staged, own, f"{part.id}-")]
        said = [(f"takes.{j}", take.joins, steps) for j, take in enumerate(part.takes)]
        for i, line in enumerate(part.lines):
            said.append((f"lines.{i}", line.joins, steps))
            said += [
                (f"lines.{i}.splits.{j}", split.joins, way_steps if split.to == "base" else steps)
                for j, split in enumerate(line.splits)
            ]
        said += [(f"rest.{output}", place.joins, way_steps) for output, place in part.rest.items()]
        for path, joins, known in said:
            if joins and joins not in known:
                raise PydanticCustomError(
                    "kemble_joins",
                    'there is no step "{joins}"',
                    {"path": f"parts.{p}.{path}.joins", "joins": joins, "accepts": " or ".join(dict.fromkeys(known))},
                )


def _stages(staged: Mapping[str, int], steps: Sequence[str], prefix: str = "") -> list[str]:
    """The further stages of these steps, by the names that something joins them by."""
    return [stage_step(step, n) for step in steps for n in range(2, staged.get(f"{prefix}{step}", 1) + 1)]


def _check_loops(way: Way, parts: Sequence[Part]) -> None:
    into: dict[str, list[str]] = {}
    for source, taker in feeds(way, parts):
        into.setdefault(source, []).append(taker)

    def walk(role: str, path: tuple[str, ...]) -> tuple[str, ...]:
        if role in path:
            return (*path[path.index(role) :], role)
        return next((loop for taker in into.get(role, ()) if (loop := walk(taker, (*path, role)))), ())

    for part in parts:
        loop = walk(part.id, ())
        if loop:
            circle = ", ".join(
                say("{source} goes into {taker}", source=source, taker=taker)
                for source, taker in itertools.pairwise(loop)
            )
            raise PydanticCustomError(
                "kemble_loop",
                "{circle}: that is a circle",
                {"path": "parts", "circle": circle, "accepts": "parts that feed one way"},
            )
