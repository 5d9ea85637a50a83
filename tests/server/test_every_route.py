"""The door's rules over every route that the API's document lists: as nobody, as each of a household, as another kitchen."""

import json
import re
from datetime import timedelta
from io import BytesIO

import pytest
from asking import Asking, table
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from kemble.server.accounts.roles import MAY, Role
from kemble.server.api import api
from kemble.server.models import CuePicture, Invitation, KitchenRecord, Member
from kemble.server.web.middleware import TIME_HEADER

pytestmark = pytest.mark.django_db

DOCUMENT = api.get_openapi_schema()
ROUTES = sorted(
    (method.upper(), path.removeprefix("/api"), operation)
    for path, operations in DOCUMENT["paths"].items()
    for method, operation in operations.items()
)
KEYS = [f"{method} {path}" for method, path, _ in ROUTES]
OPERATIONS = {f"{method} {path}": operation for method, path, operation in ROUTES}
# Asked by whoever is not in yet, and by a load balancer.
OPEN = {
    "GET /session", "POST /session", "POST /session/key", "POST /session/invited", "POST /session/invited/look",
    "GET /health", "GET /authority.pem",
}  # fmt: skip
UNDOCUMENTED = {"GET /pictures/{picture_id}.webp", "GET /scale/live", "GET /probe/live"}


def address(path, numbers=None):
    """The path with something in each of its places: 1, or what `numbers` has for it."""
    return re.sub(r"\{(\w+)\}", lambda place: str((numbers or {}).get(place[1], 1)), path)


def put(client, method, path, operation, body=None):
    """Ask in the form that the route is written to take."""
    content = operation.get("requestBody", {}).get("content", {})
    if "multipart/form-data" in content:
        return client.post(f"/api{path}", body or {}, HTTP_HOST="127.0.0.1:8000")
    return client.ask(method, path, body if body is not None else ({} if content else None))


@pytest.mark.parametrize(("method", "path", "operation"), ROUTES, ids=KEYS)
def test_nobody_gets_in(method, path, operation):
    answer = put(Asking(), method, address(path), operation)
    if f"{method} {path}" in OPEN:
        assert answer.status_code != 401
    else:
        assert answer.status_code == 401
        assert json.loads(answer.content)["problems"][0]["path"] == "session"


@pytest.mark.parametrize("role", [role for role in Role if role is not Role.OWNER])
def test_each_role_is_held_to_its_part(invited, role, play_kitchen):
    """What a role has no part in is refused before anything else is looked at; what it has, is not."""
    user = invited[role].get("/api/session", HTTP_HOST="127.0.0.1:8000").json()["name"]
    member = Member.objects.get(user__username=user).user
    for method, path, operation in ROUTES:
        invited[role].force_login(member)  # some of what is asked signs out
        answer = put(invited[role], method, address(path), operation)
        key = f"{method} {path}"
        refused = answer.status_code == 403 and json.loads(answer.content)["problems"][0]["path"] == "role"
        assert refused == (key not in OPEN and role not in MAY.get(key, {Role.OWNER, Role.COOK})), (role, key)


def test_the_owner_is_refused_nothing(owner):
    assert all(Role.OWNER in roles for roles in MAY.values())


def test_the_table_names_routes_that_are_there():
    assert set(MAY) - set(KEYS) - UNDOCUMENTED == set()


@pytest.mark.parametrize("path", ["/runs/1/pictures", "/scale/live", "/probe/live"])
def test_a_taster_hears_no_device_and_sees_no_making(invited, path):
    assert invited[Role.TASTER].ask("GET", path).status_code == 403


def test_what_changes_a_kitchen_is_not_for_helpers_and_tasters():
    """By what the words of the table mean: none of them saves a sheet, a kitchen, a plan or the log, or throws away."""
    own = {key for key in MAY if "/session" in key}
    for role, writes in (
        (Role.HELPER, r"POST /(runs/\{run_id\}/(pictures|events|rest)|shopping|benches.*|scale/.*|probe/.*)"),
        (Role.TASTER, r"POST /(log/\{batch_id\}/tastings|splits/\{split_id\}/answers)"),
    ):
        theirs = {key for key, roles in MAY.items() if role in roles and not key.startswith("GET ")} - own
        assert {key for key in theirs if not re.fullmatch(writes, key)} == set()


