"""The API: one router a room of the application, the core's types as its schema, problems as its errors."""

from __future__ import annotations

from functools import cache
from typing import Any, cast, get_type_hints

from django.core.exceptions import ObjectDoesNotExist
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError, ValidationErrorContext
from ninja.openapi.schema import OpenAPISchema
from pydantic import BaseModel, TypeAdapter
from pydantic_core import ErrorDetails

from kemble import __version__
from kemble.core.facts.problems import Problem, Refused, problem_from
from kemble.core.sentences import say
from kemble.server.api import (
    archive,
    benches,
    blind_tastings,
    cards,
    devices,
    fact_history,
    files,
    health,
    household,
    kitchen,
    larder,
    learning,
    log,
    occasions,
    pictures,
    plans,
    revisions,
    runs,
    session,
    sheet_comparison,
    sheets,
    shopping,
    stored_pieces,
    trash,
)
from kemble.server.api.body_parser import CleanParser
from kemble.server.api.error_responses import TOKEN_LOST, ConflictRefusal, GoneRefusal, Refusal, refusal
from kemble.server.api.permissions import HouseholdAuth, RoleForbidden
from kemble.server.web.error_response import fault_response


class KembleAPI(NinjaAPI):
    """Keeps what was typed in a validation error, and says once in its document what every refusal looks like."""

    def validation_error_from_error_contexts(
        self, error_contexts: list[ValidationErrorContext[Any]]
    ) -> ValidationError:
        typed = [error for context in error_contexts for error in context.pydantic_validation_error.errors()]
        error = super().validation_error_from_error_contexts(error_contexts)
        error.errors = [{**told, "input": item["input"]} for told, item in zip(error.errors, typed, strict=True)]
        return error

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        """Whatever an operation does not answer as it says, it refuses: 4xx and 5xx are all of one form."""
        document = super().get_openapi_schema(*args, **kwargs)
        refusals = TypeAdapter(Refusal).json_schema(ref_template="#/components/schemas/{model}")
        schemas = document["components"]["schemas"]
        schemas.update({**refusals.pop("$defs"), **schemas, "Refusal": refusals})
        content = {"application/json": {"schema": {"$ref": "#/components/schemas/Refusal"}}}
        for operations in document["paths"].values():
            for operation in operations.values():
                answers = {str(code): told for code, told in operation["responses"].items()}
                operation["responses"] = {**answers, "default": {"description": "Refused", "content": content}}
        return document


api = KembleAPI(
    title="Kemble",
    version=__version__,
    description="Sheets, plans, runs and the log of a sweet-rice kitchen.",
    auth=HouseholdAuth(),
    docs_url=None,
    openapi_url="/openapi.json",
    parser=CleanParser(),
)
ROOMS = (
    session,
    household,
    kitchen,
    cards,
    larder,
    sheets,
    revisions,
    files,
    archive,
    sheet_comparison,
    shopping,
    plans,
    occasions,
    runs,
    pictures,
    log,
    fact_history,
    learning,
    blind_tastings,
    stored_pieces,
    benches,
    devices,
    trash,
    health,
)
for room in ROOMS:
    api.add_router("", room.router)


@cache
def bodies() -> dict[str, type[BaseModel]]:
    """Every body by the name of its parameter, which is its key where an error is told."""
    result: dict[str, type[BaseModel]] = {}
    for _, router in api._routers:
        for view in router.path_operations.values():
            for operation in view.operations:
                for name, kind in get_type_hints(operation.view_func).items():
                    if isinstance(kind, type) and issubclass(kind, BaseModel) and name != "return":
                        assert result.setdefault(name, kind) is kind, f"two bodies are called {name}"
    return result


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, error: Any) -> HttpResponse:
    """Every field at fault, as a path below the body, with what it accepts."""
    problems = []
    for detail in error.errors:
        where, *rest = detail["loc"]
        root = bodies().get(rest[0]) if rest and where == "body" else None
        inner = rest[1:] if root else rest
        below = cast(ErrorDetails, {**detail, "loc": tuple(inner), "input": detail.get("input")})
        problems.append(problem_from(below, root))
    return refusal(problems, 422)


@api.exception_handler(Refused)
def _refused(request: HttpRequest, error: Any) -> HttpResponse:
    return refusal(error.problems, 422)


@api.exception_handler(ConflictRefusal)
def _conflict(request: HttpRequest, error: Any) -> HttpResponse:
    return refusal([Problem(path="revision", says=str(error), accepts=say("the newest revision, or a copy"))], 409)


@api.exception_handler(GoneRefusal)
def _answer_gone(request: HttpRequest, error: Any) -> HttpResponse:
    return refusal([Problem(path="address", says=str(error), accepts=say("it again, once it is brought back"))], 410)


@api.exception_handler(Exception)
def _answer_fault(request: HttpRequest, error: Any) -> HttpResponse:
    return fault_response(request, error)


@api.exception_handler(Http404)
@api.exception_handler(ObjectDoesNotExist)
def _missing(request: HttpRequest, error: Any) -> HttpResponse:
    return refusal([Problem(path="address", says=say("nothing of this kitchen's is here"))], 404)


@api.exception_handler(RoleForbidden)
def _not_theirs(request: HttpRequest, error: Any) -> HttpResponse:
    says = say("is a {error}’s, who has no part in this", error=error)
    return refusal([Problem(path="role", says=says, accepts=say("the owner, or whoever they let do it"))], 403)


@api.exception_handler(AuthenticationError)
def _unknown(request: HttpRequest, error: Any) -> HttpResponse:
    return refusal([Problem(path="session", says=say("is not signed in"), accepts=say("a name and a password"))], 401)


@api.exception_handler(HttpError)
def _http(request: HttpRequest, error: Any) -> HttpResponse:
    if error.status_code == 403:
        return refusal([TOKEN_LOST], 403)
    if isinstance(error.__cause__, Refused):  # what was parsed as JSON, and will not do all the same
        return refusal(error.__cause__.problems, 422)
    says = say("is not JSON") if error.status_code == 400 else str(error)
    return refusal([Problem(path="the document", says=says)], error.status_code)
