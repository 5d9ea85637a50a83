"""The core: what a sheet comes to in a kitchen. Pure Python; no clock, no database, no framework.

The front door: `work(sheet, kitchen)` gives every fact, `plan(...)` the schedule of an occasion. The rooms behind it are
named like the screens and the craft; `docs/architecture.md` walks through them.

A steamed cake at 1,600 m, and when to begin it:

>>> from datetime import UTC, datetime
>>> from kemble.core import Kitchen, plan, work
>>> from kemble.core.sheet.document import default_sheet
>>> high = Kitchen(altitude_m=1600)
>>> cake = work(default_sheet("set-cake"), high)
>>> cake.problems
[]
>>> done = cake.facts["heat.done_min"]
>>> done.label, done.unit, done.low < done.value < done.high
('likely done', 'min', True)
>>> [one.label for one in done.because.inputs][:2]
['set through at', 'time at heat until it is clear and chewy']
>>> round(cake.facts["heat.boil_c"].value, 1)
94.7
>>> day = plan(cake.steps, high, serve=datetime(2026, 3, 1, 15, tzinfo=UTC), now=datetime(2026, 2, 28, tzinfo=UTC))
>>> day.proven, day.scheduled[-1].ends <= day.serve
(True, True)
"""

from kemble.core.facts.fact import Fact
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_for as plan
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import work

__all__ = ["Fact", "Kitchen", "Sheet", "plan", "work"]