@pytest.fixture
def theirs(owner, sheet, invited):
    """One of each thing of the owner's, by the name of its number in the paths."""
    serve = f"{timezone.now() + timedelta(days=9):%Y-%m-%d}T12:00"
    number = sheet["id"]
    run = owner.ask("POST", "/runs", {"sheet": number}).body["id"]
    batch = owner.ask(
        "POST", f"/runs/{run}/outcome", {"tastes": {"softness": 0}, "kept": [{"where": "fridge", "pieces": 2}]}
    )
    occasion = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve)}).body["id"]
    setup = {"what": "dough", "total_g": 60, "pieces": 3}
    bench = owner.ask("POST", "/benches", {"sheet": number, "setup": setup}).body["id"]
    halves = {"a": "as it was", "b": "more water", "kind": "paired", "tasters": 4, "seed": 3}
    split = owner.ask("POST", "/splits", {"title": "", "split": halves}).body
    kitchen = KitchenRecord.objects.get(sheets=number)
    out = BytesIO()
    Image.new("RGB", (8, 6)).save(out, "WEBP")
    picture = CuePicture.objects.create(
        kitchen=kitchen,
        uid="picture-1",
        run_id=run,
        title="x",
        way="set-cake",
        step="mix",
        at=timezone.now(),
        webp=out.getvalue(),
    )
    invitation = Invitation.objects.create(kitchen=kitchen, digest="d", name="Sorrel", role=Role.HELPER)
    helper = Member.objects.get(kitchen=kitchen, role=Role.HELPER)
    return {
        "sheet_id": number,
        "run_id": run,
        "batch_id": batch.body["id"],
        "occasion_id": occasion,
        "bench_id": bench,
        "split_id": split["id"],
        "stock_id": kitchen.stock.get().pk,
        "picture_id": picture.pk,
        "invitation_id": invitation.pk,
        "member_id": helper.pk,
        "code": split["codes"][0][0],
        "document": sheet["sheet"],
        "serve": serve,
    }


def bodies_of(result):
    """A body that would do, for each route with a number and a body: refused for whose it is, not for what it says."""
    run, number, document = result["run_id"], result["sheet_id"], result["document"]
    return {
        "POST /benches/{bench_id}/marks": {"uid": "12345678", "kind": "piece", "grams": 20},
        "POST /archive/staged/{archive_id}/take": {"how": "in place"},
        "PUT /log/{batch_id}": {"tastes": {}, "faults": [], "note": "mine", "pieces": None, "grams": None},
        "PUT /log/{batch_id}/left-out": {"left_out": True},
        "POST /log/{batch_id}/next": {"kind": "please"},
        "POST /log/{batch_id}/tastings": {"liking": 9},
        "PUT /occasions/{occasion_id}": {"occasion": {**table(number, serve=result["serve"])}},
        "POST /runs/{run_id}/events": {"uid": "12345678", "kind": "noted", "text": "mine"},
        "POST /runs/{run_id}/outcome": {},
        "POST /runs/{run_id}/pictures": lambda: {
            "uid": "12345678", "step": "mix", "picture": SimpleUploadedFile("a.png", b"x", "image/png"),
        },
        "PUT /sheets/{sheet_id}": {"revision": 1, "sheet": document},
        "POST /sheets/{sheet_id}/as-made": {"run": run},
        "PUT /sheets/{sheet_id}/revisions/{number}": {"name": "mine"},
        "POST /sheets/{sheet_id}/share": {"role": "filling", "with_sheet": number + 1},
        "POST /sheets/{sheet_id}/unshare": {"role": "filling", "with_sheet": number + 1},
        "POST /splits/{split_id}/answers": {"taster": 1, "code": result["code"]},
        "PUT /stock/{stock_id}": {"pieces": 1},
        "PUT /household/{member_id}": {"role": "cook"},
    }  # fmt: skip


