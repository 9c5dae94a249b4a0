"""Coupons: the batches of late, how their test strips broke, and which joints hang on them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLayout,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.edits import glue as edits
from hardkeel.glue.coupons import BatchVerdict, by_preparation, through, verdict_on
from hardkeel.glue.model import PREPARATIONS, Batch, Bottle, Preparation
from hardkeel.messages import glue as say
from hardkeel.messages.steps import step_title
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard

_SHOWS: Final = frozenset({"glue", "steps"})


@dataclass(frozen=True, slots=True)
class BatchShown:
    """What a card says of a batch.

    Attributes
    ----------
    joints : tuple of str
        What hangs on it, by title.
    others : tuple of (step id, title)
        Glued with this kind, and written to no batch.
    wait : str
        From when its coupons may be judged; empty once they may.
    by_faces : str
        How coupons broke by how their faces were prepared; empty where that was not said.
    """

    verdict: BatchVerdict
    joints: tuple[str, ...]
    others: tuple[tuple[str, str], ...]
    wait: str
    by_faces: str = ""


class BatchCard(Card):
    """One batch.

    Signals
    -------
    broken : str, str, object
        Its id, how a coupon of it broke, and how its faces were prepared, if that was said.
    tied : str, str
        Its id, and a step that was glued with it.
    """

    broken = pyqtSignal(str, str, object)
    tied = pyqtSignal(str, str)

    def __init__(self, batch: Batch, shown: BatchShown) -> None:
        verdict = shown.verdict
        super().__init__(say.batch_title(batch), "out" if verdict.verdict == "bad" else "")
        self.said = label("answer", say.verdict_words(verdict))
        self.joints = label("soft", say.named_joints(list(shown.joints)))
        self.wait = label("heading", shown.wait)
        self.wait.setVisible(bool(shown.wait))
        self.column.addWidget(self.said)
        self.by_faces = label("soft", shown.by_faces)
        self.by_faces.setVisible(bool(shown.by_faces))
        self.column.addWidget(self.by_faces)
        self.prepared = QComboBox()
        self.prepared.addItem(say.PREPARED, None)
        for way in PREPARATIONS:
            self.prepared.addItem(way, way)
        self.prepared.setAccessibleName(say.PREPARED)
        self.column.addWidget(self.wait)
        self.column.addWidget(self.joints)
        row = QHBoxLayout()
        self.buttons: dict[str, QPushButton] = {}
        for broke, words in say.BROKE:
            button = self.buttons[broke] = QPushButton(words)
            button.clicked.connect(
                lambda _on, broke=broke: self.broken.emit(
                    batch.id, broke, self.prepared.currentData()
                )
            )
            row.addWidget(button)
        row.addWidget(self.prepared)
        self.also = QComboBox()
        self.also.addItem(say.ALSO_GLUED, "")
        for step, title in shown.others:
            self.also.addItem(title, step)
        self.also.setVisible(bool(shown.others))
        self.also.setSizeAdjustPolicy(
            QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
        )
        self.also.setMinimumContentsLength(18)
        self.also.activated.connect(lambda at: self._on_also(batch.id, at))
        row.addStretch(1)
        row.addWidget(self.also)
        self.column.addLayout(row)

    def _on_also(self, batch: str, at: int) -> None:
        step = self.also.itemData(at)
        if step:
            self.tied.emit(batch, step)


class CouponsPage(SubPage):
    """The batches."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.batches: dict[str, BatchCard] = {}
        self._asked = ("", "")  # a batch and how its coupon broke, asked about once
        self._sheet = QWidget()
        self._sheet.setObjectName("paper")
        box = QVBoxLayout(self._sheet)
        box.setContentsMargins(20, 14, 20, 14)
        self.nothing = label("heading", say.NO_BATCH)
        box.addWidget(label("big", say.BATCHES))
        box.addWidget(self.nothing)
        self._list = QVBoxLayout()
        box.addLayout(self._list)
        box.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(self._sheet)
        scroll.setWidgetResizable(True)
        self.how = LinesCard(say.COUPONS)
        self.how.show_lines("", [say.HOW_TO])
        column = CardColumn((self.told, self.how), theme)
        self.themed = (column,)
        self.lie_beside(scroll, column)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def refresh(self) -> None:
        """Show the batches, the last one first."""
        _emptied(self._list)
        self.batches = {}
        shelf = self.document.build.glue
        self._asked = ("", "")
        for batch in reversed(shelf.batches if shelf is not None else ()):
            card = self.batches[batch.id] = BatchCard(batch, self._shown(batch))
            card.broken.connect(self._on_broken)
            card.tied.connect(self._on_tied)
            self._list.addWidget(card)
        self.nothing.setVisible(not self.batches)
        apply_style(self._sheet)

    def _shown(self, batch: Batch) -> BatchShown:
        build = self.document.build
        titles = {step.id: step_title(step) for step in build.steps}
        bottle = self._bottle(batch)
        taken = {
            joint for one in (build.glue.batches if build.glue else ()) for joint in one.joints
        }
        others = tuple(
            (step.id, titles[step.id])
            for step in build.steps
            if step.state == "done" and step.glue == batch.kind and step.id not in taken
        )
        joints = tuple(titles.get(one, one) for one in batch.joints)
        wait = say.wait_words(through(batch, bottle), self._now_for(batch))
        by_faces = say.prepared_words(by_preparation(batch, bottle))
        return BatchShown(verdict_on(batch, bottle), joints, others, wait, by_faces)

    def _bottle(self, batch: Batch) -> Bottle | None:
        shelf = self.document.build.glue
        return (
            next((one for one in shelf.bottles if one.kind == batch.kind), None) if shelf else None
        )

    def _now_for(self, batch: Batch) -> datetime:
        """Now, with a zone where the batch has one."""
        now = self.document.clock()
        zone = datetime.fromisoformat(batch.mixed).tzinfo
        return now if (now.tzinfo is None) == (zone is None) else now.replace(tzinfo=zone)

    def _on_tied(self, batch: str, step: str) -> None:
        self.apply(say.JOINT_EDIT, edits.tie_joint.of(batch, step))

    def _is_too_young(self, batch: str, broke: str) -> bool:
        """Whether the glue is not through yet: that is said once, then it is written down as too early."""
        shelf = self.document.build.glue
        found = next((one for one in shelf.batches if one.id == batch), None) if shelf else None
        if found is None:
            return False
        end = through(found, self._bottle(found))
        if self._now_for(found) >= end or self._asked == (batch, broke):
            return False
        self._asked = (batch, broke)
        self.tell(say.too_young(end))
        return True

    def _on_broken(self, batch: str, broke: str, prepared: Preparation | None = None) -> None:
        if self._is_too_young(batch, broke):
            return
        now = self.document.clock()
        kinds = {key: key for key, _ in say.BROKE}
        broken = edits.break_coupon.of(batch, kinds[broke], now, prepared=prepared)  # type: ignore[index]
        self.apply(say.COUPON_EDIT, broken)


def _emptied(layout: QLayout) -> None:
    while (item := layout.takeAt(0)) is not None:
        widget = item.widget()
        if widget is not None:
            widget.deleteLater()
