"""Kitchens made ready once; at the end, every promise in one table, with what was measured of it."""

import pytest
from promises import rows
from serving import Prepared


@pytest.fixture(scope="session")
def prepared(tmp_path_factory, worker_id):
    """Kitchens to copy: an empty one and the demo, each laid out once for all workers."""
    base = tmp_path_factory.getbasetemp()
    return Prepared(base if worker_id == "master" else base.parent)


def pytest_terminal_summary(terminalreporter):
    told = rows()
    wide = [max(len(row[i]) for row in told) for i in range(3)]
    terminalreporter.section("what is promised, and what was measured")
    for what, value, limit, stands in told:
        terminalreporter.write_line(
            f"{what:<{wide[0]}}  {value:>{wide[1]}}  {limit:<{wide[2]}}  {stands}".rstrip(), red=stands == "NOT KEPT"
        )
