"""The printed skewer keeps its scale: read back from the PDF with pypdf, and from the SVG."""

from __future__ import annotations

import io
import re
from xml.etree import ElementTree

import interchange
import pytest
from interchange.skewer import MARGIN_MM, STRIP_MM, Mark, pdf, svg
from pypdf import PdfReader

from .conftest import Caller

MARKS = [Mark(64.0, "start: 64 mm"), Mark(35.0, "stop here: 35 mm"), Mark(27.0, "too salty below: 27 mm")]
MM = 25.4 / 72.0


def pdf_lines(document: bytes) -> list[tuple[float, float, float, float]]:
    """Every line of the first page, mm."""
    page = PdfReader(io.BytesIO(document)).pages[0]
    assert [float(side) * MM for side in page.mediabox[2:]] == pytest.approx([210.0, 297.0], abs=0.1)
    found = re.findall(r"n ([\d.]+) ([\d.]+) m ([\d.]+) ([\d.]+) l S", page.get_contents().get_data().decode("latin-1"))
    return [tuple(float(n) * MM for n in line) for line in found]  # type: ignore[misc]


def svg_lines(text: str) -> list[tuple[float, float, float, float]]:
    root = ElementTree.fromstring(text)
    assert root.get("width") == "210mm"
    assert root.get("viewBox") == "0 0 210 297"
    lines = root.iter("{http://www.w3.org/2000/svg}line")
    return [
        (float(e.get("x1", 0)), 297 - float(e.get("y1", 0)), float(e.get("x2", 0)), 297 - float(e.get("y2", 0)))
        for e in lines
    ]


@pytest.mark.parametrize("kind", ["pdf", "svg"])
def test_a_millimetre_is_a_millimetre(kind: str) -> None:
    lines = pdf_lines(pdf("Pork", MARKS, 105.0)) if kind == "pdf" else svg_lines(svg("Pork", MARKS, 105.0))
    # The bar that the cook checks with a ruler.
    assert any(x1 - x0 == pytest.approx(100.0, abs=0.02) and y0 == y1 for x0, y0, x1, y1 in lines)
    # The outline is as long as the pan is deep, and the marks stand at their depths above its lower edge.
    outline = [line for line in lines if line[0] == pytest.approx(line[2]) and line[3] - line[1] > 50]
    assert len(outline) == 2
    assert outline[0][3] - outline[0][1] == pytest.approx(105.0, abs=0.02)
    base = outline[0][1]
    full = sorted(y0 - base for x0, y0, x1, y1 in lines if y0 == y1 and x1 - x0 == pytest.approx(8.0, abs=0.02))
    assert full == pytest.approx([0.0, 27.0, 35.0, 64.0, 105.0], abs=0.02)


def test_a_deep_pan_goes_on_in_a_second_strip() -> None:
    marks = [Mark(100.0, "one"), Mark(300.0, "two")]
    lines = svg_lines(svg("Deep", marks, 320.0))
    second = [y0 for x0, y0, x1, _ in lines if x0 > MARGIN_MM + 20 and x1 - x0 == pytest.approx(8.0)]
    base = min(second)
    assert any(y - base == pytest.approx(300.0 - STRIP_MM) for y in second)


def test_words_are_escaped_and_kept_apart() -> None:
    text = svg("<b>&", [Mark(30.0, "a & b"), Mark(31.0, "c")], 100.0)
    root = ElementTree.fromstring(text)
    words = [e for e in root.iter("{http://www.w3.org/2000/svg}text") if e.text in ("a & b", "c")]
    heights = sorted(float(e.get("y", 0)) for e in words)
    assert heights[1] - heights[0] >= 4.0


def test_a_batch_and_a_pan_print_theirs(cook: Caller, neighbour: Caller) -> None:
    batch = cook.start()
    for kind, mime in (("pdf", "application/pdf"), ("svg", "image/svg+xml")):
        answer = cook.get(f"/batches/{batch['id']}/files/skewer.{kind}?units=metric")
        assert answer.status_code == 200
        assert answer.headers["Content-Type"].startswith(mime)
        assert f'filename="shin-in-stout-skewer.{kind}"' in answer.headers["Content-Disposition"]
    now = re.search(r"now: (\d+)", cook.get(f"/batches/{batch['id']}/files/skewer.svg?units=metric").content.decode())
    assert now is not None
    assert int(now.group(1)) == round(batch["pot"]["depth"]["value"])
    pan = cook.kitchen()["pans"][0]["id"]
    assert b"cup" in cook.get(f"/pans/{pan}/skewer.svg?units=us").content
    assert neighbour.get(f"/batches/{batch['id']}/files/skewer.pdf?units=us").status_code == 404
    assert neighbour.get(f"/pans/{pan}/skewer.pdf?units=us").status_code == 404
    assert cook.get(f"/pans/{pan}/skewer.doc?units=us").status_code in (404, 422)


def test_a_format_is_one_module_and_is_served_as_the_others_are(cook: Caller) -> None:
    """What a scratch format takes: it registers itself, and no other file names it."""
    batch = cook.start()
    try:

        @interchange.written("scratch.txt", "text/plain")
        def _scratch(told: interchange.Told) -> bytes:
            assert told.board.timeline.pot is not None
            return f"{told.name}: {told.board.timeline.pot.salt_percent.best:.3f} %".encode()

        answer = cook.get(f"/batches/{batch['id']}/files/scratch.txt?units=us")
    finally:
        del interchange.FORMATS["scratch.txt"]
    assert (answer.status_code, answer.headers["Content-Type"]) == (200, "text/plain")
    assert answer.content.decode() == f"Shin in stout: {batch['pot']['salt']['best']:.3f} %"
    gone = cook.get(f"/batches/{batch['id']}/files/scratch.txt?units=us")
    assert gone.status_code == 422
    assert "skewer.pdf" in gone.json()["errors"][0]["message"]
