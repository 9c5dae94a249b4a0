"""Paper and ink: every colour, size and font of the window, in one place, light and dark."""

import re
from dataclasses import asdict, dataclass
from functools import cache
from importlib import resources
from pathlib import Path
from string import Template
from typing import Final, Literal

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PyQt6.QtWidgets import QApplication, QDialog, QGridLayout, QLayout, QMainWindow, QMenu, QWidget

ThemeName = Literal["light", "dark"]

TEXT: Final = "Barlow"
NARROW: Final = "Barlow Semi Condensed"
BASE_PX: Final = 14
_SHEET: Final = "sheet"  # of the application's properties
_SCALE: Final = "scale"
_MADE: Final = "made"  # of a layout: margins and gap as it was made
_SIZES: Final = re.compile(r"\$(px|less|wide|slim)(\d+)")
_WIDEST: Final = 1.22  # how much wider than usual margins grow: there is no more room across a page
_TALLEST: Final = 1.35  # and how much taller
SCALES: Final = (100, 125, 150)


@dataclass(frozen=True, slots=True)
class Palette:
    """Colours by what they are for, as #RRGGBB.

    Attributes
    ----------
    act : str
        The one thing to do now, and what is picked.
    out : str
        Out of true; never used for anything else.
    fluid, fluid_edge : str
        The liquid in a vial.
    wood : str
        The airframe.
    """

    paper: str
    desk: str
    field: str
    ink: str
    soft: str
    hair: str
    grid: str
    act: str
    on_act: str
    act_wash: str
    out: str
    out_wash: str
    fluid: str
    fluid_edge: str
    bubble: str
    bubble_edge: str
    wood: str
    wing: str


LIGHT: Final = Palette(
    paper="#FBF8F0",
    desk="#EFEADC",
    field="#FFFFFF",
    ink="#1E2B33",
    soft="#56646A",
    hair="#D3CBB8",
    grid="#F0EBDD",
    act="#0B5D6B",
    on_act="#FFFFFF",
    act_wash="#E3EEEA",
    out="#B03316",
    out_wash="#F8E6DC",
    fluid="#DDE58A",
    fluid_edge="#8A9447",
    bubble="#FBFBE6",
    bubble_edge="#1E2B33",
    wood="#F3EBD3",
    wing="#FFFDF7",
)
DARK: Final = Palette(
    paper="#1C2429",
    desk="#141B1F",
    field="#0E1417",
    ink="#ECE7D8",
    soft="#A7B0AE",
    hair="#3A464C",
    grid="#222C32",
    act="#63C6D2",
    on_act="#0E1B1F",
    act_wash="#203A40",
    out="#FF8D66",
    out_wash="#40291F",
    fluid="#A9B255",
    fluid_edge="#D5DD8C",
    bubble="#F5F6D6",
    bubble_edge="#10171A",
    wood="#3B372B",
    wing="#2A3338",
)
PALETTES: Final[dict[ThemeName, Palette]] = {"light": LIGHT, "dark": DARK}


@dataclass(frozen=True, slots=True)
class Theme:
    """A palette with the text scale; widgets that paint themselves ask it for colours and fonts."""

    name: ThemeName
    palette: Palette
    scale: float

    def colour(self, name: str, alpha: float = 1.0) -> QColor:
        """A palette colour by name; the caller's own, to be changed at will."""
        return QColor(_colour(getattr(self.palette, name), alpha))

    def px(self, size: float) -> int:
        """A size in pixels at this text scale."""
        return round(size * self.scale)

    def across(self, size: float) -> int:
        """The same of a margin or gap that lies across the page, where there is less room to grow."""
        return round(size * min(self.scale, _WIDEST))

    def font(self, size: float = BASE_PX, *, narrow: bool = True, weight: int = 400) -> QFont:
        """The shipped face with tabular figures, `size` in unscaled pixels."""
        return _font(NARROW if narrow else TEXT, max(1, self.px(size)), weight)


@cache  # painting asks for some hundred of them each time
def _colour(code: str, alpha: float) -> QColor:
    colour = QColor(code)
    colour.setAlphaF(alpha)
    return colour


@cache
def _font(family: str, pixels: int, weight: int) -> QFont:
    font = QFont(family)
    font.setPixelSize(pixels)
    font.setWeight(QFont.Weight(weight))
    font.setFeature(QFont.Tag(b"tnum"), 1)
    return font


