"""Frames on their boards with a hidden fault, and readings as a builder takes them."""

from itertools import pairwise
from typing import Any

import numpy as np

from hardkeel.fuselage.model import Board, Former, Fuselage, Squaring
from hardkeel.fuselage.squaring import frame_survey
from hardkeel.survey.columns import Priors
from hardkeel.survey.network import network_of
from hardkeel.survey.readings import (
    AngleAt,
    Distance,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
    sigma_of,
)

FAULTS = ("true", "twisted", "bowed", "racked", "leaning", "lozenge", "askew", "one-former")


def frame_on_board(rng: np.random.Generator, count: int, *, inverted: bool = False) -> Fuselage:
    """Formers of a usual fuselage over a board."""
    x = np.cumsum([0.0, *rng.uniform(70, 160, count - 1)])
    formers = tuple(
        Former(
            id=f"F{i + 1}",
            station=round(float(a), 1),
            bottom=round(float(-40 + 0.02 * a + rng.normal(0, 1)), 1),
            top=round(float(45 - 0.01 * a + rng.normal(0, 1)), 1),
            half_width=round(float(38 - 0.02 * a + rng.normal(0, 1)), 1),
        )
        for i, a in enumerate(x)
    )
    return Fuselage(
        side_thickness=3.0,
        top_skin=1.5,
        bottom_skin=1.5,
        board=Board(z=70.0 if inverted else -70.0, inverted=inverted),
        formers=formers,
    )


def fault_of(rng: np.random.Generator, kind: str, x: np.ndarray, scale: float = 1.0) -> np.ndarray:
    """Unknowns of a frame with one fault beside what a careful hand leaves, shape (n, 7)."""
    n, t = len(x), (x - x[0]) / (x[-1] - x[0])
    u = np.zeros((n, 7))  # dx dy dz roll lean yaw rack
    u[:, :3] = rng.normal(0, 0.12, (n, 3))
    u[:, 3:] = rng.normal(0, 0.12, (n, 4))
    size = scale * float(rng.choice([-1, 1])) * float(rng.uniform(1.0, 2.5))
    if kind == "twisted":
        u[:, 3] += size * (2 * t - 1) + rng.normal(0, 0.3)
    elif kind == "bowed":
        u[:, 1] += size * 1.3 * 4 * t * (1 - t)
    elif kind == "racked":
        u[:, 5] += size
    elif kind == "leaning":
        u[:, 4] += size
    elif kind == "lozenge":
        u[:, 6] += size
    elif kind == "askew":
        which = int(rng.integers(3))
        if which == 0:
            u[:, 3] += size
        elif which == 1:
            u[:, 1] += size
        else:
            half = (x[-1] - x[0]) / 2
            u[:, 1] += size * (x - x.mean()) / half
            u[:, 5] += np.degrees(size / half)
    elif kind == "one-former":
        i = int(rng.integers(n))
        u[i, 1] += size * rng.normal(0, 1)
        u[i, 3:] += size * rng.normal(0, 1, 4)
    return u


def places(fuselage: Fuselage, rng: np.random.Generator, share: float = 1.0) -> list[Reading]:
    """What a builder takes: corners over the board, centre marks, diagonals, squares, leans."""
    common: dict[str, Any] = {"id": "?", "value": 0.0}
    found: list[Reading] = []
    names = [former.id for former in fuselage.formers]
    for name in names:
        found += [Height(**common, mark=f"{name}.{c}") for c in ("bp", "bs", "tp", "ts")]
        found += [Offset(**common, mark=f"{name}.{c}") for c in ("tc", "bc")]
        found += [
            Distance(**common, from_=f"{name}.bp", to=f"{name}.ts"),
            Distance(**common, from_=f"{name}.bs", to=f"{name}.tp"),
        ]
        found.append(Incidence(**common, body=name))
        found.append(Tilt(**common, from_=f"{name}.tp", to=f"{name}.ts"))
        found += [
            Gap(**common, from_=f"board.{name}", to=f"{name}.{c}", axis="x")
            for c in ("bp", "bs", "tp", "ts")
        ]
        found += [
            AngleAt(**common, at=f"{name}.bp", from_=f"{name}.bs", to=f"{name}.tp"),
            AngleAt(**common, at=f"{name}.bs", from_=f"{name}.bp", to=f"{name}.ts"),
        ]
    for a, b in pairwise(names):
        for level in "tb":
            found += [
                Distance(**common, from_=f"{a}.{level}p", to=f"{b}.{level}s"),
                Distance(**common, from_=f"{a}.{level}s", to=f"{b}.{level}p"),
            ]
    return [one for one in found if rng.random() < share]


def read(
    fuselage: Fuselage,
    truth: np.ndarray,
    taken: list[Reading],
    rng: np.random.Generator,
    blunders: float = 0.0,
) -> Fuselage:
    """The fuselage with these readings of a frame that stands like `truth`."""
    net = network_of(frame_survey(fuselage), None, Priors(shift=3.0, turn=2.0, bench=False))
    unknowns = np.zeros(net.columns.size)
    for i, former in enumerate(sorted(fuselage.formers, key=lambda f: f.station)):
        start = net.columns.start[former.id]
        unknowns[start : start + 7] = truth[i]
    values, _ = net.observer(taken).predict(unknowns, net.placer.place(unknowns))
    readings = []
    for number, (one, value) in enumerate(zip(taken, values, strict=True), start=1):
        noise = rng.normal() * sigma_of(one)
        if rng.random() < blunders:
            noise += float(rng.choice([-1, 1])) * rng.uniform(8, 20) * sigma_of(one)
        readings.append(one.but(id=f"q{number}", value=round(float(value + noise), 3)))
    return fuselage.but(squaring=Squaring(readings=tuple(readings)))
