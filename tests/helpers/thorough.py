"""How often things are tried: as often as they should be in `make test-long`, less often while somebody waits."""

import os

THOROUGH = os.environ.get("KEMBLE_TESTS") == "long"


def times(full, quick):
    """`full` of it in `make test-long`, else `quick`: rounds, rows, or the list of cases."""
    return full if THOROUGH else quick


def examples(full):
    """How many examples a property is tried with."""
    return times(full, max(5, full // 3))
