"""What comes in, parsed: JSON that is JSON, its text clean (core/text_cleaning.py)."""

from __future__ import annotations

import json
from typing import Any, cast

from django.http import HttpRequest
from django.utils.datastructures import MultiValueDict
from ninja.parser import Parser

from kemble.core.facts.problems import refuse
from kemble.core.sentences import say
from kemble.core.text_cleaning import clean_document

_TABLES = "/api/tables"  # a column may end at a tab there; its cells are cleaned when they are read


class CleanParser(Parser):
    """Parses bodies, forms and queries. Raises Refused for text that nobody can read."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        try:
            document = json.loads(request.body)
            return cast(dict[str, Any], clean_document(document, tabs=request.path == _TABLES))
        except RecursionError:
            refuse("the document", say("is nested too deep"), say("a document as its schema says"))

    def parse_querydict(
        self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest
    ) -> dict[str, Any]:
        parsed = super().parse_querydict(data, list_fields, request)
        return cast(dict[str, Any], clean_document(parsed))
