"""The API keeps to its own document: answers are of the types they say, and every refusal is written down."""

from datetime import UTC, datetime, timedelta
from typing import get_args

import pytest
from asking import table
from django.utils import timezone
from pydantic import BaseModel, TypeAdapter

from kemble.core.cards.ways import WAYS
from kemble.core.change.school_comparison import SchoolsCompared
from kemble.core.change.shopping import ShoppingList
from kemble.core.facts.unchecked import checking_models
from kemble.core.formats.ingredient_text import ParsedIngredientList
from kemble.core.plan.schedule import Plan
from kemble.core.stations.work_sheet import WorkResult
from kemble.server.api import (
    ROOMS,
    api,
    benches,
    bodies,
    cards,
    devices,
    kitchen,
    larder,
    log,
    occasions,
    runs,
    session,
    sheets,
    trash,
)
from kemble.server.api.error_responses import Refusal

pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def _every_model_is_checked():
    with checking_models():
        yield


def instants(value):
    """The same document with its times as times, for one instant can be written in several ways."""
    if isinstance(value, dict):
        return {key: instants(inner) for key, inner in value.items()}
    if isinstance(value, list):
        return [instants(inner) for inner in value]
    if isinstance(value, str) and value[:4].isdigit() and "T" in value:
        return datetime.fromisoformat(value)
    return value


@pytest.fixture
def made(owner, sheet):
    """One of each thing, and where to find it."""
    far = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve="2099-01-01T12:00")})
    assert far.status_code == 422  # too far off: nobody plans a day more than thirteen months ahead
    serve = f"{timezone.now() + timedelta(days=5):%Y-%m-%d}T15:30"
    occasion = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve)}).body["id"]
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    owner.ask("POST", f"/runs/{run}/events", {"uid": "12345678", "kind": "weighed", "step": "mix", "grams": 900})
    batch = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 1}, "faults": ["specks"]}).body["id"]
    going = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
    setup = {"what": "dough", "total_g": 60, "pieces": 3, "drill": True}
    bench = owner.ask("POST", "/benches", {"sheet": sheet["id"], "setup": setup}).body["id"]
    for kind, grams in (("guess", 18), ("piece", 20)):
        owner.ask("POST", f"/benches/{bench}/marks", {"uid": f"contract-{kind}", "kind": kind, "grams": grams})
    owner.ask("DELETE", f"/sheets/{owner.ask('POST', '/sheets', {'way': 'set-cake'}).body['id']}")
    return {"sheet": sheet["id"], "run": going, "batch": batch, "bench": bench, "occasion": occasion}


@pytest.mark.parametrize(
    ("path", "kind"),
    [
        ("/session", session.Session),
        ("/kitchen", kitchen.KitchenOpen),
        ("/ways", list[cards.WayCard]),
        ("/common-steps", list[cards.CommonStepCard]),
        ("/larder", list[larder.IngredientCard]),
        ("/larder/egg/exchanges", list[larder.ExchangeCard]),
        ("/parts", list[cards.FamilyCard]),
        ("/sheets", sheets.SheetPage),
        ("/sheets/{sheet}", sheets.SheetOpen),
        ("/occasions", list[occasions.OccasionCard]),
        ("/occasions/{occasion}", occasions.OccasionOpen),
        ("/feasts", list[occasions.FeastCard]),
        ("/runs", list[runs.RunCard]),
        ("/runs/{run}", runs.RunOpen),
        ("/log", log.LogPage),
        ("/log?way=set-cake&page=1&size=5", log.LogPage),
        ("/dropped", list[trash.TrashCard]),
        ("/log/{batch}", log.BatchOpen),
        ("/benches?sheet={sheet}", list[benches.BenchCard]),
        ("/benches/{bench}", benches.BenchOpen),
        ("/eye", list[benches.EyeDay]),
        ("/scale", devices.ScaleCard),
    ],
)
def test_an_answer_is_of_the_type_it_says(owner, made, path, kind):
    """Answers are built unchecked for speed; here every one is checked, and nothing is lost on the way."""
    answer = owner.ask("GET", path.format(**made))
    adapter = TypeAdapter(kind)
    again = adapter.dump_python(adapter.validate_json(answer.content), mode="json")
    assert instants(again) == instants(answer.body)


def test_every_address_without_a_number_in_it_answers(owner, made):
    """Found in the document, not in a list beside it."""
    paths = [
        path
        for path, operations in api.get_openapi_schema()["paths"].items()
        if "get" in operations and "{" not in path
    ]
    assert len(paths) > 20
    for path in paths:
        assert owner.get(path).status_code < 500, path


@pytest.mark.parametrize("way", sorted(WAYS))
def test_a_ripple_a_plan_and_a_refusal_are_of_theirs(owner, way):
    sheet = owner.ask("POST", "/sheets", {"way": way}).body["sheet"]
    rippled = owner.ask("POST", "/work", {"sheet": sheet, "before": sheet})
    assert sheets.RecalculatedSheet.model_validate_json(rippled.content).moved == []
    adjusted = owner.ask("POST", "/adjust", {"sheet": sheet, "to": {"by": "part", "factor": 1.02}})
    assert sheets.RecalculatedSheet.model_validate_json(adjusted.content).moved
    sheet["title"] = ""
    refused = owner.ask("POST", "/work", {"sheet": sheet})
    assert Refusal.model_validate_json(refused.content).problems[0].path == "sheet.title"
    late = owner.ask("POST", "/plan", {"sheet": {**sheet, "title": "x"}, "serve": "2000-01-01T10:00"})
    assert Refusal.model_validate_json(late.content).problems[0].path == "serve"


