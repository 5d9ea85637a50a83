"""Writes the table of docs/science.md that holds what is told against what cooks report: frozen sheets, worked anew.

    python scripts/science.py          # writes it
    python scripts/science.py --check  # fails when it is stale

Each case is a file in tests/fixtures/cases: a sheet, a kitchen, the fact that is told, and between what cooks have it.
"""

from __future__ import annotations

import json
import sys
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import sheet_from
from kemble.core.stations.work_sheet import work

CASES = ROOT / "tests" / "fixtures" / "cases"
DOC = ROOT / "docs" / "science.md"
BEGINS, ENDS = "<!-- cases: written by make science -->", "<!-- end of cases -->"


@dataclass(frozen=True)
class Told:
    case: str
    low: float
    likely: float
    high: float
    unit: str
    cooks: tuple[float, float]
    cooks_say: str

    @property
    def inside(self) -> bool:
        """The likely time is one that cooks report."""
        return self.cooks[0] <= self.likely <= self.cooks[1]

    @property
    def overlaps(self) -> bool:
        """Some of the window is."""
        return self.low <= self.cooks[1] and self.high >= self.cooks[0]


def told() -> list[Told]:
    """Every case, worked as the code stands."""
    tolds = []
    for file in sorted(CASES.glob("*.json")):
        item = json.loads(file.read_text(encoding="utf-8"))
        worked = work(sheet_from(item["sheet"]), Kitchen.model_validate(item["kitchen"]))
        if worked.problems:
            raise SystemExit(f"{file.name}: {worked.problems[0].says}")
        fact = worked.facts[item["fact"]]
        likely = float(fact.value)
        low, high = (likely if end is None else end for end in (fact.low, fact.high))
        tolds.append(Told(item["case"], low, likely, high, fact.unit, tuple(item["cooks"]), item["cooks_say"]))
    return tolds


def table(cases: list[Told]) -> str:
    """The count at its head, then every case, none left out."""
    inside, overlap = sum(each_told.inside for each_told in cases), sum(each_told.overlaps for each_told in cases)
    lines = [
        f"Of {len(cases)} cases the likely time of **{inside}** lies where cooks have it; of {overlap} the window meets it.",
        "",
        "| case | told: first, likely, latest | cooks | |",
        "|---|---|---|---|",
    ]
    for each_told in cases:
        figures = " – ".join(
            _figure(value) for value in dict.fromkeys((each_told.low, each_told.likely, each_told.high))
        )
        verdict = "" if each_told.inside else "window meets it" if each_told.overlaps else "**misses**"
        lines.append(f"| {each_told.case} | {figures} {each_told.unit} | {each_told.cooks_say} | {verdict} |")
    return "\n".join(lines)


def _figure(value: float) -> str:
    return f"{value:.1f}" if value < 10 else f"{value:.0f}"


def main() -> None:
    text = DOC.read_text(encoding="utf-8")
    before, rest = text.split(BEGINS)
    _, after = rest.split(ENDS)
    new = f"{before}{BEGINS}\n\n{table(told())}\n\n{ENDS}{after}"
    if "--check" in sys.argv:
        if new != text:
            raise SystemExit("docs/science.md is stale: run make science")
        return
    DOC.write_text(new, encoding="utf-8")


if __name__ == "__main__":
    main()
