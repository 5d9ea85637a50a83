"""Makes PDF of what the core draws and lays out."""

from __future__ import annotations

import base64
from functools import cache
from pathlib import Path
from typing import Any

from kemble.core.facts.problems import Refused, refuse
from kemble.core.formats.cutting_patterns import page_svg, pages_of, templates_of
from kemble.core.formats.paper_kinds import PaperId
from kemble.core.formats.recipe_card import card_html
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import WorkResult

_SIZES_PT = (10.5, 10.0, 9.5, 9.0, 8.5, 8.0, 7.5, 7.0)  # a card's letters, until it fits one page
_BUILD = Path(__file__).resolve().parents[1] / "web" / "dist" / "assets"


@cache
def fonts() -> str:
    """The letters of the screens, where the front end has been built."""
    paths = sorted(_BUILD.glob("atkinson-hyperlegible-next-latin-wght-normal-*.woff2"))
    if not paths:
        return ""
    letters = base64.b64encode(paths[0].read_bytes()).decode()
    return (
        '@font-face{font-family:"Atkinson Hyperlegible Next";font-weight:200 800;'
        f'src:url("data:font/woff2;base64,{letters}")}}'
    )


def _laid_out_document(html: str) -> Any:
    """Laid out in pages. It carries all that it needs: nothing is fetched from anywhere, whatever its words say."""
    from PIL import ImageFile

    try:
        from weasyprint import HTML
        from weasyprint.urls import URLFetcher
    except OSError:  # it lays out by a library of the system's
        refuse("paper", "cannot be made here: this machine has no Pango", "Pango (libpangoft2-1.0-0 on Debian)")
    # It lets pictures that are cut off pass, everywhere in the process: ours are to be refused.
    ImageFile.LOAD_TRUNCATED_IMAGES = False
    return HTML(string=html, url_fetcher=URLFetcher(allowed_protocols=("data",))).render()


def paper(sheet: Sheet, worked: WorkResult, what: PaperId, *, plain: bool = False) -> bytes:
    """A PDF of a sheet. `plain`: its objects are not packed. Raises Refused for a sheet that cannot be worked, and where
    there is nothing to draw."""
    if worked.problems:
        raise Refused(worked.problems)
    if what == "templates":
        return _templates(sheet, worked, plain)
    for size in _SIZES_PT:
        document = _laid_out_document(card_html(sheet, worked, size_pt=size, fonts=fonts()))
        if len(document.pages) == 1:
            break
    return bytes(document.write_pdf(uncompressed_pdf=plain))


def pdf_of(html: str, *, plain: bool = False) -> bytes:
    """Any of the core's pages as a PDF."""
    return bytes(_laid_out_document(html).write_pdf(uncompressed_pdf=plain))


def _templates(sheet: Sheet, worked: WorkResult, plain: bool) -> bytes:
    templates = templates_of(sheet, worked)
    if not templates:
        refuse("what", "are none: this way has no pattern to cut", "a way with a mould, a leaf, a skin or a tray")
    sheets = pages_of(templates)
    drawn = [page_svg(page, i, len(sheets), sheet.title) for i, page in enumerate(sheets, start=1)]
    style = f"{fonts()}@page{{size:210mm 297mm;margin:0}}body{{margin:0}}svg{{display:block;break-after:page}}"
    html = f"<!doctype html><meta charset=utf-8><style>{style}</style>" + "".join(drawn)
    return pdf_of(html, plain=plain)
