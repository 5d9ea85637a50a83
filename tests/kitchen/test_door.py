"""Who gets in, what they may see, and the policy on every page."""

import re

import pytest
from asking import Asking
from django.test import Client

from kemble.kitchen.models import Kitchen
from kemble.kitchen.owner import local_owner

pytestmark = pytest.mark.django_db


class TestLoopback:
    @pytest.mark.parametrize("address", ["127.0.0.1", "::1"])
    def test_is_let_in_as_the_owner(self, address):
        answer = Asking(REMOTE_ADDR=address).ask("GET", "/session")
        assert answer.body == {"signed_in": True, "name": "owner", "local": True, "has_password": False}

    @pytest.mark.parametrize("host", ["localhost:8000", "[::1]:8000", "[::1]", "127.0.0.1"])
    def test_under_each_of_its_names(self, host):
        answer = Client(REMOTE_ADDR="127.0.0.1").get("/api/session", HTTP_HOST=host)
        assert answer.json()["signed_in"]

    @pytest.mark.parametrize(
        "extra",
        [
            {"REMOTE_ADDR": "192.168.1.20"},
            {"REMOTE_ADDR": "10.0.0.1"},
            {"HTTP_X_FORWARDED_FOR": "198.51.100.9"},
            {"HTTP_FORWARDED": "for=198.51.100.9"},
            {"HTTP_X_REAL_IP": "198.51.100.9"},
        ],
    )
    def test_only_there(self, extra):
        client = Asking()
        assert client.ask("GET", "/session", **extra).body["signed_in"] is False
        assert client.ask("GET", "/sheets", **extra).status_code == 401

    def test_a_name_that_is_not_ours_is_turned_away(self):
        assert Client().get("/api/session", HTTP_HOST="kemble.example").status_code == 400

    def test_a_further_host_is_asked_for_a_password(self, settings):
        settings.ALLOWED_HOSTS = [*settings.ALLOWED_HOSTS, "hall.example"]
        assert Client().get("/api/session", HTTP_HOST="hall.example").json()["signed_in"] is False


AWAY = {"REMOTE_ADDR": "192.0.2.7"}


class TestPassword:
    def sign_in(self, client, password, username="owner"):
        return client.ask("POST", "/session", {"username": username, "password": password}, **AWAY)

    def test_set_at_home_and_used_elsewhere(self, owner):
        assert owner.ask("PUT", "/session/password", {"password": "mending circle tea"}).body["has_password"]
        assert owner.ask("GET", "/sheets").status_code == 200  # and this session goes on
        away = Asking()
        assert self.sign_in(away, "wrong").status_code == 422
        assert self.sign_in(away, "mending circle tea").body["signed_in"]
        assert away.ask("GET", "/sheets", **AWAY).status_code == 200
        assert away.ask("DELETE", "/session", **AWAY).body["signed_in"] is False

    def test_none_gets_in_before_one_is_set(self):
        local_owner()
        for guess in ("", "!", "owner"):
            assert self.sign_in(Asking(), guess or " ").status_code == 422

    @pytest.mark.parametrize("password", ["short", "password1234", 7])
    def test_a_weak_one_is_refused(self, owner, password):
        answer = owner.ask("PUT", "/session/password", {"password": password})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "password"

    def test_ten_wrong_tries_and_the_door_stays_shut(self, owner):
        owner.ask("PUT", "/session/password", {"password": "mending circle tea"})
        for _ in range(10):
            assert self.sign_in(Asking(), "wrong guess").status_code == 422
        assert self.sign_in(Asking(), "mending circle tea").status_code == 429


class TestForgery:
    def test_a_change_needs_the_token(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session", HTTP_HOST="127.0.0.1")
        answer = client.post("/api/sheets", {"way": "set-cake"}, content_type="application/json", HTTP_HOST="127.0.0.1")
        assert answer.status_code == 403

    def test_and_so_does_signing_in(self):
        client = Client(enforce_csrf_checks=True, REMOTE_ADDR="192.0.2.7")
        body = {"username": "owner", "password": "x"}
        assert (
            client.post("/api/session", body, content_type="application/json", HTTP_HOST="127.0.0.1").status_code == 403
        )

    def test_with_it_all_is_well(self, tmp_path, settings):
        settings.WEB_BUILD = tmp_path
        (tmp_path / "index.html").write_text("<html></html>")
        client = Client(enforce_csrf_checks=True)
        token = client.get("/", HTTP_HOST="127.0.0.1").cookies["csrftoken"].value
        answer = client.post(
            "/api/sheets",
            {"way": "set-cake"},
            content_type="application/json",
            HTTP_HOST="127.0.0.1",
            HTTP_X_CSRFTOKEN=token,
        )
        assert answer.status_code == 200


class TestPage:
    def test_policy_and_nonce(self, tmp_path, settings):
        settings.WEB_BUILD = tmp_path
        (tmp_path / "index.html").write_text('<script nonce="__KEMBLE_NONCE__"></script>')
        answer = Client().get("/sheets/1/mix", HTTP_HOST="127.0.0.1")
        policy = answer.headers["Content-Security-Policy"]
        nonce = re.search(r"'nonce-([^']+)'", policy).group(1)
        assert answer.content.decode() == f'<script nonce="{nonce}"></script>'
        scripts = next(part for part in policy.split("; ") if part.startswith("script-src"))
        assert scripts == "script-src 'self'"
        assert "unsafe" not in policy
        assert answer.headers["X-Frame-Options"] == "DENY"
        assert Client().get("/", HTTP_HOST="127.0.0.1").headers["Content-Security-Policy"] != policy

    def test_before_it_is_built_it_says_so(self, tmp_path, settings):
        settings.WEB_BUILD = tmp_path
        answer = Client().get("/", HTTP_HOST="127.0.0.1")
        assert answer.status_code == 503
        assert b"make build" in answer.content

    def test_the_secret_key_is_made_outside_the_repository(self, settings):
        path = settings.DATA / "secret-key"
        assert path.stat().st_mode & 0o077 == 0
        assert len(path.read_text()) >= 50


def test_nobody_sees_another_kitchen(owner, stranger, sheet):
    """Every address that takes a number, asked by somebody else's hand."""
    serve = "2099-01-01T12:00"
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    batch = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 0}}).body["id"]
    event = {"uid": "12345678", "kind": "noted", "text": "mine"}
    for method, path, body in [
        ("GET", f"/sheets/{sheet['id']}", None),
        ("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": sheet["sheet"]}),
        ("DELETE", f"/sheets/{sheet['id']}", None),
        ("POST", "/occasions", {"sheet": sheet["id"], "serve": serve}),
        ("POST", "/runs", {"sheet": sheet["id"]}),
        ("GET", f"/runs/{run}", None),
        ("POST", f"/runs/{run}/events", event),
        ("POST", f"/runs/{run}/outcome", {}),
        ("DELETE", f"/runs/{run}", None),
        ("GET", f"/log/{batch}", None),
        ("PUT", f"/log/{batch}", {}),
    ]:
        answer = stranger.ask(method, path, body)
        assert answer.status_code == 404, (method, path)
        assert answer.body["problems"]
    for path in ("/sheets", "/occasions", "/runs", "/log"):
        assert stranger.ask("GET", path).body == []
    assert stranger.ask("GET", "/kitchen").body["kitchen"]["name"] == "Elsewhere"
    assert Kitchen.objects.count() == 2
