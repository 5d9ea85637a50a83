"""Writes what the page needs of the core's numbers and names: limits, usual values, units, groups and fact keys; and, in a
file of its own that only the welcome fetches, one cake as it is worked out.

    python scripts/generate.py web/src/api

Limits come from the API's own document, so that a field is held to one range, whoever checks it.
"""

import json
import os
import re
import sys
from collections.abc import Iterator, Mapping
from datetime import UTC, datetime
from pathlib import Path
from typing import get_args

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kemble.site.settings")

import django

django.setup()

from kemble.core.change.diets import DIETS
from kemble.core.facts.quantity import UNITS
from kemble.core.facts.vocabulary import KEYS, MOST_OF_A_ROLE
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import DENSITY, GROUPS, MOST_PACK_G
from kemble.core.plan.schedule import plan_from
from kemble.core.run.event_fold import NOT_YET_MIN, UNDONE_UNNAMED
from kemble.core.run.events import KINDS, StepEvent
from kemble.core.run.run_state import SOON_MIN
from kemble.core.sentences import Locale
from kemble.core.sheet.document import VERSION, default_sheet
from kemble.core.stations.work_sheet import work
from kemble.server.api import api
from kemble.words import MADE_UP

BOUNDS = {
    "minimum": "min",
    "exclusiveMinimum": "above",
    "maximum": "max",
    "exclusiveMaximum": "below",
    "default": "usual",
}


def bounds(told: dict) -> dict[str, float]:
    """The limits of a field, also of one that may be left out; its usual value where that is a number."""
    number = next((item for item in told.get("anyOf", [told]) if item.get("type") in ("number", "integer")), {})
    result = {ours: {**number, **told}.get(theirs) for theirs, ours in BOUNDS.items()}
    return {name: value for name, value in result.items() if isinstance(value, int | float) and number}


def limits() -> dict[str, dict[str, float]]:
    """By model and field: every field that has a range, and the ranges inside an ingredient's two tables."""
    schemas = api.get_openapi_schema()["components"]["schemas"]
    inside = {
        "Ingredient.density": {"min": DENSITY[0], "max": DENSITY[1]},
        "Ingredient.packs": {"above": 0, "max": MOST_PACK_G},
    }
    return inside | {
        f"{model}.{field}": result
        for model, schema in sorted(schemas.items())
        for field, told in schema.get("properties", {}).items()
        if (result := bounds(told)).keys() & {"max", "below"}
    }


def fields() -> dict[str, str]:
    """What a field that is typed is called, where a problem lies in it; of one of many, "lines", also "line"."""
    document = api.get_openapi_schema()
    schemas = document["components"]["schemas"]
    todo = [
        ref for path in document["paths"].values() for told in path.values() for ref in refs(told.get("requestBody"))
    ]
    result: set[str] = set()
    seen: set[str] = set()
    while todo:
        model = todo.pop()
        if model not in seen:
            seen.add(model)
            result |= schemas[model].get("properties", {}).keys()
            todo += refs(schemas[model])
    result |= {re.sub("(?<=sh|as)es$|s$", "", name) for name in result if not name.endswith("ss")}
    return {name: re.sub(r"_(g|mm|c|min|ml|pct|w|m|h|s)$", "", name).replace("_", " ") for name in sorted(result)}


def refs(told: object) -> Iterator[str]:
    """The names of the models that a part of the document speaks of."""
    for key, inner in told.items() if isinstance(told, dict) else enumerate(told) if isinstance(told, list) else ():
        if key == "$ref":
            yield inner.rpartition("/")[2]
        else:
            yield from refs(inner)


def first_cake() -> dict[str, object]:
    """A steamed cake by its starting sheet, with what the welcome draws of it."""
    worked = work(default_sheet("set-cake"), Kitchen())
    shape, curve = worked.drawings.shape, worked.core.curve
    keys = ("mix.hydration_pct", "shape.depth_mm", "heat.first_check_min", "heat.done_min", "heat.latest_min")
    plan = plan_from(worked.steps, Kitchen(), begin=datetime(2026, 1, 1, tzinfo=UTC))
    tray = worked.drawings.cut.trays[0]
    more = ("rest.cut_after_min", "cut.pieces", "cut.piece_g")
    return {
        "bar": [[share.material, round(share.grams)] for share in worked.drawings.mix.bar],
        "tin": [shape.tin.diameter_mm, shape.tin.height_mm],
        "core": [[round(m, 1), round(c, 1)] for m, c in zip(curve.minutes, curve.core_c, strict=True)][::4],
        "cuts": [[round(at) for at in line] for line in tray.lines],
        "steps": [
            [
                round((scheduled_step.starts - plan.begin).total_seconds() / 60),
                round(scheduled_step.step.minutes),
                scheduled_step.step.hands,
            ]
            for scheduled_step in plan.scheduled
        ],
        "facts": {key: round(float(worked.facts[key].value), 1) for key in keys + more},
    }


def fold() -> dict[str, object]:
    """What the page's fold of a run has in common with the server's."""
    return {
        "idle": [kind for kind, event in KINDS.items() if event.idle],
        "whole_run": [kind for kind, event in KINDS.items() if not issubclass(event, StepEvent)],
        "undone_unnamed": UNDONE_UNNAMED,
        "not_yet_min": NOT_YET_MIN,
        "soon_min": SOON_MIN,
    }


def written(name: str, value: object, more: str = " as const") -> str:
    return f"export const {name} = {json.dumps(value, ensure_ascii=False, indent=2)}{more};\n"


def words(name: str, table: Mapping[str, str]) -> str:
    """A table of words, of the catalogue like any other."""
    rows = "\n".join(f"  [{json.dumps(key)}, t`{said}`]," for key, said in table.items())
    return f"export const {name} = [\n{rows}\n] as const;\n"


MACRO = 'import { t } from "@lingui/core/macro";\n\n'


def fact_keys() -> str:
    """The facts of the whole, and those of any part by its id."""
    of_parts = sorted({key.rpartition(".")[2] for key in KEYS if key.startswith("part.")})
    whole = [f'  | "{key}"' for key in KEYS if not key.startswith("part.")]
    any_part = "  | `part.${string}.${" + " | ".join(f'"{name}"' for name in of_parts) + "}`"
    return "export type FactKey =\n" + "\n".join([*whole, any_part]) + ";\n"


def common() -> str:
    units = {name: {"listed": unit.listed, "kind": unit.kind} for name, unit in UNITS.items()}
    return "\n".join(
        [
            MACRO.rstrip("\n") + "\n",
            written("LIMITS", limits()),
            written("UNITS", units),
            written("LOCALES", [arg for arg in get_args(Locale) if arg != MADE_UP]),
            written("FOLD", fold()),
            written("SHEET_VERSION", VERSION),
            written("MOST_OF_A_ROLE", MOST_OF_A_ROLE),
            words("GROUPS", GROUPS),
            words("DIETS", {diet: each_diet.label for diet, each_diet in DIETS.items()}),
            fact_keys(),
        ]
    )


FILES = {
    "fields.ts": ("what a field is called, where a problem lies in it", lambda: MACRO + words("FIELDS", fields())),
    "generated.ts": ("limits, usual values, units, groups and fact keys", common),
    "firstCake.ts": ("one cake as it is worked out", lambda: written("FIRST_CAKE", first_cake())),
}


def main() -> None:
    into = Path(sys.argv[1])
    for name, (what, body) in FILES.items():
        said = f"/** Generated from the core by `make api`: {what}. Not to be edited. */\n\n{body()}"
        (into / name).write_text(said, encoding="utf-8")


if __name__ == "__main__":
    main()
