"""Who asks is spoken to in the language of their kitchen, and nobody else is."""

import pytest
from asking import Asking

from kemble.server.web.request_language import USUAL

pytestmark = pytest.mark.django_db


def speak(client, locale):
    there = client.ask("GET", "/kitchen").body
    kitchen = {**there["kitchen"], "locale": locale}
    return client.ask("PUT", "/kitchen", {"kitchen": kitchen, "revision": there["revision"], "uid": f"speak-{locale}"})


def label_of(client, sheet):
    return client.ask("GET", f"/sheets/{sheet}").body["worked"]["facts"]["mix.hydration_pct"]["label"]


def test_each_kitchen_in_its_own_language(owner, stranger, sheet):
    made = stranger.ask("POST", "/sheets", {"way": "set-cake", "uid": "strangers-cake"}).body["id"]
    assert speak(owner, "en-XA").status_code == 200
    for _ in range(2):  # what the one was told is remembered, and not told the other
        assert label_of(owner, sheet["id"]) == "éfféçtîvé hýdråtîöñ"
        assert label_of(stranger, made) == "effective hydration"
    assert Asking().ask("GET", "/kitchen").body["problems"][0]["accepts"].isascii()


def test_what_is_kept_is_as_it_was_written(owner, sheet):
    """A document comes back as it was put there, and titles are nobody's to translate, whatever they are called."""
    speak(owner, "en-XA")
    there = owner.ask("GET", f"/sheets/{sheet['id']}").body
    named = {**there["sheet"], "title": "effective hydration"}
    body = {"sheet": named, "revision": there["revision"], "uid": "as-it-was-written"}
    owner.ask("PUT", f"/sheets/{sheet['id']}", body)
    back = owner.ask("GET", f"/sheets/{sheet['id']}").body
    assert back["sheet"] == named
    titles = {item["title"] for item in owner.ask("GET", "/sheets").body["sheets"]}
    assert "effective hydration" in titles
    larder = owner.ask("GET", "/larder").body
    water = next(item for item in larder if item["id"] == "water")
    assert water["name"] == "Wåtér"
    assert water["group"] == "liquid"


def test_a_page_says_its_language(owner, settings, tmp_path):
    (tmp_path / "index.html").write_text('<!doctype html>\n<html lang="en">\n__KEMBLE_NONCE__', encoding="utf-8")
    settings.WEB_BUILD = tmp_path
    shown = lambda client: client.get("/", HTTP_HOST="127.0.0.1:8000").content.decode()  # noqa: E731
    assert f'<html lang="{USUAL}">' in shown(Asking())
    assert '<html lang="en-GB">' in shown(owner)
    speak(owner, "en-DE")
    assert '<html lang="en-DE">' in shown(owner)
    assert f'<html lang="{USUAL}">' in shown(Asking())


def test_no_language_that_is_not_there(owner):
    answer = speak(owner, "xx-YY")
    assert answer.status_code == 422
    assert answer.body["problems"][0]["path"] == "kitchen.locale"
    assert "en-GB" in answer.body["problems"][0]["accepts"]
