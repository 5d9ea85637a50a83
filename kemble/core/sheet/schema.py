"""The JSON Schema of a sheet's document, as it stands in docs/sheet.schema.json."""

import json

from kemble.core.sheet.document import Sheet


def schema_text() -> str:
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Sheet.model_json_schema()}
    return json.dumps(schema, indent=1, sort_keys=True, ensure_ascii=False) + "\n"
