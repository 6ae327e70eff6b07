"""One look for everything printed: type, rules, boxes to tick, a tag that opens the page it came from."""

from __future__ import annotations

from io import BytesIO
from itertools import groupby
from pathlib import Path
from typing import Any, Final, Literal
from xml.sax.saxutils import escape

import reportlab
from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate, Table, TableStyle

__all__ = ["INK", "PaperSize", "boxed", "grid", "heading", "line", "make_pdf", "plain", "qr", "title"]

PaperSize = Literal["a4", "letter"]
SIZES: Final[dict[PaperSize, tuple[float, float]]] = {"a4": A4, "letter": LETTER}
MARGIN: Final = 16 * mm
INK: Final = "#1f231d"
SOFT: Final = "#55584f"

_FONTS = Path(reportlab.__file__).parent / "fonts"
for _name, _file in (("Plain", "Vera.ttf"), ("Strong", "VeraBd.ttf"), ("Slant", "VeraIt.ttf")):
    pdfmetrics.registerFont(TTFont(_name, str(_FONTS / _file)))

_TITLE = ParagraphStyle("title", fontName="Strong", fontSize=20, leading=24, textColor=INK)
_HEADING = ParagraphStyle(
    "heading", fontName="Strong", fontSize=11.5, leading=15, spaceBefore=9, spaceAfter=2, textColor=INK
)
_PLAIN = ParagraphStyle("plain", fontName="Plain", fontSize=9.5, leading=13, textColor=INK)
_SOFT = ParagraphStyle("soft", parent=_PLAIN, textColor=SOFT)
_CAUTION = ParagraphStyle("caution", parent=_PLAIN, fontName="Slant", leftIndent=8, borderPadding=(1, 0, 1, 6))
_POINT = ParagraphStyle(
    "point", parent=_PLAIN, leftIndent=14, bulletIndent=1, bulletFontName="ZapfDingbats", bulletFontSize=9
)

_SAID = str.maketrans({"→": "to", "−": "-", "≤": "up to", "\u00a0": " "})  # what the printing type lacks


def _text(words: str) -> str:
    return escape(words.translate(_SAID))


def title(words: str) -> Flowable:
    return Paragraph(_text(words), _TITLE)


def heading(words: str) -> Flowable:
    return Paragraph(_text(words), _HEADING)


def plain(words: str, soft: bool = False) -> Flowable:
    return Paragraph(_text(words), _SOFT if soft else _PLAIN)


def line(words: str) -> Flowable:
    """A caution."""
    return Paragraph(_text(f"! {words}"), _CAUTION)


def boxed(words: str) -> Flowable:
    """Something to tick."""
    return Paragraph(_text(words), _POINT, bulletText="o")


def grid(rows: list[list[str]], widths: list[float] | None = None) -> Flowable:
    """A table with a ruled box in every cell that is left to be filled in."""
    cells: list[list[Any]] = [[Paragraph(_text(each), _PLAIN) if each.strip() else "" for each in row] for row in rows]
    heights = [None if any(each.strip() for each in row) else 8 * mm for row in rows]
    table = Table(cells, colWidths=widths, rowHeights=heights, hAlign="LEFT", repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                ("GRID", (0, 0), (-1, -1), 0.5, SOFT),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("TOPPADDING", (0, 0), (-1, -1), 3),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 3),
            ]
        )
    )
    return table


QUIET: Final = 4
"""Light modules around a code, which readers need (ISO/IEC 18004)."""


def _modules(address: str) -> list[list[bool]]:
    code = QrCodeWidget(address, barLevel="M")
    code.qr.make()
    return [[bool(dark) for dark in row] for row in code.qr.modules]


class _Code(Flowable):  # type: ignore[misc]
    """A code as one path of its dark runs: as a drawing of single squares it took most of a page’s time."""

    def __init__(self, address: str, size: float) -> None:
        super().__init__()
        self.address = address
        self.width = self.height = size

    def draw(self) -> None:
        rows = _modules(self.address)
        module = self.width / (len(rows) + 2 * QUIET)
        path = self.canv.beginPath()
        for down, row in enumerate(rows):
            bottom = self.height - (QUIET + down + 1) * module
            across = 0
            for dark, run in groupby(row):
                count = len(list(run))
                if dark:
                    path.rect((QUIET + across) * module, bottom, count * module, module)
                across += count
        self.canv.drawPath(path, stroke=0, fill=1)


def qr(address: str, size: float = 24 * mm) -> Flowable:
    """A tag that opens this address."""
    return _Code(address, size)


def make_pdf(story: list[Flowable], head: list[Flowable], address: str, size: PaperSize, name: str) -> bytes:
    """The document: a head with its tag, then the story. `name` is what the file is called inside."""
    wide, _ = SIZES[size]
    room = wide - 2 * MARGIN
    top = Table([[head, qr(address)]], colWidths=[room - 28 * mm, 28 * mm])
    top.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0)]))
    written = BytesIO()
    document = SimpleDocTemplate(
        written, pagesize=SIZES[size], leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN, bottomMargin=MARGIN,
        title=name, author="Red Tally", invariant=1,
    )  # fmt: skip
    document.build([top, *story])
    return written.getvalue()
