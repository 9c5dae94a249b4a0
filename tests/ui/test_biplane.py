"""A biplane rigged from the bare fuselage to the fin by somebody who only reads what the page says."""

import re
from dataclasses import replace

import numpy as np
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.demo.biplane import TRUTH, teasel
from hardkeel.messages.names import contact_name
from hardkeel.practice.hidden import Hidden, hidden_from
from hardkeel.survey.model import Body, contacts_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.page import TruePage
from tests.draws import draws
from tests.stages_of import true_of

_HAND_MM = 0.1
_MOST_READINGS = 220


class Builder:
    """Holds a crooked biplane, reads what the card asks for, does what the seat card says."""

    def __init__(self, qtbot: QtBot, page: TruePage, window: MainWindow) -> None:
        self.qtbot, self.page, self.window = qtbot, page, window
        self.rng = np.random.default_rng(5)
        survey = window.document.build.surveyed
        self.model: Hidden = hidden_from(survey, TRUTH)
        self.bodies = {body.id: body for body in survey.bodies}
        self.taken = self.corrected = 0
        self.tries: list[str] = []

    def read(self) -> None:
        """Take the reading that the card asks for."""
        target = self.page.entry.target
        assert target is not None
        assert self.page.next._title.text()  # noqa: SLF001  what is read
        self.page.next.field.line.setText(f"{self.model.measure(target, self.rng):.2f}")
        self.qtbot.keyClick(self.page.next.field.line, Qt.Key.Key_Return)
        self.taken += 1
        assert self.taken < _MOST_READINGS

    def correct(self, body: Body) -> None:
        """Do at the seat what its card says, with hands that are not exact; then press what it says."""
        survey = self.window.document.build.surveyed
        names = {contact_name(survey, body.id, c.id): i for i, c in enumerate(contacts_of(body))}
        said = self.page.seat._do.text()  # noqa: SLF001  what the card says
        up: dict[int, float] = {}
        longer: dict[int, float] = {}
        slid: dict[int, tuple[float, float]] = {}
        for sentence in said.splitlines():
            amount = re.search(r"(\d+\.\d+) mm", sentence)
            at = [i for name, i in names.items() if re.search(rf"\b{name}\b", sentence)]
            if sentence.startswith("Take the twist out"):
                self._set(body.id, twist_port=0.0, twist_starboard=0.0)
                continue
            if sentence.startswith("What is left"):
                continue
            assert amount is not None, sentence
            assert at, sentence
            mm = float(amount[1])
            for i in at:
                slip = float(self.rng.normal(0, _HAND_MM))
                if sentence.startswith("Put"):
                    up[i] = mm + slip
                elif sentence.startswith("Sand"):
                    up[i] = slip - mm
                elif sentence.startswith("Make the"):
                    longer[i] = (mm if "longer" in sentence else -mm) + slip
                else:
                    assert sentence.startswith("Slide"), sentence
                    slid[i] = _slides(sentence)
        if up or longer:
            self._lift(body, up, longer)
        if slid:
            self._slide(body, slid)
        self.corrected += 1
        self.qtbot.mouseClick(self.page.seat._done, Qt.MouseButton.LeftButton)  # noqa: SLF001

    # -- the model in the hands ------------------------------------------------------------------

    def _places(self, body: Body) -> np.ndarray:
        return np.array(self.model.net.seats[body.id].place(self.model.unknowns).airframe)

    def _lift(self, body: Body, up: dict[int, float], longer: dict[int, float]) -> None:
        """The body turns and rises until its contacts are where they were lifted to, or its struts are so long."""
        contacts = contacts_of(body)
        feet = np.array([c.foot or c.at for c in contacts])
        start = self._places(body)
        lengths = np.linalg.norm(start - feet, axis=1)

        def off() -> np.ndarray:
            now = self._places(body)
            if longer:
                wanted = lengths + np.array([longer.get(i, 0.0) for i in range(len(contacts))])
                return np.asarray(np.linalg.norm(now - feet, axis=1) - wanted)
            wanted = start[:, 2] + np.array([up.get(i, 0.0) for i in range(len(contacts))])
            return np.asarray(now[:, 2] - wanted)

        self._settle(body, ("dz", "roll", "pitch"), off)

    def _slide(self, body: Body, slid: dict[int, tuple[float, float]]) -> None:
        start = self._places(body)[:, :2]

        def off() -> np.ndarray:
            now = self._places(body)[:, :2]
            return np.asarray(
                np.concatenate([now[i] - start[i] - np.array(move) for i, move in slid.items()])
            )

        self._settle(body, ("dx", "dy", "yaw"), off)

    def _settle(self, body: Body, names: tuple[str, ...], off: object) -> None:
        """Gauss–Newton over these unknowns of the model, by differences."""
        found = [self.model.net.columns.column(body.id, name) for name in names]
        columns = [column for column in found if column is not None]
        for _ in range(6):
            now = off()  # type: ignore[operator]
            slopes = []
            kept = self.model
            for column in columns:
                moved = kept.unknowns.copy()
                moved[column] += 1e-4
                self.model = replace(kept, unknowns=moved)
                slopes.append((off() - now) / 1e-4)  # type: ignore[operator]
            unknowns = kept.unknowns.copy()
            unknowns[columns] -= np.linalg.lstsq(np.array(slopes).T, now, rcond=1e-6)[0]
            self.model = replace(kept, unknowns=unknowns)

    def _set(self, body: str, **values: float) -> None:
        unknowns = self.model.unknowns.copy()
        for name, value in values.items():
            unknowns[self.model.net.columns.column(body, name)] = value
        self.model = replace(self.model, unknowns=unknowns)


