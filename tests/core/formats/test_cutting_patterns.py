"""Patterns at full size: their measures by hand, nothing clipped on paper, and whatever is in a title harmless."""

import math
import re
from itertools import pairwise
from xml.etree import ElementTree

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.formats.cutting_patterns import (
    MARGIN_MM,
    PAPER_MM,
    CuttingPattern,
    _page_spans,
    page_svg,
    pages_of,
    template_svg,
    templates_of,
)
from kemble.core.formats.recipe_card import card_html
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work
from kemble.pdf import paper

SVG = "{http://www.w3.org/2000/svg}"


def of(way, **change):
    sheet = sheet_from({**default_sheet(way).model_dump(mode="json"), **change})
    worked = work(sheet, Kitchen())
    return sheet, worked, {pattern.id: pattern for pattern in templates_of(sheet, worked)}


class TestMeasures:
    def test_what_lines_a_round_tin(self):
        """18 cm across and 60 mm high: pi times 180 and a lap of 20; 15 over the rim, 10 under the floor."""
        _, _, result = of("set-cake")
        assert result["floor"].rings[0].r == 90
        strip = result["strip"]
        assert strip.width == pytest.approx(math.pi * 180 + 20)
        assert strip.height == 60 + 15 + 10
        fold = next(line for line in strip.lines if line.stroke == "fold")
        assert {y for _, y in fold.points} == {75}

    def test_the_knife_s_marks_lie_where_it_meets_the_edge(self):
        """A tray of 200 mm in five by five: every 40 mm, along both edges."""
        _, _, result = of("batter-bake")
        for edge in ("edge-1-1", "edge-1-2"):
            marks = sorted(line.points[0][0] for line in result[edge].lines if len(line.points) == 2)
            assert marks == [40, 80, 120, 160]
            assert result[edge].width == 200

    def test_a_rope_s_cuts(self):
        _, worked, result = of("boiled-balls")
        each = float(worked.facts["shape.rope_cut_mm"].value)
        cuts = sorted(line.points[0][0] for line in result["rope"].lines if line.stroke == "fold")
        assert cuts == pytest.approx([each * i for i in range(1, len(cuts) + 1)])
        assert result["rope"].height == pytest.approx(float(worked.facts["shape.rope_mm"].value))

    def test_the_skin_is_as_wide_as_it_is_pressed(self):
        _, worked, result = of("boiled-balls")
        assert 2 * result["skin"].rings[0].r == pytest.approx(float(worked.facts["shape.disc_mm"].value))

    def test_a_leaf_is_folded_at_every_edge_of_its_parcel(self):
        wrap = {"leaf_length_mm": 380, "leaf_width_mm": 80, "leaves": 2}
        _, worked, result = of("leaf-parcels", wrap=wrap)
        edge = float(worked.facts["shape.edge_mm"].value)
        folds = sorted(line.points[0][0] for line in result["leaf"].lines if line.stroke == "fold")
        assert folds[:3] == pytest.approx([edge, 2 * edge, 3 * edge])
        outline = result["leaf"].lines[0].points
        assert max(y for _, y in outline) - min(y for _, y in outline) == pytest.approx(80, abs=0.5)

    def test_a_way_with_nothing_to_cut_has_none(self):
        assert of("pounded")[2] == {}