def make_theme(name: ThemeName, percent: int = 100) -> Theme:
    """A theme at a text scale in percent."""
    return Theme(name, PALETTES[name], percent / 100)


def load_fonts() -> None:
    """Give Qt the faces that the package ships."""
    folder = resources.files("hardkeel.resources") / "fonts"
    for entry in folder.iterdir():
        if entry.name.endswith(".ttf"):
            QFontDatabase.addApplicationFontFromData(entry.read_bytes())


def apply_theme(app: QApplication, theme: Theme) -> None:
    """Dress the application: palette, font, and the windows that have no rooms.

    The style sheet is not the application's own: Qt would work through every widget of every page at
    each change, seen or not.  A window's rooms put it on with `apply_style` when they are shown.
    """
    app.setProperty(_SHEET, style_sheet(theme))
    app.setProperty(_SCALE, theme.scale)
    if app.font() != theme.font():
        app.setFont(theme.font())
    palette = QPalette()
    roles = {
        QPalette.ColorRole.Window: "desk",
        QPalette.ColorRole.WindowText: "ink",
        QPalette.ColorRole.Base: "field",
        QPalette.ColorRole.AlternateBase: "paper",
        QPalette.ColorRole.Text: "ink",
        QPalette.ColorRole.Button: "paper",
        QPalette.ColorRole.ButtonText: "ink",
        QPalette.ColorRole.Highlight: "act",
        QPalette.ColorRole.HighlightedText: "on_act",
        QPalette.ColorRole.ToolTipBase: "paper",
        QPalette.ColorRole.ToolTipText: "ink",
        QPalette.ColorRole.PlaceholderText: "soft",
    }
    for role, name in roles.items():
        palette.setColor(role, theme.colour(name))
    app.setPalette(palette)
    for top in app.topLevelWidgets():
        if isinstance(top, QDialog | QMenu) or (top.parent() is None and not is_roomy(top)):
            apply_style(top)


def is_roomy(window: QWidget) -> bool:
    """Whether a window dresses its rooms itself."""
    return isinstance(window, QMainWindow)


def apply_style(widget: QWidget) -> None:
    """Put the application's style sheet on a room, a dialog or a menu, unless it is worn already.

    Margins and gaps of its layouts follow the text, so that what is hit grows with what is read.
    """
    app = QApplication.instance()
    sheet = str(app.property(_SHEET) or "") if app is not None else ""
    if widget.styleSheet() != sheet:
        widget.setStyleSheet(sheet)
        _space(widget, float(app.property(_SCALE) or 1.0) if app is not None else 1.0)


def _space(widget: QWidget, scale: float) -> None:
    """Give the layouts within their room at this text scale; each remembers what it was made with."""
    own = widget.layout()
    for box in (*([own] if own is not None else []), *widget.findChildren(QLayout)):
        made = box.property(_MADE)
        if made is None:
            m = box.contentsMargins()
            made = [m.left(), m.top(), m.right(), m.bottom(), box.spacing()]
            box.setProperty(_MADE, made)
        across, down = min(scale, _WIDEST), min(scale, _TALLEST)
        left, top, right, bottom, gap = made
        box.setContentsMargins(
            round(across * left), round(down * top), round(across * right), round(down * bottom)
        )
        if gap >= 0 and not isinstance(box, QGridLayout):
            box.setSpacing(round(across * gap))


@cache
def style_sheet(theme: Theme) -> str:
    """The style sheet with this theme's colours and sizes filled in."""
    raw = (resources.files("hardkeel.resources") / "style.qss").read_text(encoding="utf-8")
    names = dict(asdict(theme.palette))
    for kind, figure in set(_SIZES.findall(raw)):
        # a border that is a pixel thicker takes it from the padding
        less = 1 if kind in ("less", "slim") else 0
        size = theme.across(int(figure)) if kind in ("wide", "slim") else theme.px(int(figure))
        names[f"{kind}{figure}"] = f"{size - less}px"
    # a style sheet names its icons by path, so they must lie on disk; installed packages do
    icons = Path(str(resources.files("hardkeel.resources") / "icons")).as_posix()
    return Template(raw).substitute(names, text=TEXT, narrow=NARROW, icons=icons, theme=theme.name)
