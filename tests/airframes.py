"""Airframes for tests: fixed ones, and random ones with known truth."""

from typing import Any

import numpy as np

from hardkeel.base.values import Point
from hardkeel.geometry.rotation import Array
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Body, Contact, Mark, Seat, Shop, Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import sigma_of


def plain_survey(*, twist: bool = True) -> Survey:
    """A wing, stabilizer and fin with marks at all corners, and no readings."""
    wing = surface("wing", (260.0, 0.0, 55.0), (1250.0, 200.0), twist=twist, incidence=2.0)
    stab = surface("stab", (900.0, 0.0, 30.0), (430.0, 120.0), twist=twist)
    fin = Body(id="fin", pivot=(920.0, 0.0, 30.0), span=150.0, chord=110.0)
    fin_marks = tuple(
        Mark(id=name, body="fin", at=at)
        for name, at in (
            ("fin_top_le", (890.0, 0.0, 180.0)),
            ("fin_top_te", (960.0, 0.0, 180.0)),
            ("fin_foot_le", (865.0, 0.0, 30.0)),
            ("fin_foot_te", (975.0, 0.0, 30.0)),
        )
    )
    fuselage = tuple(
        Mark(id=name, body="fuselage", at=at)
        for name, at in (
            ("nose_pin", (0.0, 0.0, 40.0)),
            ("tail_pin", (700.0, 0.0, 40.0)),
            ("nose_foot", (0.0, 0.0, -30.0)),
            ("longeron_port", (200.0, -35.0, 50.0)),
            ("longeron_starboard", (200.0, 35.0, 50.0)),
        )
    )
    return Survey(
        bodies=(Body(id="fuselage"), wing[0], stab[0], fin),
        marks=(*fuselage, *wing[1], *stab[1], *fin_marks),
    )


def surface(
    name: str, pivot: Point, size: tuple[float, float], **more: Any
) -> tuple[Body, tuple[Mark, ...]]:
    """A rectangular surface with four seat contacts and marks at its corners and middle."""
    (x, _, z), (span, chord) = pivot, size
    corners = {
        f"{edge}_{side}": (x + aft * chord / 2, sign * span / 2, z)
        for edge, aft in (("le", -1), ("te", 1))
        for side, sign in (("port", -1), ("starboard", 1))
    }
    marks = tuple(Mark(id=f"{name}_tip_{key}", body=name, at=at) for key, at in corners.items())
    middle = (Mark(id=f"{name}_mid_le", body=name, at=(x - chord / 2, 0.0, z)),)
    contacts = tuple(
        Contact(id=key, at=(at[0], at[1] / abs(at[1]) * 25.0, z)) for key, at in corners.items()
    )
    body = Body(id=name, pivot=pivot, span=span, chord=chord, seat=Seat(contacts=contacts), **more)
    return body, marks + middle


def random_truth(net: Network, rng: np.random.Generator, scale: float = 0.2) -> Array:
    """Unknowns drawn from the priors, made `scale` times smaller."""
    truth: Array = rng.normal(size=net.columns.size) / np.sqrt(net.columns.prior_weight) * scale
    truth[net.columns.bench + 2] = 60.0
    return truth


def readings_of(
    survey: Survey, truth: Array, rng: np.random.Generator, count: int, noise: float = 1.0
) -> Survey:
    """The survey with `count` random readings of the truth, each with its own sigma of noise."""
    net = network_of(survey)
    pool = candidates_of(survey)
    chosen = [pool[i] for i in rng.choice(len(pool), size=min(count, len(pool)), replace=False)]
    values, _ = net.observer(chosen).predict(truth, net.placer.place(truth))
    readings: Any = tuple(
        reading.but(id=f"r{i}", value=float(value + rng.normal() * sigma_of(reading) * noise))
        for i, (reading, value) in enumerate(zip(chosen, values, strict=True))
    )
    return Survey(bodies=survey.bodies, marks=survey.marks, readings=readings)


def exactly_wrong(name: str, amount: float, step: float = 0.01) -> Judgement:
    """Judge a stabilizer that is known to stand wrong by one unknown, mm or degrees."""
    return exactly({f"stab.{name}": amount}, step)


def exactly(wrong: dict[str, float], step: float = 0.01) -> Judgement:
    """Judge an airframe known exactly: true but for these unknowns (``wing.roll``), mm or degrees."""
    survey = plain_survey(twist=False).but(shop=Shop(shim_step=step, sand_step=step))
    net = network_of(survey)
    truth = np.zeros(net.columns.size)
    for unknown, amount in wrong.items():
        body, _, name = unknown.partition(".")
        column = net.columns.column(body, name)
        assert column is not None
        truth[column] = amount
    exact = readings_of(survey, truth, np.random.default_rng(1), 400, noise=0.0).readings
    return judge_survey(survey.but(readings=tuple(r.but(sigma=0.001) for r in exact)))
