"""The settings as they are, over a folder of the tests' own: whoever runs them has a kitchen that is none of their business.

Read before any conftest, so it is here and not there that the folder is chosen; workers share that of whoever starts them.
"""

import os
import tempfile

_OURS = "KEMBLE_TEST_DATA"
os.environ["KEMBLE_DATA"] = os.environ.setdefault(_OURS, tempfile.mkdtemp(prefix="kemble-test-"))
os.environ.pop("KEMBLE_HOSTS", None)
os.environ.pop("KEMBLE_TLS", None)

from kemble.site.settings import *  # noqa: E402, F403