def _slides(sentence: str) -> tuple[float, float]:
    along = re.search(r"(\d+\.\d+) mm (aft|forward)", sentence)
    across = re.search(r"(\d+\.\d+) mm to (port|starboard)", sentence)
    x = float(along[1]) * (1 if along[2] == "aft" else -1) if along else 0.0
    y = float(across[1]) * (1 if across[2] == "starboard" else -1) if across else 0.0
    return x, y


def test_the_biplane_is_rigged_stage_by_stage(qtbot: QtBot, window: MainWindow) -> None:
    page = true_of(window)
    window.start(teasel())
    stages = ["fuselage", "wing", "upper_wing", "stab", "fin"]
    assert list(page.rig.stages) == stages
    last = draws("wing", "fin")
    builder = Builder(qtbot, page, window)
    qtbot.mouseClick(page.rig.stages["fuselage"], Qt.MouseButton.LeftButton)
    done: list[str] = []
    for _ in range(_MOST_READINGS + 40):
        step = page.entry.step
        assert step is not None
        if page.next.field.isVisible():
            builder.read()
        elif step.kind == "correct":
            assert step.body is not None
            assert page.seat.isVisible()
            builder.correct(builder.bodies[step.body])
        else:
            assert step.kind in ("on", "lock")
            assert step.body is not None
            # at the edge one may correct or accept; this builder corrects, twice at most
            at_edge = step.why.startswith("At the edge")
            if at_edge and builder.tries.count(step.body) < 2 and page.seat._done.isVisible():  # noqa: SLF001
                builder.tries.append(step.body)
                builder.correct(builder.bodies[step.body])
                continue
            done.append(step.body)
            qtbot.mouseClick(page.next._action, Qt.MouseButton.LeftButton)  # noqa: SLF001
            if step.body == last:
                break
    stages = stages[: stages.index(last) + 1]
    assert done == stages
    assert window.document.build.surveyed.locked == tuple(stages[1:])
    assert builder.corrected >= draws(1, 3)
    if last != "fin":
        return
    # and it is true, by the model itself; what the page called "at the edge" may lie a little beyond
    judgement = window.document.judgement
    for rule, check in zip(judgement.rules, judgement.checks, strict=True):
        off = abs(float(rule.slope @ builder.model.unknowns) + rule.design - rule.target)
        assert check.verdict != "out", rule.id
        assert off < (1.1 if check.verdict == "true" else 1.6) * rule.tolerance, (rule.id, off)
    locked = page.rig.stages["upper_wing"].accessibleName()
    assert "glued" in locked
