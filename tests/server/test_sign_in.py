"""Who gets in, what they may see, and the policy on every page."""

import base64
import hmac
import os
import re
import struct
import subprocess
import sys
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from asking import Asking
from django.contrib.sessions.models import Session
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kemble.server.accounts import sign_in_keys
from kemble.server.accounts.owner import local_owner
from kemble.server.api import session
from kemble.server.models import PasswordAttempt, SignInKey

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


class TestKey:
    """The key that the start command prints."""

    def test_lets_one_browser_in_once(self):
        key = sign_in_keys.new_key(timezone.now())
        client = Asking()
        assert client.ask("POST", "/session/key", {"key": key}).body == {
            "signed_in": True,
            "name": "owner",
            "role": "owner",
            "has_password": False,
            "second_factor": False,
        }
        assert client.ask("GET", "/sheets").status_code == 200
        second = Asking().ask("POST", "/session/key", {"key": key})
        assert second.status_code == 422
        assert second.body["problems"][0]["path"] == "key"

    def test_is_good_for_a_day_and_until_the_next_one(self):
        key = sign_in_keys.new_key(NOW)
        assert not sign_in_keys.use_key(key, NOW + timedelta(hours=25))
        assert not sign_in_keys.use_key("x" * 32, NOW)
        newer = sign_in_keys.new_key(NOW)
        assert not sign_in_keys.use_key(key, NOW)
        assert sign_in_keys.use_key(newer, NOW)

    def test_is_kept_as_a_digest(self):
        key = sign_in_keys.new_key(NOW)
        assert key not in str(list(SignInKey.objects.values()))

    @pytest.mark.parametrize(
        "extra",
        [
            {"REMOTE_ADDR": "127.0.0.1"},
            {"REMOTE_ADDR": "::1"},
            {"REMOTE_ADDR": "127.0.0.1", "HTTP_HOST": "localhost"},
            {"HTTP_X_FORWARDED_FOR": "127.0.0.1"},
        ],
    )
    def test_without_it_the_own_machine_is_nobody(self, extra):
        client = Asking()
        assert client.ask("GET", "/session", **extra).body["signed_in"] is False
        assert client.ask("GET", "/sheets", **extra).status_code == 401

    def test_a_request_without_a_cookie_leaves_no_row(self):
        local_owner()
        for path in ("/session", "/sheets", "/kitchen"):
            Asking().ask("GET", path)
        Client().get("/", HTTP_HOST="127.0.0.1")
        assert Session.objects.count() == 0

    def test_a_name_that_is_not_ours_is_turned_away(self):
        answer = Client().get("/api/session", HTTP_HOST="kemble.example")
        assert answer.status_code == 400
        assert answer.json()["problems"][0]["accepts"] == "a name in KEMBLE_HOSTS"


class TestSession:
    def test_it_lasts_thirty_days_from_its_last_day_of_use(self, owner):
        with time_machine.travel(NOW, tick=False) as clock:
            owner.force_login(local_owner())
            for _ in range(4):
                clock.shift(timedelta(days=20))
                assert owner.ask("GET", "/sheets").status_code == 200
            clock.shift(timedelta(days=31))
            assert owner.ask("GET", "/sheets").status_code == 401

    def test_it_is_written_once_a_day_at_most(self, owner):
        owner.ask("GET", "/session")
        with CaptureQueriesContext(connection) as asked:
            owner.ask("GET", "/session")
        assert not [item for item in asked if item["sql"].startswith(("UPDATE", "INSERT"))]


AWAY = {"REMOTE_ADDR": "192.0.2.7"}
RIGHT = "mending circle tea"
OTHER = "barley under the stairs"


def sign_in(client, password, username="owner", **extra):
    return client.ask("POST", "/session", {"username": username, "password": password}, **{**AWAY, **extra})


