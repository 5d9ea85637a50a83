"""At the end, every promise in one table, with what was measured of it."""

from promises import rows


def pytest_terminal_summary(terminalreporter):
    told = rows()
    wide = [max(len(row[i]) for row in told) for i in range(3)]
    terminalreporter.section("what is promised, and what was measured")
    for what, value, limit, stands in told:
        terminalreporter.write_line(
            f"{what:<{wide[0]}}  {value:>{wide[1]}}  {limit:<{wide[2]}}  {stands}".rstrip(), red=stands == "NOT KEPT"
        )