class TestPages:
    @given(st.floats(5, 2400), st.floats(20, 260))
    @settings(max_examples=examples(300), deadline=None)
    def test_a_length_in_parts(self, length, room):
        """From end to end without a gap, none longer than there is room, each lapping ten millimetres over the last."""
        parts = _page_spans(length, room)
        assert parts[0][0] == 0
        assert parts[-1][0] + parts[-1][1] == pytest.approx(length)
        assert all(long <= room + 1e-9 for _, long in parts)
        for (a, long), (b, _) in pairwise(parts):
            assert a + long - b == pytest.approx(10)

    @given(st.lists(st.tuples(st.floats(8, 700), st.floats(8, 700)), min_size=1, max_size=6))
    @settings(max_examples=examples(60), deadline=None)
    def test_nothing_lies_off_the_paper_or_over_another(self, sizes):
        pages = pages_of([CuttingPattern(str(i), "t", "s", *size) for i, size in enumerate(sizes)])
        room = PAPER_MM[0] - 2 * MARGIN_MM, PAPER_MM[1] - 2 * MARGIN_MM
        for page in pages:
            ends = -1.0
            for tile in page.tiles:
                assert tile.at[0] + tile.width <= room[0] + 1e-6
                assert tile.at[1] >= ends
                ends = tile.at[1] + tile.height
            assert ends <= room[1] - 16 - 14 + 8 + 1e-6  # under its head, over the ruler
        area = sum(tile.width * tile.height for page in pages for tile in page.tiles)
        assert area >= sum(a * b for a, b in sizes) - 1e-3

    def test_the_ruler_is_a_hundred_millimetres_of_paper(self):
        sheet, _, result = of("set-cake")
        pages = pages_of(list(result.values()))
        for i, page in enumerate(pages, start=1):
            root = ElementTree.fromstring(page_svg(page, i, len(pages), sheet.title))
            assert (root.get("width"), root.get("viewBox")) == ("210mm", "0 0 210 297")
            last = root.findall(f"{SVG}polyline")[-1]
            (x0, y0), (x1, y1) = ([float(n) for n in p.split(",")] for p in last.get("points").split())
            assert (x1 - x0, y1 - y0) == (100, 0)

    @pytest.mark.parametrize("way", sorted(WAYS))
    def test_every_pattern_by_itself_is_a_drawing_in_millimetres(self, way):
        for item in of(way)[2].values():
            root = ElementTree.fromstring(template_svg(item))
            assert root.get("width") == f"{item.width + 28:.3f}mm"
            assert root.get("viewBox").split()[2] == f"{item.width + 28:.3f}"
            said = [text.text for text in root.findall(f"{SVG}text")]
            assert f"{item.width:.0f} mm" in said
            assert f"{item.height:.0f} mm" in said


EVIL = "<script>alert(1)</script> \"&' </svg><img src=x onerror=1>"


def test_whatever_a_title_says_it_is_only_words():
    sheet, worked, result = of("set-cake", title=EVIL)
    pages = pages_of(list(result.values()))
    root = ElementTree.fromstring(page_svg(pages[0], 1, len(pages), sheet.title))
    assert root.find(f"{SVG}text").text == EVIL
    assert {element.tag.removeprefix(SVG) for element in root.iter()} <= {
        "svg", "text", "g", "circle", "polyline", "clipPath", "rect",
    }  # fmt: skip
    html = card_html(sheet, worked)
    assert "<script" not in html
    assert "<img" not in html


class TestPdf:
    @pytest.mark.parametrize("way", sorted(WAYS))
    def test_the_card_is_one_page(self, way):
        sheet, worked, _ = of(way)
        content = paper(sheet, worked, "card", plain=True)
        assert content.startswith(b"%PDF-")
        assert len(re.findall(rb"/Type /Page\b(?!s)", content)) == 1
        boxes = re.findall(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", content)
        assert [tuple(round(float(n) / 72 * 25.4) for n in box) for box in boxes] == [(210, 297)]

    def test_templates_are_true_to_size(self):
        """A unit of the drawing is a millimetre of paper: 72 points to 25.4 of them."""
        sheet, worked, result = of("set-cake")
        content = paper(sheet, worked, "templates", plain=True).decode("latin-1")
        assert len(re.findall(r"/Type /Page\b(?!s)", content)) == len(pages_of(list(result.values())))
        scales = [float(n) for n in re.findall(r"\n([\d.]+) 0 0 \1 0 0 cm", content) if n != "1"]
        assert scales[0] * scales[1] == pytest.approx(72 / 25.4, rel=1e-5)
