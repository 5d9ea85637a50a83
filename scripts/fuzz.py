"""Asks every route of a running Kemble what its document says it takes, and what it says it does not, for some time.

No answer may be a 5xx, a status that is not documented, or a body outside of its schema. The demo's kitchen is asked, in a
folder of its own; what is found is told with the seed that finds it again.
"""

from __future__ import annotations

import argparse
import subprocess
import sys
import tempfile
from pathlib import Path
from threading import Thread

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "tests" / "helpers")]

from fuzz_bodies import fuzz_bodies  # noqa: E402
from serving import Server  # noqa: E402

# What is seen of an answer. A body that a document's schema takes and the core's own rules do not is refused with 422,
# and a document in one field (a sheet, an occasion) says more than a schema can: neither is a fault.
CHECKS = (
    "not_a_server_error",
    "status_code_conformance",
    "content_type_conformance",
    "response_schema_conformance",
)
# Not asked: what would sign this one out, for whoever is outside is answered 401 whatever is asked; and what puts another
# kitchen in the place of the one that is asked about.
_SHARE_BY_SCHEMA = 0.6  # of the time; the rest is for bodies of our own
LEFT_OUT = (
    "/api/session",
    "/api/session/password",
    "/api/session/browsers/{number}",
    "/api/household/browsers/{number}",
    "/api/archive/staged/{archive_id}/take",
)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seconds", type=int, default=120)
    parser.add_argument("--seed", type=int, default=1530)
    options = parser.parse_args()
    seconds = options.seconds
    schema_s = round(seconds * _SHARE_BY_SCHEMA)
    with tempfile.TemporaryDirectory(prefix="kemble-fuzz-") as folder:
        server = Server(Path(folder) / "data", "--demo").start()
        said: list[str] = []
        Thread(target=lambda: said.extend(server.said), daemon=True).start()
        try:
            token = "f" * 32  # who sends the same in both is from here
            command = [
                str(Path(sys.executable).with_name("schemathesis")), "run", f"{server.url}/api/openapi.json",
                "--header", f"Cookie: sessionid={server.session}; csrftoken={token}",
                "--header", f"X-CSRFToken: {token}",
                "--checks", ",".join(CHECKS),
                "--phases", "coverage,fuzzing",
                "--max-time", str(schema_s), "--seed", str(options.seed),
                "--workers", "1", "--request-timeout", "30", "--suppress-health-check", "all",
                "--generation-database", "none", "--warnings", "off", "--no-color", "--continue-on-failure",
                *(part for path in LEFT_OUT for part in ("--exclude-path", path)),
            ]  # fmt: skip
            # First, for they start from the demo's sheets and occasions, which the others may throw away.
            wrong = fuzz_bodies(server.hand(), seconds - schema_s, options.seed)
            failed = subprocess.run(command, cwd=folder, check=False).returncode
            inside = server.hand().ask("GET", "/session")["signed_in"]
            if failed or wrong or not inside:
                sys.stderr.writelines(said)
            if not inside:
                print("It was signed out on the way: what was asked after that says nothing.", file=sys.stderr)
            return failed or int(wrong > 0 or not inside)
        finally:
            server.stop()


if __name__ == "__main__":
    raise SystemExit(main())
