"""In the air: decalage and balance as one drawing, a slider for each that moves the rest, and what is allowed and why."""

from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QPushButton, QSlider, QWidget

from hardkeel.airframe.flights import flight_of
from hardkeel.base.units import LengthUnit
from hardkeel.edits import flying as edits
from hardkeel.messages import air as say
from hardkeel.trim.flying import Craft, Trim
from hardkeel.trim.trading import decalage_for, flown_at, lift_for, trading_curve
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.true import air_shown
from hardkeel.ui.stages.true.trim_drawing import TrimCurve, TrimDrawing, TrimShown
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet

_SHOWS: Final = frozenset(
    {"survey", "phase", "judgement", "wings", "tail", "profiles", "masses", "balance", "flight"}
)
BALANCES: Final = (5, 80)  # percent of the chord
DECALAGES: Final = (-60, 100)  # tenths of a degree
LIFTS: Final = (10, 130)  # hundredths
_OTHER_LIFTS: Final = (0.3, 0.5, 0.8)


class TradeCard(Card):
    """Balance, decalage and lift as sliders.

    Signals
    -------
    balance_moved, decalage_moved, lift_moved : float
        Fraction of the chord; degrees; coefficient.
    """

    balance_moved = pyqtSignal(float)
    decalage_moved = pyqtSignal(float)
    lift_moved = pyqtSignal(float)

    def __init__(self) -> None:
        super().__init__(say.TRADE)
        self.sliders: dict[str, QSlider] = {}
        self._words = {}
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        for i, (key, bounds, moved, scale) in enumerate(
            (
                ("balance", BALANCES, self.balance_moved, 100.0),
                ("decalage", DECALAGES, self.decalage_moved, 10.0),
                ("lift", LIFTS, self.lift_moved, 100.0),
            )
        ):
            slider = self.sliders[key] = QSlider(Qt.Orientation.Horizontal)
            slider.setRange(*bounds)
            slider.setAccessibleName(say.SLIDERS[key])
            slider.valueChanged.connect(
                lambda value, moved=moved, scale=scale: self._moved(moved, value / scale)
            )
            self._words[key] = label("heading", wrap=False)
            grid.addWidget(label("soft", say.SLIDERS[key], wrap=False), i, 0)
            grid.addWidget(slider, i, 1)
            grid.addWidget(self._words[key], i, 2, Qt.AlignmentFlag.AlignRight)
        grid.setColumnStretch(1, 1)
        self.column.addLayout(grid)
        self.said = label("soft", say.TRADE_HOW)
        self.column.addWidget(self.said)
        self._setting = False

    def _moved(self, signal: object, value: float) -> None:
        if not self._setting:
            signal.emit(value)  # type: ignore[attr-defined]

    @property
    def balances(self) -> tuple[float, float]:
        """The least and the most that can be tried, fractions of the chord."""
        slider = self.sliders["balance"]
        return slider.minimum() / 100, slider.maximum() / 100

    def begin_at(self, first: float) -> None:
        """Balance points ahead of the wing's nose too, where a foreplane carries a part."""
        ahead = first < 0
        self._setting = True
        self.sliders["balance"].setRange(
            round(100 * first) if ahead else BALANCES[0],
            round(100 * first) + 100 if ahead else BALANCES[1],
        )
        self._setting = False

    def show_trade(self, balance: float, decalage: float, lift: float) -> None:
        """Put the sliders there."""
        self._setting = True
        self.sliders["balance"].setValue(round(100 * balance))
        self.sliders["decalage"].setValue(round(10 * decalage))
        self.sliders["lift"].setValue(round(100 * lift))
        self._setting = False
        for key, words in say.slider_words(balance, decalage, lift).items():
            self._words[key].setText(words)


