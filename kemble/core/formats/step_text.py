"""A step in plain text, for a page, a card or a file: whose words come first, and which time is used."""

from __future__ import annotations

from kemble.core.facts.quantity import span_words
from kemble.core.sentences import say
from kemble.core.stations.steps import StepResult


def step_words(step: StepResult) -> str:
    """The cook's own words first, then the card's; what the recipe says behind it comes last."""
    own = f"“{step.own_words}”" if step.own_words else ""
    return " ".join(words for words in (own, step.words, *(f"“{text}”" for text in step.texts)) if words)


def step_minutes(step: StepResult) -> str:
    """How long it takes: a given time with who gave it and Kemble's beside it, a window, or one time."""
    if step.given and step.given.is_used:
        ours = say("Kemble {ours}", ours=span_words(step.ours.minutes))
        by = f"{step.given.by}; " if step.given.by else ""
        return f"{span_words(step.minutes)} ({by}{ours})"
    if step.window:
        return say(
            "{first_check:.0f} to {latest:.0f} min, likely {done:.0f}",
            first_check=step.window.first_check,
            latest=step.window.latest,
            done=step.window.done,
        )
    return span_words(step.minutes)
