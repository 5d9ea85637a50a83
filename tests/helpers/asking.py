"""A client that asks the API as a browser would, in JSON."""

import json

from django.test import Client


class Asking(Client):
    """A client that speaks JSON: answers carry `.json`-parsed `data`."""

    def ask(self, method, path, body=None, **extra):
        data = {} if body is None else {"data": body if isinstance(body, str | bytes) else json.dumps(body)}
        answer = self.generic(
            method,
            f"/api{path}",
            content_type="application/json",
            **{"HTTP_HOST": "127.0.0.1:8000", **data, **extra},
        )
        answer.body = (  # type: ignore[attr-defined]
            json.loads(answer.content) if answer.content and "json" in answer.headers.get("Content-Type", "") else None
        )
        return answer


def table(*sheets, serve="2026-11-28T15:30", title="", people=None, **more):
    """An occasion with one serving and those sheets on the table: opened ones, or their numbers."""
    numbers = [sheet["id"] if isinstance(sheet, dict) else sheet for sheet in sheets]
    return {
        "title": title,
        "servings": [{"at": serve, "people": people}],
        "dishes": [{"sheet": number} for number in numbers],
        **more,
    }