def test_every_refusal_is_written_down():
    """Once, for whatever an operation does not answer as it says; and as the handlers give it."""
    document = api.get_openapi_schema()
    assert set(document["components"]["schemas"]["Refusal"]["properties"]) == set(Refusal.model_fields)
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            told = operation["responses"]["default"]["content"]["application/json"]["schema"]
            assert told == {"$ref": "#/components/schemas/Refusal"}, (method, path)


def test_every_body_is_found_by_its_name():
    """An error in a body names its field from there: each route with a body has one that is known."""
    known = {kind.__name__ for kind in bodies().values()}
    for operations in api.get_openapi_schema()["paths"].values():
        for operation in operations.values():
            if "requestBody" in operation:
                content = operation["requestBody"]["content"]
                if "multipart/form-data" in content:
                    continue  # a file: its form is told field by field
                told = content["application/json"]["schema"]["$ref"]
                assert told.rpartition("/")[2] in known
    assert len(known) > 15


def test_the_core_and_the_page_speak_of_one_plan(owner, sheet):
    """A plan kept with an occasion is the plan that was looked at, to the letter."""
    serve = f"{datetime.now(UTC) + timedelta(days=3):%Y-%m-%dT15:30}"
    looked = owner.ask("POST", "/plan", {"sheet": sheet["sheet"], "serve": serve})
    kept = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve)})
    assert Plan.model_validate(looked.body) == Plan.model_validate(kept.body["day"]["plan"])


@pytest.mark.parametrize("path", ["/sheets/999999", "/runs/999999", "/log/999999"])
def test_what_is_not_there(owner, path):
    answer = owner.ask("GET", path)
    assert answer.status_code == 404
    assert answer.body["problems"][0]["says"]


@pytest.mark.parametrize(("method", "path"), [("GET", "/nothing"), ("PATCH", "/sheets"), ("GET", "/sheets/abc")])
def test_addresses_that_do_not_exist(owner, method, path):
    answer = owner.ask(method, path)
    assert answer.status_code in (404, 405, 422)
    assert answer.body["problems"]


def test_no_two_types_share_a_name():
    """In the document each name is one type: the second of a name would take the first one's place unseen."""
    named = {}

    def visit(kind):
        if isinstance(kind, type) and issubclass(kind, BaseModel):
            if named.setdefault(kind.__name__, kind) is not kind:
                raise AssertionError(f"{kind.__module__} and {named[kind.__name__].__module__}: {kind.__name__}")
            for field in kind.model_fields.values():
                visit(field.annotation)
        for inner in get_args(kind):
            visit(inner)

    routes = [kind for room in ROOMS for kind in vars(room).values()]
    for kind in [*routes, Refusal, Plan, WorkResult, SchoolsCompared, ShoppingList, ParsedIngredientList]:
        visit(kind)
    assert len(named) > 100


def test_no_two_types_go_by_one_name():
    """Of two models of one name the document would hold only the last, and every answer of the other be typed wrongly."""

    def below(model):
        for item in model.__subclasses__():
            yield item
            yield from below(item)

    told = api.get_openapi_schema()["components"]["schemas"]
    homes: dict[str, set[str]] = {}
    for model in below(BaseModel):
        at = model.__module__
        if at.startswith("kemble.") and not at.startswith("kemble.core.devices.") and model.__name__ in told:
            homes.setdefault(model.__name__, set()).add(at)
    assert {name: at for name, at in homes.items() if len(at) > 1} == {}


def test_every_number_that_comes_in_has_an_end():
    """A whole number without one is larger than the database keeps, and than a page can say."""
    document = api.get_openapi_schema()
    open_ended: set[str] = set()

    def visit(schema, at, above):
        if "$ref" in schema:
            name = schema["$ref"].rpartition("/")[2]
            if name not in above:
                visit(document["components"]["schemas"][name], name, above | {name})
            return
        if schema.get("type") == "integer" and not {"maximum", "exclusiveMaximum", "enum", "const"} & schema.keys():
            open_ended.add(at)
        for choice in (*schema.get("anyOf", ()), *schema.get("oneOf", ()), *schema.get("allOf", ())):
            visit(choice, at, above)
        for name, inner in schema.get("properties", {}).items():
            visit(inner, f"{at.partition('.')[0]}.{name}", above)
        for inner in (schema.get("items"), schema.get("additionalProperties")):
            if isinstance(inner, dict):
                visit(inner, at, above)

    for operations in document["paths"].values():
        for operation in operations.values():
            for content in operation.get("requestBody", {}).get("content", {}).values():
                visit(content["schema"], "body", frozenset())
            for parameter in operation.get("parameters", ()):
                if parameter["in"] == "query":
                    visit(parameter["schema"], parameter["name"], frozenset())
    assert open_ended == set()
