"""The core: what a sheet comes to in a kitchen. Pure Python; no clock, no database, no framework.

The front door: `work(sheet, kitchen)` gives every fact, `plan(...)` the schedule of an occasion. The rooms behind it are
named like the screens and the craft; `docs/architecture.md` walks through them.
"""

from kemble.core.facts.fact import Fact
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_for as plan
from kemble.core.sheet.document import Sheet
from kemble.core.stations.chain import work

__all__ = ["Fact", "Kitchen", "Sheet", "plan", "work"]