def headers_of(client, key, numbers):
    """What a route answers with, beside its body: (status, headers). What differs from one answer to the next is left out.
    What would change something is asked about a thing that is not there, and with a body that says nothing."""
    method, path = key.split(" ")
    if method == "GET":
        answer = client.get(f"/api{address(path, numbers)}", HTTP_HOST="127.0.0.1:8000")
    else:
        missing = dict.fromkeys(re.findall(r"\{(\w+)\}", path), 999999)
        answer = put(client, method, address(path, missing), OPERATIONS[key])
    answer.close()
    return answer.status_code, {
        name: value
        for name, value in answer.headers.items()
        if name not in ("Content-Length", "Content-Security-Policy", TIME_HEADER)
    }


def test_headers_are_the_same_in_every_language(owner, theirs, play_kitchen):
    """What two programs say to each other is nobody's to translate."""
    numbers = {**theirs, "number": 1, "template": "lining", "what": "card", "how": "kemble", "name": "batches"}
    keys = sorted({*KEYS, *UNDOCUMENTED} - {"DELETE /session"})
    plain = {key: headers_of(owner, key, numbers) for key in keys}
    assert sum(status == 200 for status, _ in plain.values()) > 45, plain
    assert len(plain) > 100
    there = owner.ask("GET", "/kitchen").body
    body = {"kitchen": {**there["kitchen"], "locale": "en-XA"}, "revision": there["revision"]}
    assert owner.ask("PUT", "/kitchen", body).status_code == 200
    assert {key: headers_of(owner, key, numbers) for key in keys} == plain


NUMBERED = [(method, path, told) for method, path, told in ROUTES if "_id}" in path]


def test_another_kitchen_finds_nothing_of_this_one(owner, stranger, theirs):
    """Every address that takes a number of something kept, with the owner's number and a body that would do."""
    before = {model: list(model.objects.order_by("pk").values()) for model in (Member, Invitation, CuePicture)}
    bodies = bodies_of(theirs)
    for method, path, operation in NUMBERED:
        key = f"{method} {path}"
        asked = address(path, {**theirs, "number": 1, "template": "lining", "what": "card", "how": "kemble"})
        if "requestBody" in operation:
            body = bodies.pop(key)
            answer = put(stranger, method, asked, operation, body() if callable(body) else body)
        else:
            answer = put(stranger, method, asked, operation)
        assert answer.status_code == 404, (key, answer.status_code)
        assert json.loads(answer.content)["problems"], key
    assert bodies == {}  # of routes that are no more
    assert before == {model: list(model.objects.order_by("pk").values()) for model in before}


def test_what_is_listed_is_ones_own(owner, stranger, theirs):
    for path in ("/occasions", "/runs", "/dropped", f"/benches?sheet={theirs['sheet_id']}", "/splits", "/to-eat"):
        assert stranger.ask("GET", path).body == [], path
    assert stranger.ask("GET", "/sheets").body["sheets"] == stranger.ask("GET", "/log").body["batches"] == []
    for body in ({"occasion": theirs["occasion_id"]}, {"sheet": theirs["sheet_id"]}):
        assert stranger.ask("POST", "/runs", body).status_code == 404
    taken = stranger.ask("POST", "/occasions", {"occasion": table(theirs["sheet_id"], serve=theirs["serve"])})
    assert taken.status_code == 422
    assert "is not there" in taken.body["problems"][0]["says"]
    owner.ask("DELETE", f"/sheets/{theirs['sheet_id']}")
    assert stranger.ask("POST", f"/dropped/sheet/{theirs['sheet_id']}").status_code == 404
    assert stranger.ask("GET", "/kitchen").body["kitchen"]["name"] == "Elsewhere"
    assert KitchenRecord.objects.count() == 2
