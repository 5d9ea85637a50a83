"""Sheets written by hand for the core's tests, and what they come to."""

from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()


def line(ingredient, value, unit="g", **more):
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}, **more}


def a_sheet(way, *parts, **more):
    return sheet_from({"way": way, "parts": [{"role": role, "lines": lines} for role, lines in parts], **more})


def facts(sheet, kitchen=KITCHEN):
    return {key: fact.value for key, fact in work(sheet, kitchen).facts.items()}


def rice(soak_min=60, **grain):
    base = [line("sweet-rice", 240), line("water", 350), line("white-sugar", 16)]
    soak = {"soak_min": soak_min, "soak_c": 20, "rinses": 0, "drain_min": 15, **grain}
    return a_sheet("crushed-balls", ("base", base), grain=soak)


def steps(way="set-cake", kitchen=KITCHEN, **schools):
    """The steps of the way's own starting sheet, by these schools."""
    sheet = default_sheet(way).model_dump()
    sheet["schools"].update(schools)
    return work(sheet_from(sheet), kitchen).steps
