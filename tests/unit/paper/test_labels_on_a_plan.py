"""Coded labels laid on a plan: found to a tenth of a pixel, and the photograph is to scale by itself."""

import numpy as np
import pytest

from hardkeel.edits import paper as edits
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.model import KnownLength, Plan, SheetLabel
from hardkeel.project.model import Build
from hardkeel.sight.codes import bits_of, codes_in
from tests.labelled import TALL, WIDE, Lying, corners_of, photograph, seen

FOUR = (
    Lying(90, (-190.0, 130.0), 4.0),
    Lying(91, (185.0, 138.0), -12.0),
    Lying(92, (195.0, -125.0), 31.0),
    Lying(93, (-180.0, -130.0), 97.0),
)
SIX = (*FOUR, Lying(94, (5.0, 120.0), 2.0), Lying(95, (-10.0, -20.0), -40.0))


def plan_with(labels: tuple[Lying, ...]) -> Plan:
    found = codes_in(photograph(labels))
    assert [one.code for one in found] == [label.code for label in labels]
    noted = tuple(SheetLabel(code=one.code, corners=one.corners, size=25.0) for one in found)
    return Plan(id="p", image="plans/p.jpg", photo=True, size=(WIDE, TALL), labels=noted)


def test_corners_are_found_to_a_tenth_of_a_pixel() -> None:
    found = codes_in(photograph(SIX))
    off = [
        np.hypot(*(np.array(one.corners) - seen(corners_of(label))).T)
        for one, label in zip(found, SIX, strict=True)
    ]
    assert float(np.sqrt(np.mean(np.square(off)))) < 0.1
    assert float(np.max(off)) < 0.25


@pytest.mark.parametrize("labels", [FOUR, SIX])
def test_a_photograph_is_to_scale_by_its_labels_alone(labels: tuple[Lying, ...]) -> None:
    """Lengths all over the sheet to a third of a millimetre, nobody typed one; with one along the datum line all places."""
    plan = plan_with(labels)
    fit = calibrate(plan)
    assert fit.kind == "perspective"
    rng = np.random.default_rng(6)
    a, b = (rng.uniform((-190, -130), (190, 130), size=(40, 2)) for _ in range(2))
    got = np.hypot(*(fit.to_plan(seen(a)) - fit.to_plan(seen(b))).T)
    want = np.hypot(*(a - b).T)
    assert np.abs(got - want).max() < 0.3
    ends = seen(np.array([(-150.0, 0.0), (150.0, 0.0)])).tolist()
    along = KnownLength(a=tuple(ends[0]), b=tuple(ends[1]), length=300.0, along="x")
    turned = calibrate(plan.but(lengths=(along,)))
    off = turned.to_plan(seen(a)) - turned.to_plan(seen(b)) - (a - b)
    told = turned.sigma_between(seen(a), seen(b), clicked=0.0)
    assert told.max() < 0.35
    assert (np.abs(off) < 3 * told).all()
    assert np.abs(off).max() < 0.2
    assert fit.worst is not None
    assert fit.worst.what.startswith("label")


def test_labels_make_a_photograph_of_a_plan() -> None:
    plan = Plan(id="p", image="plans/p.jpg", size=(WIDE, TALL))
    label = SheetLabel(
        code=90, corners=((0.0, 0.0), (250.0, 0.0), (250.0, 250.0), (0.0, 250.0)), size=25.0
    )
    from_desk = edits.put_labels(edits.add_plan(Build(), plan), "p", (label,))
    assert from_desk.plans[0].photo
    assert calibrate(from_desk.plans[0].but(photo=False)).scale_x == pytest.approx(0.1)


def test_there_are_a_hundred_codes() -> None:
    assert bits_of(99).shape == (6, 6)
    assert bits_of(3)[0].all()  # the black rim
    with pytest.raises(ValueError, match="no code 100"):
        bits_of(100)
