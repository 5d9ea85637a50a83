"""Signed-in browsers: recorded by session, listed, and signed out."""

from __future__ import annotations

from datetime import datetime

from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.http import HttpRequest

from kemble.core.sentences import say
from kemble.server.models import Browser
from kemble.server.storage.fair_lock import writing

# What a browser says of itself, by what it holds: the first that fits. Of machines, and of programs.
_MACHINES = (
    ("iPad", "iPad"), ("iPhone", "iPhone"), ("Android", "Android"), ("CrOS", "Chromebook"), ("Windows", "Windows"),
    ("Macintosh", "Mac"), ("Linux", "Linux"),
)  # fmt: skip
_PROGRAMS = (("Edg", "Edge"), ("Firefox", "Firefox"), ("FxiOS", "Firefox"), ("Chrom", "Chrome"), ("CriOS", "Chrome"), ("Safari", "Safari"))  # fmt: skip


def browser_name(agent: str) -> str:
    """A browser's name for people: "Firefox on Android"."""
    program = next((name for mark, name in _PROGRAMS if mark in agent), say("a browser"))
    machine = next((name for mark, name in _MACHINES if mark in agent), "")
    return say("{program} on {machine}", program=program, machine=machine) if machine else program


def record_browser(request: HttpRequest, user: User, now: datetime) -> None:
    """A browser that has just come in."""
    if request.session.session_key is None:
        request.session.save()
    mark_browser_used(request, user, now)


def mark_browser_used(request: HttpRequest, user: User, now: datetime) -> None:
    """A browser that is in, used on this day; one from before they were listed is listed from now on."""
    name = browser_name(request.META.get("HTTP_USER_AGENT", ""))
    with writing():
        Browser.objects.update_or_create(
            session_key=request.session.session_key,
            defaults={"user": user, "seen": now, "name": name},
            create_defaults={"user": user, "seen": now, "made": now, "name": name},
        )


def browsers_of(user: User, now: datetime) -> list[Browser]:
    """Those that are in, the one used last first. What is over goes off the list."""
    with writing():
        going = Session.objects.filter(expire_date__gt=now).values("session_key")
        Browser.objects.filter(user=user).exclude(session_key__in=going).delete()
        return list(Browser.objects.filter(user=user))


def send_away(user: User, number: int) -> bool:
    """Sign a browser out, wherever it is. Whether it was there."""
    with writing():
        browser = Browser.objects.filter(user=user, pk=number).first()
        if browser is None:
            return False
        Session.objects.filter(session_key=browser.session_key).delete()
        browser.delete()
    return True


def send_all_away_but(request: HttpRequest, user: User, before: str | None) -> None:
    """All others are signed out; this one goes on under its new session (it was known by `before`)."""
    with writing():
        others = Browser.objects.filter(user=user).exclude(session_key=before)
        Session.objects.filter(session_key__in=others.values("session_key")).delete()
        others.delete()
        Browser.objects.filter(session_key=before).update(session_key=request.session.session_key)


def forget_browser(session_key: str | None) -> None:
    with writing():
        Browser.objects.filter(session_key=session_key).delete()