class AirAnswer(Card):
    """What follows, in a sentence, and the two ways out."""

    def __init__(self) -> None:
        super().__init__(say.IN_THE_AIR, "act")
        self.answer, self.lines = label("answer"), label("soft")
        self.back, self.keep = QPushButton(say.AS_IT_STANDS), QPushButton(say.BUILD_TO_THIS)
        self.keep.setObjectName("primary")
        self.column.addWidget(self.answer)
        self.column.addWidget(self.lines)
        row = QHBoxLayout()
        row.addWidget(self.keep)
        row.addWidget(self.back)
        row.addStretch(1)
        self.column.addLayout(row)
        self.note = label("soft")
        self.column.addWidget(self.note)


class AirPage(SubPage):
    """The document's flight, shown and traded."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._tried: tuple[float, float, float] | None = None  # balance, decalage, lift
        self.drawing = TrimDrawing(theme)
        self.answer = AirAnswer()
        self.trade = TradeCard()
        self.figures = FiguresCard(say.SECTION)
        self.section = QComboBox()
        self.section.setAccessibleName(say.WING_SECTION)
        self.figures.column.insertWidget(1, self.section)
        self.tail_button = QPushButton(say.TAIL_FROM_SECTION)
        self.tail_button.setObjectName("plain")
        self.figures.column.addWidget(self.tail_button, 0, Qt.AlignmentFlag.AlignLeft)
        self.allowed = LinesCard(say.ALLOWED)
        cards = (self.told, self.answer, self.trade, FoldedSheet((self.allowed, self.figures)))
        column = CardColumn(cards, theme)
        self.themed = (self.drawing, column)
        self.lie_beside(self.drawing, column)
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _connect(self) -> None:
        self.document.build_opened.connect(self._on_opened)
        self.drawing.balance_dragged.connect(self._on_balance)
        self.trade.balance_moved.connect(self._on_balance)
        self.trade.decalage_moved.connect(self._on_decalage)
        self.trade.lift_moved.connect(self._on_lift)
        self.answer.back.clicked.connect(self._on_back)
        self.answer.keep.clicked.connect(self._on_keep)
        self.figures.figure_changed.connect(self._on_figure)
        self.section.activated.connect(self._on_section)
        self.tail_button.clicked.connect(
            lambda: self.apply(say.TAIL_FROM_SECTION, edits.set_tail_section_from.of("stab"))
        )

    def focus_work(self) -> None:
        """The first slider."""
        self.trade.sliders["balance"].setFocus()

    # -- showing ---------------------------------------------------------------------------------

    def refresh(self) -> None:
        """Show the build as it is now, or what is tried on it."""
        build, judgement = self.document.build, self.document.judgement
        craft = air_shown.craft_now(build, judgement)
        start = air_shown.starting(craft)
        for card in (self.answer, self.trade):
            card.setVisible(start is not None)
        self._show_section()
        self.allowed.show_lines("", air_shown.allowed_lines(build, judgement, self.unit))
        if start is None:
            self.drawing.show_trim(TrimShown())
            return
        balance, decalage, lift = self._tried or start
        trim = flown_at(craft, balance, lift)
        self.trade.begin_at(air_shown.first_balance(trim, balance))
        self.trade.show_trade(balance, decalage, lift)
        self._show_answer(trim, decalage)
        lifts = sorted({*_OTHER_LIFTS, round(lift, 2)})
        first = air_shown.first_balance(trim, balance)
        spread = [first + i / 50 for i in range(51)]
        self.drawing.show_trim(
            TrimShown(
                air_shown.section_outline(build),
                tuple(
                    TrimCurve(
                        say.lift_words(one),
                        trading_curve(craft, one, spread),
                        one == round(lift, 2),
                    )
                    for one in lifts
                ),
                trim.neutral_point,
                air_shown.standing(craft, judgement),
                (balance, decalage),
                first,
            )
        )

    def _show_answer(self, trim: Trim, decalage: float) -> None:
        tried = self._tried is not None
        self.answer.answer.setText(say.trade_answer(trim, decalage, tried=tried))
        self.answer.lines.setText("\n".join(say.trade_lines(trim)))
        self.answer.note.setText(" ".join([say.fuselage_note(trim), *say.validity_notes(trim)]))
        self.answer.back.setEnabled(tried)
        self.answer.keep.setEnabled(tried)

    def _show_section(self) -> None:
        build = self.document.build
        flight = flight_of(build)
        names = air_shown.section_names(build)
        if [self.section.itemData(i) for i in range(self.section.count())] != [n for n, _ in names]:
            self.section.clear()
            for key, words in names:
                self.section.addItem(words, key)
        now = next((wing.profile for wing in build.wings if wing.profile), "")
        self.section.setCurrentIndex(self.section.findData(now))
        self.section.setEnabled(bool(build.wings))
        stab = next((one for one in build.tail if one.id == "stab"), None)
        self.tail_button.setVisible(stab is not None and bool(stab.root_profile))
        figures = (
            Figure("zero_lift", say.FIGURES["zero_lift"], flight.zero_lift, "angle"),
            Figure("cm0", say.FIGURES["cm0"], 100 * flight.cm0, "percent"),
            Figure("tail_zero_lift", say.FIGURES["tail_zero_lift"], flight.tail_zero_lift, "angle"),
            Figure("elevator_fraction", say.FIGURES["elevator_fraction"], 100 * flight.elevator_fraction, "percent"),
            Figure("rudder_fraction", say.FIGURES["rudder_fraction"], 100 * flight.rudder_fraction, "percent"),
        )  # fmt: skip
        self.figures.show_figures("", figures, self.unit, say.section_said(now))

    # -- trying ----------------------------------------------------------------------------------

    def _now(self) -> tuple[Craft, tuple[float, float, float]] | None:
        craft = air_shown.craft_now(self.document.build, self.document.judgement)
        start = air_shown.starting(craft)
        return (craft, self._tried or start) if start is not None else None

    def _on_balance(self, balance: float) -> None:
        """Decalage gives way."""
        now = self._now()
        if now is None:
            return
        craft, (_, _, lift) = now
        low, high = self.trade.balances
        balance = min(max(balance, low), high)
        decalage = decalage_for(craft, balance, lift)
        if decalage is not None:
            self._try((balance, decalage, lift))

    def _on_lift(self, lift: float) -> None:
        """Decalage gives way."""
        now = self._now()
        if now is None:
            return
        craft, (balance, _, _) = now
        decalage = decalage_for(craft, balance, lift)
        if decalage is not None:
            self._try((balance, decalage, lift))

    def _on_decalage(self, decalage: float) -> None:
        """Lift gives way, as far as a wing gives any."""
        now = self._now()
        if now is None:
            return
        craft, (balance, _, _) = now
        found = lift_for(craft, balance, decalage)
        if found is None:
            self.tell(say.NO_LIFT)
            return
        bounded = min(max(found, LIFTS[0] / 100), LIFTS[1] / 100)
        if bounded != found:
            self.tell(say.too_far(found))
            kept = decalage_for(craft, balance, bounded)
            self._tried = (balance, kept if kept is not None else decalage, bounded)
            self.refresh()
            return
        self._try((balance, decalage, found))

    def _try(self, tried: tuple[float, float, float]) -> None:
        self.tell("")
        self._tried = tried
        self.refresh()

    def _on_back(self) -> None:
        self.tell("")
        self._tried = None
        self.refresh()

    def _on_opened(self) -> None:
        self._tried = None

    # -- doing -----------------------------------------------------------------------------------

    def _on_keep(self) -> None:
        if self._tried is None:
            return
        balance, decalage, lift = self._tried
        if self.apply(say.keep_edit(decalage), edits.build_to.of(balance, decalage, lift)):
            self._on_back()

    def _on_figure(self, key: str, value: float) -> None:
        given = value / 100 if key == "cm0" or key.endswith("_fraction") else value
        self.apply(say.figure_edit(key), edits.set_flight.of(**{key: given}))

    def _on_section(self, at: int) -> None:
        name = self.section.itemData(at)
        self.apply(say.section_edit(name), edits.set_wing_section.of(name))
