"""Paper for the record: faces, styles and ruled tables, readable when printed in grey.

What reportlab lays on it comes from here too, so that one file names the library.
"""

import io
from importlib import resources
from typing import Any, Final

from reportlab.graphics.shapes import Circle, Drawing, Line, Path, PolyLine, String
from reportlab.lib.colors import Color, HexColor, black, white
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    Flowable,
    Image,
    KeepTogether,
    PageBreak,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)

__all__ = [
    "A4",
    "Canvas",
    "Circle",
    "Color",
    "Drawing",
    "Flowable",
    "HexColor",
    "Image",
    "ImageReader",
    "KeepTogether",
    "Line",
    "PageBreak",
    "Paragraph",
    "Path",
    "PolyLine",
    "SimpleDocTemplate",
    "Spacer",
    "String",
    "Table",
    "black",
    "mm",
    "white",
]

WIDTH: Final = A4[0] - 36 * mm
INK: Final = HexColor(0x1E2B33)
_RULE: Final = HexColor(0xB9B09B)
REGULAR, BOLD = "HK", "HK-Bold"


class Styles:
    """Paragraph styles by what they are for; `scale` for what is read from farther off."""

    def __init__(self, scale: float = 1.0) -> None:
        def sized(name: str, size: float, leading: float, **more: Any) -> ParagraphStyle:
            return ParagraphStyle(
                name, textColor=INK, fontSize=scale * size, leading=scale * leading, **more
            )

        self.text = sized("base", 9, 12, fontName=REGULAR)
        self.small = sized("small", 8, 10.5, fontName=REGULAR)
        self.title = sized("title", 20, 24, fontName=BOLD)
        self.answer = sized("answer", 13, 17, fontName=BOLD)
        self.heading = sized(
            "heading",
            11,
            14,
            fontName=BOLD,
            spaceBefore=10,
            spaceAfter=3,
            keepWithNext=1,
        )


def register_fonts() -> None:
    """Give reportlab the shipped face, once."""
    if REGULAR in pdfmetrics.getRegisteredFontNames():
        return
    folder = resources.files("hardkeel.resources") / "fonts"
    for name, file in ((REGULAR, "Barlow-Regular.ttf"), (BOLD, "Barlow-SemiBold.ttf")):
        pdfmetrics.registerFont(TTFont(name, io.BytesIO((folder / file).read_bytes())))


def dropped(text: str) -> tuple[str, ...]:
    """Characters that the shipped face has no letter for, each once, in order."""
    register_fonts()
    face: Any = pdfmetrics.getFont(REGULAR).face  # type: ignore[attr-defined]
    known = face.charToGlyph
    return tuple(dict.fromkeys(c for c in text if ord(c) not in known and not c.isspace()))


def safe(text: str) -> str:
    """Text that a paragraph takes for text; what the face has no letter for stands as ``?``."""
    for character in dropped(text):
        text = text.replace(character, "?")
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def ruled_table(
    rows: list[list[Any]],
    widths: list[float],
    right: tuple[int, ...],
    *,
    whole: bool = False,
    size: float = 8,
) -> Table:
    """A table with hairlines, letters `size` points; the columns in `right` hold figures, and rows stay `whole` where that is wanted."""
    # a long note is one row: it goes on over the page's end
    table = Table(rows, colWidths=widths, repeatRows=1, splitInRow=0 if whole else 1)
    style: list[Any] = [
        ("FONT", (0, 0), (-1, 0), BOLD, size),
        ("FONT", (0, 1), (-1, -1), REGULAR, size),
        ("TEXTCOLOR", (0, 0), (-1, -1), INK),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, _RULE),
        ("TOPPADDING", (0, 0), (-1, -1), 1.6),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 2.2),
        ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
        *(("ALIGN", (column, 0), (column, -1), "RIGHT") for column in right),
    ]
    table.setStyle(TableStyle(style))
    return table


def sheet_pdf(
    story: list[Flowable],
    size: tuple[float, float],
    margin: float,
    title: str,
    canvas: type[Canvas] = Canvas,
) -> bytes:
    """A story as the bytes of a PDF with the same margin all round.

    Parameters
    ----------
    size, margin : (float, float), float
        Of the paper, mm.
    """
    out = io.BytesIO()
    edge = margin * mm
    SimpleDocTemplate(
        out,
        pagesize=(size[0] * mm, size[1] * mm),
        leftMargin=edge,
        rightMargin=edge,
        topMargin=edge,
        bottomMargin=edge,
        title=title,
        author="Hard Keel",
        invariant=1,
    ).build(story, canvasmaker=canvas)
    return out.getvalue()
