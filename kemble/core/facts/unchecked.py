"""Building models without validation, for speed, from values that are right already.

The type checker holds every call to the model's fields and their types; the tests check every value (`checking_models`).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from functools import cache, partial
from typing import Any, ParamSpec, TypeVar, cast

from pydantic import BaseModel
from pydantic_core import PydanticUndefined, to_jsonable_python

Model = TypeVar("Model", bound=BaseModel)
P = ParamSpec("P")
_put = object.__setattr__
# What a model keeps beside its fields lies in slots of its base: set by the slot it takes a third less time.
_put_names, _put_extra, _put_private = (
    BaseModel.__dict__[slot].__set__
    for slot in ("__pydantic_fields_set__", "__pydantic_extra__", "__pydantic_private__")
)
_checking = False


def unchecked_model(model: Callable[P, Model], /, *_: P.args, **values: P.kwargs) -> Model:
    """What `model.model_construct` makes, in a fraction of its time: `work()` makes hundreds of models an answer.

    The values must be those that a check would give; what is left out has its default.
    """
    model_class = cast(type[Model], model)
    if _checking:
        check_values(model_class, values)
    made = object.__new__(model_class)
    defaults, makers = _defaults(model_class)
    fields = {**defaults, **values}
    for name, make in makers.items():
        if name not in values:
            fields[name] = make()
    _put(made, "__dict__", fields)
    _put_names(made, set(values))
    _put_extra(made, None)
    _put_private(made, None)
    return made


@contextmanager
def checking_models() -> Iterator[None]:
    """Check every model that is made meanwhile. For tests: raises ValidationError, or TypeError where a check would give
    another value."""
    global _checking
    _checking = True
    try:
        yield
    finally:
        _checking = False


def check_values(model_class: type[BaseModel], values: Mapping[str, Any]) -> None:
    checked = model_class.model_validate(dict(values), strict=False)
    for name, value in values.items():
        if name not in model_class.model_fields:
            raise TypeError(f"{model_class.__name__} has no {name}")
        if _as_json(getattr(checked, name)) != _as_json(value):
            raise TypeError(f"{model_class.__name__}.{name}: {value!r} is not what a check gives")


def _as_json(value: Any) -> Any:
    return to_jsonable_python(value, serialize_unknown=True, inf_nan_mode="constants")


@cache
def _defaults(model: type[BaseModel]) -> tuple[Mapping[str, Any], Mapping[str, Callable[[], Any]]]:
    """The defaults that may be shared, and makers of those that may not: a list or a dict is each model's own."""
    shared: dict[str, Any] = {}
    makers: dict[str, Callable[[], Any]] = {}
    for name, field in model.model_fields.items():
        default = field.get_default(call_default_factory=True)
        if default is PydanticUndefined:
            continue
        if isinstance(default, list | dict | set) and not default:
            makers[name] = type(default)
        elif field.default_factory is not None or isinstance(default, list | dict | set):
            makers[name] = partial(field.get_default, call_default_factory=True)
        else:
            shared[name] = default
    return shared, makers
