"""The settings as they are, over another build of the front end: what a server looks like after an update."""

import os
from pathlib import Path

from kemble.site.settings import *  # noqa: F403

WEB_BUILD = WHITENOISE_ROOT = Path(os.environ["KEMBLE_TEST_BUILD"])
