"""Problems with an input: a sentence that names the field and says what is accepted."""

from __future__ import annotations

import types
from collections.abc import Sequence
from typing import Annotated, Any, NoReturn, Union, get_args, get_origin

from pydantic import BaseModel, ConfigDict, ValidationError
from pydantic.fields import FieldInfo
from pydantic_core import ErrorDetails

from kemble.core.sentences import Words, say


class Problem(BaseModel):
    """One thing wrong with an input. `path` is dotted, from the document's root."""

    model_config = ConfigDict(frozen=True)

    path: str
    says: Words
    accepts: Words = ""

    @property
    def sentence(self) -> str:
        accepts = say(" Accepted: {accepts}.", accepts=self.accepts) if self.accepts else ""
        return f"{self.path}: {self.says}.{accepts}"


class Refused(ValueError):
    """An input that cannot be used. Carries every problem found; its text is the first one's sentence."""

    def __init__(self, problems: Sequence[Problem]) -> None:
        self.problems = list(problems)
        more = say(" ({others} more)", others=len(self.problems) - 1) if len(self.problems) > 1 else ""
        super().__init__(self.problems[0].sentence + more)


def refuse(path: str, says: str, accepts: str = "") -> NoReturn:
    """Raises Refused for one thing that is wrong."""
    raise Refused([Problem(path=path, says=says, accepts=accepts)])


# pydantic's error types, in a cook's words. {input} is what was typed.
_SAYS = {
    "missing": "is missing",
    "extra_forbidden": "is not a key of this document",
    "finite_number": "{input} is not a number",
    "float_parsing": "{input} is not a number",
    "float_type": "{input} is not a number",
    "int_parsing": "{input} is not a whole number",
    "int_type": "{input} is not a whole number",
    "int_from_float": "{input} is not a whole number",
    "greater_than": "{input} is too little",
    "greater_than_equal": "{input} is too little",
    "less_than": "{input} is too much",
    "less_than_equal": "{input} is too much",
    "string_too_long": "is too long",
    "string_too_short": "is empty",
    "string_pattern_mismatch": "{input} is not written like that",
    "string_type": "{input} is not text",
    "too_long": "has too many entries",
    "too_short": "has too few entries",
    "literal_error": "{input} is not known",
    "json_invalid": "is not a JSON document",
    "model_type": "is not an object with named fields",
    "model_attributes_type": "is not an object with named fields",
    "list_type": "is not a list",
    "tuple_type": "is not a list",
    "dict_type": "is not an object with named fields",
    "datetime_parsing": "{input} is not a date and time",
    "datetime_from_date_parsing": "{input} is not a date and time",
    "datetime_type": "{input} is not a date and time",
}


def _models_in(annotation: Any) -> list[type[BaseModel]]:
    """The models inside an annotation such as `list[Part]` or `Vessel | None`."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    if get_origin(annotation) in (list, tuple, dict, Union, types.UnionType, Annotated):
        return [model for arg in get_args(annotation) for model in _models_in(arg)]
    return []


def _field(root: type[BaseModel] | None, loc: Sequence[str | int]) -> tuple[FieldInfo | None, list[str]]:
    """The field that a location names, and the keys of the model it was looked for in."""
    models = [root] if root else []
    field: FieldInfo | None = None
    keys: list[str] = []
    for step in loc:
        if isinstance(step, int):
            continue
        owner = next((m for m in models if step in m.model_fields), None)
        keys = sorted(models[0].model_fields) if models else []
        if owner is None:
            return None, keys
        field = owner.model_fields[step]
        models = _models_in(field.annotation)
    return field, keys


def _typed_words(value: object) -> str:
    text = f'"{value}"' if isinstance(value, str) else str(value)
    return text if len(text) <= 40 else text[:37] + "…"


# What pydantic puts into a location that stands in no document: a validator, the kind of an entry.
_NO_PLACE = ("function-", "entry-")


def problem_from(error: ErrorDetails, root: type[BaseModel] | None) -> Problem:
    """One pydantic error as a Problem. What is accepted comes from the field's own description."""
    loc = [step for step in error["loc"] if not (isinstance(step, str) and step.startswith(_NO_PLACE))]
    field, keys = _field(root, loc)
    path = ".".join(str(step) for step in loc) or "the document"
    kind = error["type"]
    if kind == "extra_forbidden":
        return Problem(path=path, says=_SAYS[kind], accepts=", ".join(keys))
    if kind.startswith("kemble_"):
        inner = error.get("ctx", {}).get("path")
        path = ".".join(str(step) for step in (*loc, *([inner] if inner else []))) or "the document"
        return Problem(path=path, says=error["msg"], accepts=str(error.get("ctx", {}).get("accepts", "")))
    says = _SAYS.get(kind, "{input} will not do").format(input=_typed_words(error["input"]))
    accepts = field.description if field and field.description else ""
    return Problem(path=path, says=says, accepts=accepts)


def problems_from(error: ValidationError, root: type[BaseModel]) -> list[Problem]:
    """Every problem of a failed validation against `root`.

    A list that lost a bad entry is also called too short; only the entry is worth saying.
    """
    details = error.errors(include_url=False)
    places = [detail["loc"] for detail in details]
    return [
        problem_from(detail, root)
        for detail in details
        if not any(len(place) > len(detail["loc"]) and place[: len(detail["loc"])] == detail["loc"] for place in places)
    ]
