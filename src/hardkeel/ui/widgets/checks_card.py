"""All checks as vials in their groups, what is worst first; the picked one in words with its tolerance."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import true as say
from hardkeel.messages.newcomer import HOW_READ
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.asked import Asked
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.vial import GroupLine, Vial, VialGroup


class ChecksCard(Card):
    """All checks as vials, and the picked one in words.

    Signals
    -------
    check_picked : str
        A vial was picked.
    tolerance_changed : str, float
        Another tolerance was typed for a check; mm or degrees.
    laid : (nothing)
        Checks came, went or changed places.
    """

    laid = pyqtSignal()
    check_picked = pyqtSignal(str)
    tolerance_changed = pyqtSignal(str, float)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(say.TRUE, parent=parent)
        self._theme = theme
        self._vials: dict[str, Vial] = {}
        self._lines: dict[str, GroupLine] = {}
        self._groups: tuple[VialGroup, ...] = ()
        self._order: list[tuple[str, tuple[str, ...]]] = []
        self._by_hand: dict[str, bool] = {}  # what the builder folded or unfolded
        self._rows = QVBoxLayout()
        self._rows.setSpacing(0)
        self.column.addLayout(self._rows)
        self._empty = label("soft", say.NOTHING_TO_CHECK_YET)
        self.column.addWidget(self._empty)
        self._asked = Asked(HOW_READ)
        self.column.addWidget(self._asked)
        self._detail = label("heading")
        self._air = label("soft")
        self._limit = QuantityEdit()
        self._limit.line.setMaximumWidth(90)
        limit_row = QHBoxLayout()
        limit_row.addWidget(label("soft", "allowed ±", wrap=False), 0, Qt.AlignmentFlag.AlignTop)
        limit_row.addWidget(self._limit)
        self._foot = QWidget()
        foot = QVBoxLayout(self._foot)
        foot.setContentsMargins(0, 6, 0, 0)
        foot.setSpacing(3)
        foot.addWidget(self._detail)
        foot.addWidget(self._air)
        foot.addLayout(limit_row)
        self._foot.hide()
        self.column.addWidget(self._foot)
        self._chosen = ""
        self._limit.value_changed.connect(
            lambda value: self.tolerance_changed.emit(self._chosen, value)
        )

    def vial(self, check: str) -> Vial | None:
        """The vial of a check."""
        return self._vials.get(check)

    def line(self, body: str) -> GroupLine | None:
        """The line of a part."""
        return self._lines.get(body)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        for vial in self._vials.values():
            vial.set_theme(theme)
        for line in self._lines.values():
            line.set_theme(theme)

    def show_groups(self, groups: tuple[VialGroup, ...]) -> None:
        """Show the checks by part, the first unfolded; what stays is only updated and keeps the focus."""
        self._groups = groups
        order = [(group.body, tuple(value.id for value in group.vials)) for group in groups]
        if order != self._order:
            self._order = order
            self._lay(groups)
            self.laid.emit()
        for group in groups:
            for value in group.vials:
                self._vials[value.id].show_value(value)
        self._fold()
        self._empty.setVisible(not groups)
        self._asked.setVisible(bool(groups))

    def unfold(self, body: str) -> None:
        """Show the checks of a part."""
        self._by_hand[body] = True
        self._fold()

    def _lay(self, groups: tuple[VialGroup, ...]) -> None:
        """Put lines and vials in this order; those that are there already are kept."""
        wanted = {value.id: value for group in groups for value in group.vials}
        for known, ids in (
            (self._vials, set(wanted)),
            (self._lines, {group.body for group in groups}),
        ):
            for key in [key for key in known if key not in ids]:
                gone: QWidget = known.pop(key)
                self._rows.removeWidget(gone)
                gone.deleteLater()
        for group in groups:
            if group.body not in self._lines:
                line = self._lines[group.body] = GroupLine(group, self._theme)
                line.toggled.connect(self._on_toggled)
            self._rows.removeWidget(self._lines[group.body])
            self._rows.addWidget(self._lines[group.body])
            for value in group.vials:
                if value.id not in self._vials:
                    vial = self._vials[value.id] = Vial(value, self._theme)
                    vial.picked.connect(self.check_picked)
                self._rows.removeWidget(self._vials[value.id])
                self._rows.addWidget(self._vials[value.id])

    def _fold(self) -> None:
        for i, group in enumerate(self._groups):
            unfolded = self._by_hand.get(group.body, i == 0)
            self._lines[group.body].show_group(group, unfolded=unfolded)
            for value in group.vials:
                self._vials[value.id].setVisible(unfolded)

    def _on_toggled(self, body: str) -> None:
        first = bool(self._groups) and self._groups[0].body == body
        self._by_hand[body] = not self._by_hand.get(body, first)
        self._fold()

    def show_detail(
        self,
        check: str,
        detail: str,
        air: str,
        limit: float | None,
        *,
        angular: bool,
        unit: LengthUnit,
    ) -> None:
        """Put one check in words; an empty id closes the detail."""
        changed = check != self._chosen
        self._chosen = check
        for name, vial in self._vials.items():
            vial.set_chosen(chosen=name == check)
        self._foot.setVisible(bool(check))
        self._detail.setText(detail)
        self._air.setText(air)
        self._limit.set_kind(angular=angular, unit=unit)
        if changed or not self._limit.line.hasFocus():
            self._limit.set_value(limit)
