"""A recipe card for the kitchen's drawer: one page with the amounts in both measures, the steps with their times, and the
piece drawn to scale. HTML for whatever prints it."""

from __future__ import annotations

from xml.sax.saxutils import escape

from kemble.core.cards.ways import WAYS
from kemble.core.formats.step_text import step_minutes, step_words
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.mix.line_results import LineResult
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult

_HANDS = {"held": "hands", "minded": "an eye on it", "free": "by itself"}
_WIDE_MM = 62.0  # the room that a drawing has


def card_html(sheet: Sheet, worked: WorkResult, *, size_pt: float = 10.0, fonts: str = "") -> str:
    """The card as a page of HTML, its letters so large. `fonts`: style rules that bring the letters along."""
    way = WAYS[sheet.way]
    parts = "".join(_part_html(sheet, worked, p) for p in range(len(sheet.parts)))
    steps = "".join(f"<li>{_step_html(step)}</li>" for step in worked.steps)
    contains = f"<p class=small>Contains {escape(', '.join(worked.allergens))}.</p>" if worked.allergens else ""
    cautions = "".join(
        f"<p class=small><b>{escape(caution.title)}.</b> {escape(caution.says)}</p>" for caution in worked.cautions[:4]
    )
    return (
        f"<!doctype html><html lang=en><meta charset=utf-8><title>{escape(sheet.title)}</title><style>{fonts}{_STYLE}"
        f"body{{font-size:{size_pt:g}pt}}</style>"
        f"<header><h1>{escape(sheet.title)}</h1><p>{escape(way.name)}{escape(_makes(worked))}</p></header>"
        f"<main><section class=amounts>{parts}{_drawing(worked)}{contains}</section>"
        f"<section class=method><ol>{steps}</ol>{cautions}</section></main></html>"
    )


def _makes(worked: WorkResult) -> str:
    for key in ("shape.pieces", "cut.pieces"):
        if key in worked.facts:
            return say(", {pieces:.0f} pieces", pieces=float(worked.facts[key].value))
    return ""


def _part_html(sheet: Sheet, worked: WorkResult, p: int) -> str:
    lines = [line for line in worked.lines if line.part == p]
    if not lines:
        return ""
    part = sheet.parts[p]
    head = f"<h2>{escape(part.called)}</h2>" if len(sheet.parts) > 1 else ""
    rows = "".join(_line_html(line) for line in lines)
    return f"{head}<table>{rows}</table>"


def _line_html(line: LineResult) -> str:
    grams = f"{line.grams:.0f}" if line.grams >= 10 else f"{line.grams:.1f}"
    near = escape(line.household or "")
    return f"<tr><td class=g>{grams} g<td class=near>{near}<td>{escape(line.name)}</tr>"


def _step_html(step: StepResult) -> str:
    cue = f" <i>{escape(step.cue.question)} {escape(step.cue.how)}</i>" if step.cue else ""
    weight = f" <b>{step.target.grams:.0f}&#160;g</b> {escape(step.target.label)}." if step.target else ""
    return f"<b>{escape(step.title)}</b>, {escape(step_minutes(step))}, {_HANDS[step.hands]}. {escape(step_words(step))}{cue}{weight}"


def _drawing(worked: WorkResult) -> str:
    """The piece, or the batter in its tin, in section and to scale, with what it measures."""
    shape = worked.drawings.shape
    if shape is None or not shape.is_possible:  # nobody makes it by a drawing of what cannot be
        return ""
    if shape.kind == "tin":
        width = shape.tin.diameter_mm if shape.tin.shape == "round" else shape.tin.length_mm
        return _svg(
            width,
            shape.tin.height_mm,
            f'<rect x="0" y="{shape.tin.height_mm - shape.depth_mm:.1f}" width="{width:.1f}" height="{shape.depth_mm:.1f}" '
            f'fill="#e7dcae"/><path d="M0 0V{shape.tin.height_mm:.1f}H{width:.1f}V0" fill="none" stroke="#1d2830" '
            'stroke-width="1.2"/>',
            say("{depth_mm:.0f} mm deep in {width:.0f} mm", depth_mm=shape.depth_mm, width=width),
        )
    r, core = shape.outer_mm / 2, shape.core_mm / 2
    inner = f'<circle cx="{r:.1f}" cy="{r:.1f}" r="{core:.1f}" fill="#8a5a44"/>' if core > 0 else ""
    says = say("{outer_mm:.0f} mm across", outer_mm=shape.outer_mm) + (
        say(", {core_mm:.0f} within", core_mm=shape.core_mm) if core > 0 else ""
    )
    ring = f'<circle cx="{r:.1f}" cy="{r:.1f}" r="{r:.1f}" fill="#f3ead0" stroke="#1d2830" stroke-width="0.6"/>'
    return _svg(shape.outer_mm, shape.outer_mm, ring + inner, says)


def _svg(width: float, height: float, inside: str, says: str) -> str:
    scale = min(1.0, _WIDE_MM / width)
    as_it_is = say("to size") if scale == 1.0 else say("1 to {scale:.1f}", scale=1 / scale)
    return (
        f'<svg width="{width * scale + 2:.1f}mm" height="{height * scale + 2:.1f}mm" '
        f'viewBox="-1 -1 {width + 2:.1f} {height + 2:.1f}">{inside}</svg><p class=small>{escape(says)}, {as_it_is}</p>'
    )


_STYLE = """
@page{size:A4;margin:12mm}
*{box-sizing:border-box}
body{font-family:"Atkinson Hyperlegible Next","DejaVu Sans",sans-serif;color:#1d2830;margin:0;line-height:1.28}
h1{font-size:2em;margin:0;font-weight:700}
header{border-bottom:.4mm solid #1d2830;padding-bottom:1.5mm;margin-bottom:3mm}
header p{margin:0}
main{display:flex;gap:7mm}
.amounts{width:70mm;flex:none}
.method{flex:1}
h2{font-size:1.05em;margin:2.5mm 0 .5mm}
table{border-collapse:collapse;width:100%}
td{vertical-align:top;padding:.25mm 1mm .25mm 0;border-bottom:.15mm solid #cbbf9d}
.g{text-align:right;white-space:nowrap;font-weight:700;width:16mm}
.near{white-space:nowrap;font-size:.85em;width:22mm}
ol{margin:0;padding-left:6mm}
li{margin-bottom:.9mm}
svg{display:block;margin-top:3mm}
.small{font-size:.85em;margin:1mm 0}
"""
