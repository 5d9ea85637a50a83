"""Columns whose text is clean when it is read, also where it was stored before text was looked at (core/text_cleaning.py)."""

from __future__ import annotations

import json
from typing import Any

from django.db import models
from django.db.models.fields.json import KeyTransform

from kemble.core.text_cleaning import clean_stored, clean_stored_json, is_suspect


class _PlainMigrationField:
    """To a migration it is the field that it extends: the column is the same."""

    def deconstruct(self) -> tuple[str, str, list[Any], dict[str, Any]]:
        name, _, args, kwargs = super().deconstruct()  # type: ignore[misc]
        plain = type(self).__mro__[2]
        return name, f"django.db.models.{plain.__name__}", args, kwargs


class TitleField(_PlainMigrationField, models.CharField):  # type: ignore[type-arg]
    """A title or a name: one line."""

    def from_db_value(self, value: str | None, *_: Any) -> str | None:
        return clean_stored(value) if value else value


class NoteField(_PlainMigrationField, models.TextField):  # type: ignore[type-arg]
    """Text with lines."""

    def from_db_value(self, value: str | None, *_: Any) -> str | None:
        return clean_stored({"note": value})["note"] if value else value


class DocumentField(_PlainMigrationField, models.JSONField):
    """A document of the core's."""

    def from_db_value(self, value: str | None, *args: Any) -> Any:
        document = super().from_db_value(value, *args)
        return clean_stored_json(value, document) if isinstance(value, str) else document


class DocumentTextField(_PlainMigrationField, models.JSONField):
    """A document that is written once and read by many requests. It is read as its JSON text, so that what the text says
    can be remembered by it; a document or its text can be written."""

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Any:
        if isinstance(expression, KeyTransform):  # one value out of it
            return super().from_db_value(value, expression, connection)
        if value is None or not is_suspect(value):
            return value
        return json.dumps(clean_stored(json.loads(value)))

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        return value if isinstance(value, str) else super().get_db_prep_value(value, connection, prepared)
