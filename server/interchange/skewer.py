"""The skewer at its true size, to print, cut out and hold against a spoon handle: SVG and PDF.

A strip stands for the skewer, its lower edge for the base of the pan. What does not fit on one sheet
of paper goes on in a second strip beside it. A bar of exactly 100 mm shows whether the printer kept
the scale.
"""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from spissus_core.amounts.quantities import show_length
from spissus_core.messages import say
from spissus_core.planning.marks import marks
from words import plain

from . import Told, written

SVG, PDF = "image/svg+xml; charset=utf-8", "application/pdf"

Kind = Literal["svg", "pdf"]

#: The sheet, mm, its margin, and the length of one strip.
PAGE_W_MM, PAGE_H_MM = 210.0, 297.0
MARGIN_MM, FOOT_MM, STRIP_MM = 20.0, 40.0, 220.0
#: Width of a strip, and room for the words beside it, mm.
_STRIP_W_MM, _PITCH_MM = 8.0, 55.0


@dataclass(frozen=True, slots=True)
class Mark:
    """A line across the skewer, mm above its lower edge, and the words beside it."""

    depth_mm: float
    label: str


@dataclass(frozen=True, slots=True)
class _Line:
    """A line on the sheet, mm from its lower left corner; ``strong`` ones are heavier."""

    x0: float
    y0: float
    x1: float
    y1: float
    strong: bool = False


@dataclass(frozen=True, slots=True)
class _Words:
    x: float
    y: float
    text: str
    size_mm: float = 3.6


def _strips(length_mm: float) -> int:
    fits = int((PAGE_W_MM - 2 * MARGIN_MM) // _PITCH_MM)
    return min(max(math.ceil(length_mm / STRIP_MM), 1), fits)


def _sheet(title: str, marks: Sequence[Mark], length_mm: float) -> tuple[list[_Line], list[_Words]]:
    lines: list[_Line] = []
    words = [
        _Words(MARGIN_MM, PAGE_H_MM - 14.0, title, 5.0),
        _Words(MARGIN_MM, 12.0, plain(say("kitchen.print_at"))),
        _Words(MARGIN_MM, 7.0, plain(say("kitchen.cut_along"))),
    ]
    lines.append(_Line(MARGIN_MM, 20.0, MARGIN_MM + 100.0, 20.0, strong=True))
    lines += [_Line(x, 18.5, x, 21.5) for x in (MARGIN_MM, MARGIN_MM + 100.0)]
    for strip in range(_strips(length_mm)):
        low, high = strip * STRIP_MM, min((strip + 1) * STRIP_MM, length_mm)
        x = MARGIN_MM + strip * _PITCH_MM
        top = FOOT_MM + high - low
        right = x + _STRIP_W_MM
        lines += [
            _Line(x, FOOT_MM, x, top),
            _Line(right, FOOT_MM, right, top),
            _Line(x, FOOT_MM, right, FOOT_MM),
            _Line(x, top, right, top),
        ]
        if strip:
            words.append(_Words(x, FOOT_MM - 5.0, plain(say("kitchen.goes_on_at", depth=show_length(low)), "metric")))
        # Ticks every centimetre on the left edge.
        for depth in range(math.ceil(max(low, 1.0) / 10.0) * 10, math.floor(high) + 1, 10):
            lines.append(_Line(x, FOOT_MM + depth - low, x + 2.0, FOOT_MM + depth - low))
        for mark in marks:
            if low <= mark.depth_mm <= high and (strip == 0 or mark.depth_mm > low):
                y = FOOT_MM + mark.depth_mm - low
                lines.append(_Line(x, y, right, y, strong=True))
                words.append(_Words(right + 2.0, y - 1.2, mark.label))
    return lines, _apart(words)


def _apart(words: list[_Words]) -> list[_Words]:
    """Words beside marks that lie close together make room for each other."""
    out: list[_Words] = []
    for one in sorted(words, key=lambda w: (w.x, w.y)):
        above = [w for w in out if w.x == one.x]
        lowest = max((w.y + 4.4 for w in above), default=one.y)
        out.append(_Words(one.x, max(one.y, lowest) if one.size_mm < 5.0 else one.y, one.text, one.size_mm))
    return out


def svg(title: str, marks: Sequence[Mark], length_mm: float) -> str:
    """The sheet as SVG, its user unit a millimetre."""
    lines, words = _sheet(title, marks, length_mm)
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{PAGE_W_MM:g}mm" height="{PAGE_H_MM:g}mm" '
        f'viewBox="0 0 {PAGE_W_MM:g} {PAGE_H_MM:g}"><rect width="100%" height="100%" fill="#fff"/>'
    ]
    for line in lines:
        parts.append(
            f'<line x1="{line.x0:.3f}" y1="{PAGE_H_MM - line.y0:.3f}" x2="{line.x1:.3f}" '
            f'y2="{PAGE_H_MM - line.y1:.3f}" stroke="#000" stroke-width="{0.6 if line.strong else 0.25}"/>'
        )
    for word in words:
        parts.append(
            f'<text x="{word.x:.3f}" y="{PAGE_H_MM - word.y:.3f}" font-size="{word.size_mm}" '
            f'font-family="sans-serif">{escape(word.text)}</text>'
        )
    return "\n".join([*parts, "</svg>"])


def pdf(title: str, marks: Sequence[Mark], length_mm: float) -> bytes:
    """The sheet as a PDF of A4 size."""
    lines, words = _sheet(title, marks, length_mm)
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, pageCompression=0, invariant=1)
    canvas.setTitle(title)
    for line in lines:
        canvas.setLineWidth((0.6 if line.strong else 0.25) * mm)
        canvas.line(line.x0 * mm, line.y0 * mm, line.x1 * mm, line.y1 * mm)
    for word in words:
        canvas.setFont("Helvetica", word.size_mm * mm)
        canvas.drawString(word.x * mm, word.y * mm, _latin(word.text))
    canvas.save()
    return out.getvalue()


def _latin(text: str) -> str:
    """What the built-in fonts of PDF can show; every reader has them, and no other."""
    plain = text.replace("\u00a0", " ").replace("’", "'").replace("“", '"').replace("”", '"')
    return plain.encode("cp1252", "replace").decode("cp1252")


def drawn(kind: Kind, title: str, marks: Sequence[Mark], length_mm: float) -> tuple[bytes, str]:
    """The sheet, and its media type."""
    if kind == "svg":
        return svg(title, marks, length_mm).encode(), SVG
    return pdf(title, marks, length_mm), PDF


@written("skewer.svg", SVG)
def _svg_of(told: Told) -> bytes:
    """The skewer with the marks of a batch."""
    return _of_batch("svg", told)


@written("skewer.pdf", PDF)
def _pdf_of(told: Told) -> bytes:
    """The same to print."""
    return _of_batch("pdf", told)


def _of_batch(kind: Kind, told: Told) -> bytes:
    board, pot = told.board, told.board.timeline.pot
    assert pot is not None
    found = marks(board.timeline, board.act.doing, board.route)
    words = [Mark(mark.depth_mm, plain(mark.said, told.units)) for mark in found]
    return drawn(kind, f"{told.name}: {pot.pan.name}", words, pot.pan.height_mm)[0]