class TestPassword:
    def test_set_at_home_and_used_elsewhere(self, owner):
        assert owner.ask("PUT", "/session/password", {"password": RIGHT}).body["has_password"]
        assert owner.ask("GET", "/sheets").status_code == 200  # and this session goes on
        away = Asking()
        assert sign_in(away, "wrong").status_code == 422
        assert sign_in(away, RIGHT).body["signed_in"]
        assert away.ask("GET", "/sheets", **AWAY).status_code == 200
        assert away.ask("DELETE", "/session", **AWAY).body["signed_in"] is False

    def test_none_gets_in_before_one_is_set(self):
        local_owner()
        for guess in ("", "!", "owner"):
            assert sign_in(Asking(), guess or " ").status_code == 422

    @pytest.mark.parametrize("password", ["short", "password1234", 7])
    def test_a_weak_one_is_refused(self, owner, password):
        answer = owner.ask("PUT", "/session/password", {"password": password})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "password"

    def test_ten_wrong_tries_and_the_next_waits_for_the_oldest(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        with time_machine.travel(NOW, tick=False) as clock:
            for _ in range(10):
                assert sign_in(Asking(), "wrong guess").status_code == 422
                clock.shift(timedelta(seconds=20))
            assert sign_in(Asking(), RIGHT).status_code == 429
            clock.shift(timedelta(seconds=101))  # five minutes after the first of them
            assert sign_in(Asking(), RIGHT).status_code == 200

    def test_one_phone_does_not_lock_the_household_out(self, owner):
        """All of them come from one address. A browser that has signed in before is counted by itself."""
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        aunt = Asking()
        assert sign_in(aunt, RIGHT).status_code == 200
        aunt.ask("DELETE", "/session", **AWAY)
        for _ in range(10):
            sign_in(Asking(), "wrong guess")
        assert sign_in(Asking(), RIGHT).status_code == 429
        assert sign_in(Asking(), RIGHT, REMOTE_ADDR="192.0.2.8").status_code == 429  # a new browser waits, wherever
        assert sign_in(aunt, RIGHT).status_code == 200

    def test_a_cookie_made_up_is_nobody_known(self):
        client = Asking()
        client.cookies["kemble-known"] = "made-up:1abcde:signature"
        for _ in range(10):
            sign_in(client, "wrong guess")
        assert sign_in(Asking(), "wrong guess").status_code == 429


@pytest.fixture
def household(owner, invited):
    """The owner with a password, and a taster with one: (sign in as the taster on a client)."""
    owner.ask("PUT", "/session/password", {"password": RIGHT})
    return lambda client: sign_in(client, "a long password", username="a-taster")


class TestGuessingAnother:
    """Somebody of the household guesses the owner's password between sign-ins of their own."""

    def test_own_sign_ins_forgive_no_guess_at_another(self, household):
        """Thirty-six guesses, an own sign-in before each: ten are tried."""
        taster = Asking()
        answers = Counter()
        for _ in range(36):
            household(taster)
            answers[sign_in(taster, "wrong guess").status_code] += 1
        assert answers == {422: 10, 429: 26}

    def test_nor_does_a_browser_that_forgets_who_it_is(self, household):
        answers = Counter()
        for _ in range(12):
            fresh = Asking()
            household(fresh)
            answers[sign_in(fresh, "wrong guess").status_code] += 1
        assert answers == {422: 10, 429: 2}

    def test_from_many_addresses_they_are_ten_together(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        answers = [sign_in(Asking(), "wrong guess", REMOTE_ADDR=f"192.0.2.{i}").status_code for i in range(12)]
        assert answers == [422] * 10 + [429] * 2

    def test_nor_do_they_lock_the_owner_out_of_a_browser_of_theirs(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        tablet = Asking()
        assert sign_in(tablet, RIGHT).status_code == 200
        tablet.ask("DELETE", "/session", **AWAY)
        for i in range(40):
            sign_in(Asking(), "wrong guess", REMOTE_ADDR=f"192.0.2.{i % 20}")
        assert sign_in(tablet, RIGHT).status_code == 200

    def test_a_shared_tablet_gives_five_guesses_however_often_others_sign_in_on_it(self, household):
        tablet = Asking()
        assert sign_in(tablet, RIGHT).status_code == 200
        answers = []
        for _ in range(8):
            tablet.ask("DELETE", "/session", **AWAY)
            household(tablet)
            answers.append(sign_in(tablet, "wrong guess").status_code)
        assert answers == [422] * 5 + [429] * 3

    def test_a_success_forgives_what_one_mistyped_oneself(self, household):
        tablet = Asking()
        sign_in(tablet, RIGHT)
        for _ in range(3):
            for _ in range(4):
                assert sign_in(tablet, "wrong guess").status_code == 422
            assert sign_in(tablet, RIGHT).status_code == 200

    def test_many_accounts_from_one_place_are_thirty_tries(self, owner):
        answers = [sign_in(Asking(), "wrong guess", username=f"somebody-{i}").status_code for i in range(32)]
        assert answers == [422] * 30 + [429] * 2

    def test_what_was_typed_as_a_name_is_not_kept(self, db):
        sign_in(Asking(), "wrong guess", username="a password in the wrong field")
        assert "password in the wrong" not in str(list(PasswordAttempt.objects.values()))


class TestAnotherPassword:
    def test_the_one_that_is_set_is_asked_for(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        for old in ({}, {"old": "wrong guess"}):
            refused = owner.ask("PUT", "/session/password", {"password": OTHER, **old})
            assert (refused.status_code, refused.body["problems"][0]["path"]) == (422, "old")
        assert owner.ask("PUT", "/session/password", {"password": OTHER, "old": RIGHT}).status_code == 200
        assert sign_in(Asking(), RIGHT).status_code == 422
        assert sign_in(Asking(), OTHER).status_code == 200

    def test_who_sits_at_a_browser_that_is_in_guesses_ten_times(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        answers = [
            owner.ask("PUT", "/session/password", {"password": OTHER, "old": "x"}).status_code for _ in range(11)
        ]
        assert answers == [422] * 10 + [429]

    def test_every_other_browser_is_signed_out_and_this_one_goes_on(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        away = Asking()
        sign_in(away, RIGHT)
        owner.ask("PUT", "/session/password", {"password": OTHER, "old": RIGHT})
        assert away.ask("GET", "/sheets", **AWAY).status_code == 401
        assert owner.ask("GET", "/sheets").status_code == 200


def browsers(client):
    """What is listed, without the owner's own, which says nothing of itself."""
    result = client.ask("GET", "/session/browsers", **AWAY).body
    return [item for item in result if item["name"] != "a browser"]


PHONE = {"HTTP_USER_AGENT": "Mozilla/5.0 (Android 15; Mobile) Firefox/140"}


class TestBrowsers:
    def test_each_is_listed_and_can_be_sent_away(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        agents = ("Mozilla/5.0 (iPad; CPU OS 18_0) Safari/605", "Mozilla/5.0 (Android 15; Mobile) Firefox/140")
        tablet, phone = (Asking(HTTP_USER_AGENT=agent) for agent in agents)
        for client in (tablet, phone):
            sign_in(client, RIGHT)
        assert any(item["name"] == "a browser" for item in phone.ask("GET", "/session/browsers", **AWAY).body)
        listed = browsers(phone)
        assert [(item["name"], item["here"]) for item in listed] == [
            ("Firefox on Android", True),
            ("Safari on iPad", False),
        ]
        assert phone.ask("DELETE", f"/session/browsers/{listed[1]['id']}", **AWAY).status_code == 204
        assert tablet.ask("GET", "/sheets", **AWAY).status_code == 401
        assert phone.ask("GET", "/sheets", **AWAY).status_code == 200
        assert len(browsers(phone)) == 1
        assert phone.ask("DELETE", f"/session/browsers/{listed[1]['id']}", **AWAY).status_code == 404

    def test_one_that_signs_out_goes_off_the_list(self, owner):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        first, second = Asking(**PHONE), Asking(**PHONE)
        for client in (first, second):
            sign_in(client, RIGHT)
        assert len(browsers(second)) == 2
        first.ask("DELETE", "/session", **AWAY)
        assert [browser["here"] for browser in browsers(second)] == [True]

    def test_nobody_sends_another_s_away(self, owner, stranger):
        owner.ask("PUT", "/session/password", {"password": RIGHT})
        phone = Asking(**PHONE)
        sign_in(phone, RIGHT)
        (item,) = browsers(phone)
        assert stranger.ask("GET", "/session/browsers").body == []
        assert stranger.ask("DELETE", f"/session/browsers/{item['id']}").status_code == 404
        assert phone.ask("GET", "/sheets", **AWAY).status_code == 200


class TestSecondFactor:
    """Codes by an implementation of RFC 6238 that stands here: HMAC-SHA1 of the step, four bytes from where the last says."""

    def code(self, secret, now):
        step = struct.pack(">Q", int(now.timestamp()) // 30)
        mac = hmac.new(base64.b32decode(secret), step, "sha1").digest()
        at = mac[-1] & 15
        return f"{(struct.unpack('>I', mac[at : at + 4])[0] & 0x7FFFFFFF) % 10**6:06d}"

    @pytest.fixture
    def on(self, owner):
        """The owner with a password and a second factor, at an hour of the test's own."""
        with time_machine.travel(NOW, tick=False) as clock:
            owner.ask("PUT", "/session/password", {"password": RIGHT})
            begun = owner.ask("POST", "/session/second-factor").body
            assert begun["secret"] in begun["address"]
            assert begun["svg"].startswith("<svg")
            assert not owner.ask("GET", "/session").body["second_factor"]  # not before a code was right
            told = owner.ask("PUT", "/session/second-factor", {"code": self.code(begun["secret"], NOW)}).body
            assert told["second_factor"]
            clock.shift(timedelta(seconds=30))
            yield begun["secret"], clock

    def test_the_password_alone_opens_no_more(self, on):
        secret, _ = on
        asked = sign_in(Asking(), RIGHT)
        assert (asked.status_code, asked.body["problems"][0]["path"]) == (422, "code")
        away = Asking()
        body = {"username": "owner", "password": RIGHT, "code": self.code(secret, datetime.now(UTC))}
        assert away.ask("POST", "/session", body, **AWAY).status_code == 200
        again = Asking().ask("POST", "/session", body, **AWAY)
        assert again.body["problems"][0]["path"] == "code"  # no code is good twice
        wrong = Asking().ask("POST", "/session", {**body, "password": "x" * 12}, **AWAY)
        assert wrong.body["problems"][0]["path"] == "password"

    def test_a_clock_half_a_minute_off_will_do_two_minutes_will_not(self, on):
        secret, clock = on
        for off, status in ((30, 200), (120, 422), (-120, 422)):
            clock.shift(timedelta(minutes=10))
            code = self.code(secret, datetime.now(UTC) + timedelta(seconds=off))
            body = {"username": "owner", "password": RIGHT, "code": code}
            assert Asking().ask("POST", "/session", body, **AWAY).status_code == status

    def test_codes_are_guessed_ten_times(self, on):
        answers = []
        for guess in range(11):
            body = {"username": "owner", "password": RIGHT, "code": f"{guess:06d}"}
            answers.append(Asking().ask("POST", "/session", body, **AWAY).status_code)
        assert answers[-1] == 429

    def test_off_again_with_a_last_code(self, on, owner):
        secret, _ = on
        assert owner.ask("POST", "/session/second-factor").status_code == 422  # not another while one is on
        assert owner.ask("POST", "/session/second-factor/off", {"code": "000000"}).status_code == 422
        code = self.code(secret, datetime.now(UTC))
        assert owner.ask("POST", "/session/second-factor/off", {"code": code}).body["second_factor"] is False
        assert sign_in(Asking(), RIGHT).status_code == 200


@pytest.mark.django_db(transaction=True)
def test_sixty_wrong_passwords_at_once_are_ten_tries(monkeypatch):
    """Entered before they are tried, so that trying in parallel buys nothing; kept, so that a restart does not either."""
    local_owner()
    tried = []
    monkeypatch.setattr(session, "authenticate", lambda request, **named: tried.append(named))

    def one(_):
        try:
            return sign_in(Asking(), "wrong guess").status_code
        finally:
            connection.close()

    with ThreadPoolExecutor(20) as pool:
        answers = Counter(pool.map(one, range(60)))
    assert answers == {422: 10, 429: 50}
    assert len(tried) == 10
    assert PasswordAttempt.objects.count() == 10


class TestForgery:
    @pytest.fixture
    def strict(self, tmp_path, settings):
        """A browser of the owner's, with its page, and a server that looks at the token."""
        settings.WEB_BUILD = tmp_path
        (tmp_path / "index.html").write_text("<html></html>")
        client = Client(enforce_csrf_checks=True, HTTP_HOST="127.0.0.1")
        client.force_login(local_owner())
        return client

    def test_a_change_needs_the_token(self, strict):
        answer = strict.post("/api/sheets", {"way": "set-cake"}, content_type="application/json")
        assert answer.status_code == 403
        assert answer.json()["problems"][0]["path"] == "session"

    def test_and_so_does_signing_in(self):
        client = Client(enforce_csrf_checks=True, REMOTE_ADDR="192.0.2.7", HTTP_HOST="127.0.0.1")
        for path, body in (("", {"username": "owner", "password": "x"}), ("/key", {"key": "x" * 20})):
            answer = client.post(f"/api/session{path}", body, content_type="application/json")
            assert answer.status_code == 403
            assert answer.json()["problems"]

    def test_with_it_all_is_well(self, strict):
        token = strict.get("/").cookies["csrftoken"].value
        answer = strict.post(
            "/api/sheets", {"way": "set-cake"}, content_type="application/json", HTTP_X_CSRFTOKEN=token
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

    def test_a_secret_key_that_a_power_cut_left_empty_is_made_anew(self, tmp_path):
        (tmp_path / "secret-key").write_text("")
        tell = [sys.executable, "-c", "from kemble.site import settings; print(settings.SECRET_KEY)"]
        around = {**os.environ, "KEMBLE_DATA": str(tmp_path), "DJANGO_SETTINGS_MODULE": "kemble.site.settings"}
        first, again = (subprocess.run(tell, env=around, capture_output=True, text=True).stdout for _ in range(2))
        assert len(first) >= 50
        assert again == first
        assert [path.name for path in tmp_path.iterdir()] == ["secret-key"]
        assert (tmp_path / "secret-key").stat().st_mode & 0o077 == 0

    def test_the_secret_key_is_made_outside_the_repository(self, settings):
        path = settings.DATA / "secret-key"
        assert path.stat().st_mode & 0o077 == 0
        assert len(path.read_text()) >= 50
