"""A household: asked in once, in a role, and sent away again."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from asking import Asking
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session

from kemble.server.models import Browser, Invitation, KitchenRecord, Member

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
PASSWORD = "barley under the stairs"
PHONE = {"HTTP_USER_AGENT": "Mozilla/5.0 (Android 15; Mobile) Firefox/140", "REMOTE_ADDR": "192.0.2.9"}


def invite(owner, role="helper", name="Sorrel"):
    return owner.ask("POST", "/household/invitations", {"name": name, "role": role})


def key_of(made):
    return made.body["address"].partition("#invited=")[2]


def take(key, name="sorrel", password=PASSWORD):
    client = Asking(**PHONE)
    return client, client.ask("POST", "/session/invited", {"key": key, "name": name, "password": password})


class TestInvitation:
    def test_asked_in_and_in(self, owner):
        made = invite(owner)
        assert made.body["svg"].startswith("<svg")
        assert made.body["address"].startswith("http://127.0.0.1:8000/#invited=")
        assert made.body["here_only"]  # no phone knows this machine by that name
        look = Asking().ask("POST", "/session/invited/look", {"key": key_of(made)}).body
        assert look == {"kitchen": "My kitchen", "name": "Sorrel", "role": "helper"}
        client, told = take(key_of(made))
        assert (told.body["signed_in"], told.body["name"], told.body["role"]) == (True, "sorrel", "helper")
        assert client.ask("GET", "/runs").status_code == 200
        assert client.ask("GET", "/sheets").status_code == 403
        members = owner.ask("GET", "/household").body["members"]
        assert [(member["name"], member["role"], member["me"]) for member in members] == [
            ("owner", "owner", True),
            ("sorrel", "helper", False),
        ]
        assert [member["name"] for member in members[1]["browsers"]] == ["Firefox on Android"]
        again = Asking().ask("POST", "/session", {"username": "sorrel", "password": PASSWORD})
        assert again.body["role"] == "helper"

    def test_through_another_name_the_address_is_good_elsewhere(self, owner, settings):
        settings.ALLOWED_HOSTS = ["kitchen.example", "127.0.0.1"]
        body = {"name": "Sorrel", "role": "cook"}
        made = owner.ask("POST", "/household/invitations", body, HTTP_HOST="kitchen.example:8443").body
        assert made["address"].startswith("http://kitchen.example:8443/#invited=")
        assert not made["here_only"]

    def test_good_once_for_a_week_and_until_it_is_taken_back(self, owner):
        with time_machine.travel(NOW, tick=False) as clock:
            owner.ask("GET", "/session")
            first, second, third = (key_of(invite(owner)) for _ in range(3))
            assert take(first)[1].status_code == 200
            assert take(first, "another")[1].body["problems"][0]["path"] == "key"
            waiting = owner.ask("GET", "/household").body["invitations"]
            assert owner.ask("DELETE", f"/household/invitations/{waiting[0]['id']}").status_code == 204
            assert take(second, "another")[1].status_code == 422
            clock.shift(timedelta(days=7, seconds=1))
            assert take(third, "another")[1].status_code == 422
            assert owner.ask("GET", "/household").body["invitations"] == []
        assert Member.objects.count() == 2

    def test_its_key_is_kept_as_a_digest(self, owner):
        key = key_of(invite(owner))
        assert key not in str(list(Invitation.objects.values()))

    @pytest.mark.parametrize(
        ("name", "password", "path"),
        [
            ("Owner", PASSWORD, "name"),  # taken, however it is written
            ("two words", PASSWORD, "name"),
            ("", PASSWORD, "name"),
            ("sorrel", "password1234", "password"),
            ("sorrel", "short", "password"),
        ],
    )
    def test_what_is_refused_leaves_the_invitation_open(self, owner, name, password, path):
        key = key_of(invite(owner))
        client, told = take(key, name, password)
        assert (told.status_code, told.body["problems"][0]["path"].rpartition(".")[2]) == (422, path)
        assert client.ask("GET", "/session").body["signed_in"] is False
        assert take(key)[1].status_code == 200

    @pytest.mark.parametrize("name", ["OWNER", "оwner", "ｏｗｎｅｒ", "ow\u200dner", "𝐨wner", "0wner", "ownег"])
    def test_a_name_that_reads_like_another_is_taken(self, owner, name):
        """Cyrillic, full-width, bold, with figures and pairs of letters for letters, and with what nobody sees in it."""
        key = key_of(invite(owner))
        _, told = take(key, name)
        assert (told.status_code, told.body["problems"][0]["path"]) == (422, "name"), told.body
        assert take(key)[1].status_code == 200

    @pytest.mark.parametrize("name", ["Ольга", "रीता", "米子", "محمد", "Ζωή", "שָׂרָה", "o'brien", "owen", "rye_2"])
    def test_a_name_of_any_script_is_welcome(self, owner, name):
        client, told = take(key_of(invite(owner)), name)
        assert told.status_code == 200, told.body
        client.ask("DELETE", "/session")
        assert Asking().ask("POST", "/session", {"username": name, "password": PASSWORD}).status_code == 200

    def test_an_account_that_reads_like_another_already_goes_on(self, owner):
        """From before names were compared."""
        User.objects.create_user("оwner", password=PASSWORD)
        assert Asking().ask("POST", "/session", {"username": "оwner", "password": PASSWORD}).status_code == 200

    @pytest.mark.parametrize("role", ["owner", "king", ""])
    def test_nobody_is_asked_in_as(self, owner, role):
        assert invite(owner, role).status_code == 422

    def test_a_household_has_an_end(self, owner):
        answers = [invite(owner, name=f"guest {i}").status_code for i in range(30)]
        assert answers == [200] * 29 + [422]


class TestRoles:
    def test_another_role_counts_from_the_next_request(self, owner, invited):
        helper = invited["helper"]
        member = next(item for item in owner.ask("GET", "/household").body["members"] if item["role"] == "helper")
        assert helper.ask("GET", "/sheets").status_code == 403
        assert owner.ask("PUT", f"/household/{member['id']}", {"role": "cook"}).status_code == 200
        assert helper.ask("GET", "/sheets").status_code == 200
        assert helper.ask("GET", "/session").body["role"] == "cook"

    def test_a_cook_works_in_the_same_kitchen_and_asks_nobody_in(self, owner, invited, sheet):
        cook = invited["cook"]
        assert [item["id"] for item in cook.ask("GET", "/sheets").body["sheets"]] == [sheet["id"]]
        saved = cook.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": {**sheet["sheet"], "title": "Ours"}})
        assert saved.status_code == 200
        assert owner.ask("GET", f"/sheets/{sheet['id']}").body["sheet"]["title"] == "Ours"
        for method, path in (("GET", "/household"), ("GET", "/archive")):
            refused = cook.ask(method, path)
            assert refused.status_code == 403
            assert refused.body["problems"][0]["says"] == "is a cook’s, who has no part in this"

    def test_the_owner_stays_the_owner(self, owner):
        (member,) = owner.ask("GET", "/household").body["members"]
        assert owner.ask("PUT", f"/household/{member['id']}", {"role": "taster"}).status_code == 422
        assert owner.ask("DELETE", f"/household/{member['id']}").status_code == 422
        assert owner.ask("GET", "/sheets").status_code == 200


def test_a_taster_says_how_it_is_and_sees_what_waits_for_a_word(owner, invited, sheet):
    taster = invited["taster"]
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    batch = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 0}}).body["id"]
    assert [(item["batch"], item["tasted"]) for item in taster.ask("GET", "/to-taste").body] == [(batch, False)]
    said = taster.ask("POST", f"/log/{batch}/tastings", {"who": "a-taster", "liking": 7})
    assert said.status_code == 200
    assert [item["tasted"] for item in taster.ask("GET", "/to-taste").body] == [True]
    assert [item["tasted"] for item in owner.ask("GET", "/to-taste").body] == [False]


class TestSentAway:
    def test_out_of_every_browser_and_what_they_made_stays(self, owner):
        client, _ = take(key_of(invite(owner, "cook")))
        second = Asking(**PHONE)
        second.ask("POST", "/session", {"username": "sorrel", "password": PASSWORD})
        client.ask("POST", "/sheets", {"way": "set-cake"})
        member = owner.ask("GET", "/household").body["members"][1]
        assert len(member["browsers"]) == 2
        left = owner.ask("DELETE", f"/household/{member['id']}").body["members"]
        assert [item["name"] for item in left] == ["owner"]
        for item in (client, second):
            assert item.ask("GET", "/sheets").status_code == 401
        assert Asking().ask("POST", "/session", {"username": "sorrel", "password": PASSWORD}).status_code == 422
        assert owner.ask("GET", "/sheets").body["total"] == 1
        assert not Browser.objects.filter(user__username="sorrel").exists()
        assert not Session.objects.filter(session_key=client.cookies["sessionid"].value).exists()

    def test_one_lost_tablet(self, owner):
        client, _ = take(key_of(invite(owner)))
        (tablet,) = owner.ask("GET", "/household").body["members"][1]["browsers"]
        left = owner.ask("DELETE", f"/household/browsers/{tablet['id']}").body["members"][1]
        assert (left["name"], left["browsers"]) == ("sorrel", [])
        assert client.ask("GET", "/runs").status_code == 401

    def test_a_helper_sends_nobody_away(self, owner, invited):
        member = owner.ask("GET", "/household").body["members"][1]
        assert invited["helper"].ask("DELETE", f"/household/{member['id']}").status_code == 403
        assert Member.objects.count() == 4


def test_somebody_of_no_household_is_nobody_here(owner, invited):
    Member.objects.filter(role="cook").delete()
    assert invited["cook"].ask("GET", "/sheets").status_code == 401
    assert invited["cook"].ask("GET", "/session").body["role"] is None
    assert KitchenRecord.objects.count() == 1
