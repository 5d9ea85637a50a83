"""Print the JSON Schema of a sheet: `python -m kemble.core.sheet.schema`."""

import json
import sys

from kemble.core.sheet.document import Sheet

if __name__ == "__main__":
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Sheet.model_json_schema()}
    sys.stdout.write(json.dumps(schema, indent=1, sort_keys=True, ensure_ascii=False) + "\n")
