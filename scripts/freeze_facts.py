"""Write the facts of the frozen sheets anew: only when a change of the physics or of a card is meant to change them. The
starting sheet of a way that is not among them yet is frozen too.

The sheets themselves (tests/fixtures/facts/*.json, `sheet` and `kitchen`) stay as they are; tests/core/test_frozen_facts.py
compares. Read the difference before committing it: every line of it is a number that a cook would see move.
"""

import json
from pathlib import Path

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

PLACE = Path(__file__).resolve().parents[1] / "tests" / "fixtures" / "facts"


def frozen(document: dict) -> str:
    """The document with the facts that its sheet has now, a fact a line."""
    answer = work(sheet_from(document["sheet"]), Kitchen.model_validate(document["kitchen"]))
    facts = {key: [fact.value, fact.unit, fact.low, fact.high] for key, fact in sorted(answer.facts.items())}
    lines = ",\n".join(f"{json.dumps(key)}: {json.dumps(value, ensure_ascii=False)}" for key, value in facts.items())
    sheet, kitchen = (json.dumps(document[name], ensure_ascii=False) for name in ("sheet", "kitchen"))
    return f'{{"sheet": {sheet},\n"kitchen": {kitchen},\n"facts": {{\n{lines}\n}}}}\n'


def of_new_ways() -> None:
    """The starting sheet of each way that has none here, in the kitchen of the others."""
    kitchen = json.loads((PLACE / "starting-set-cake.json").read_text(encoding="utf-8"))["kitchen"]
    for way in WAYS:
        file = PLACE / f"starting-{way}.json"
        if not file.exists():
            document = {"sheet": default_sheet(way).model_dump(mode="json"), "kitchen": kitchen}
            file.write_text(frozen(document), encoding="utf-8")


if __name__ == "__main__":
    of_new_ways()
    for file in sorted(PLACE.glob("*.json")):
        file.write_text(frozen(json.loads(file.read_text(encoding="utf-8"))), encoding="utf-8")
        print(file.name)
