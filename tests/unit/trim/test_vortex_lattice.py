"""The neutral point against a vortex lattice that knows none of the formulas: how far off, airframe by airframe."""

from typing import Any

import pytest

from hardkeel.airframe.flights import build_trim
from hardkeel.balance.balancing import mean_chord_of
from hardkeel.balance.model import Balance, Wing
from hardkeel.messages.air import validity_notes
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface
from tests.vortex_lattice import Sheet, derivatives

Json = dict[str, Any]
WING: Json = {"id": "wing", "le_x": 300.0, "z": 40.0, "span": 1400.0, "root_chord": 210.0, "tip_chord": 170.0, "sweep_le": 20.0}  # fmt: skip
TAIL: Json = {"id": "stab", "le_x": 1000.0, "z": 0.0, "span": 460.0, "root_chord": 130.0, "tip_chord": 100.0, "sweep_le": 15.0}  # fmt: skip
BOX: Json = {"span": 1100.0, "tip_chord": 210.0, "sweep_le": 0.0}
# ours less the lattice's, in % of the mean chord, as measured; the lattice's tail lifts by the same 0.9
FLEET: dict[str, tuple[list[Json], Json, float]] = {
    "low": ([WING], TAIL, -1.5),
    "tee": ([WING], {**TAIL, "le_x": 1020.0, "z": 170.0}, -3.4),
    "vee": ([WING], {**TAIL, "id": "vee", "dihedral": 35.0, "span": 620.0}, -4.4),
    "biplane": (
        [{**WING, **BOX}, {**WING, **BOX, "id": "upper", "z": 240.0, "le_x": 260.0}],
        TAIL,
        -4.1,
    ),
    "glider": (
        [{**WING, "span": 2600.0, "root_chord": 200.0, "tip_chord": 120.0, "sweep_le": 30.0}],
        {**TAIL, "le_x": 1150.0, "z": 180.0, "span": 520.0, "root_chord": 110.0, "tip_chord": 80.0},
        1.1,
    ),
    "short": (
        [{**WING, "span": 900.0, "root_chord": 260.0, "tip_chord": 200.0}],
        {**TAIL, "le_x": 820.0, "span": 380.0},
        -0.7,
    ),
}
CANARDS: dict[str, tuple[Json, Json]] = {
    "usual": ({**WING, "le_x": 700.0}, {**TAIL, "id": "canard", "le_x": 0.0}),
    "close": ({**WING, "le_x": 450.0}, {**TAIL, "id": "canard", "le_x": 0.0, "z": 90.0}),
    "small": (
        {**WING, "le_x": 800.0, "sweep_le": 150.0},
        {**TAIL, "id": "canard", "le_x": 0.0, "span": 320.0, "root_chord": 90.0, "tip_chord": 80.0},
    ),
    "large": ({**WING, "le_x": 800.0}, {**TAIL, "id": "canard", "le_x": 0.0, "span": 800.0}),
}


def both(wings: list[Json], tail: Json) -> tuple[Build, float]:
    """The build, and the lattice's neutral point in % of the mean chord."""
    build = Build(
        wings=tuple(Wing.model_validate(one) for one in wings),
        tail=(TailSurface.model_validate(tail),),
        balance=Balance(target_percent=20.0),
    )
    sheets = [
        Sheet(
            one["le_x"],
            one["z"],
            one["span"],
            one["root_chord"],
            one["tip_chord"],
            one["sweep_le"],
            one.get("dihedral", 0.0),
        )
        for one in (*wings, tail)
    ]
    _, _, shares = derivatives(sheets)
    eta = [1.0] * len(wings) + [1.0 if tail["id"] == "canard" else 0.9]
    lift = sum(e * s[0] for e, s in zip(eta, shares, strict=True))
    moment = sum(e * s[1] for e, s in zip(eta, shares, strict=True))
    chord = mean_chord_of(build.wings)
    assert chord is not None
    return build, 100 * (-moment / lift - chord.le_x) / chord.length


def test_the_lattice_gives_a_plain_wing_its_textbook_figures() -> None:
    """Lifting-line figures of a rectangle of aspect ratio 10: some 4.9 per radian, its centre at a quarter."""
    lift, moment, _ = derivatives([Sheet(0.0, 0.0, 1000.0, 100.0, 100.0)])
    assert lift / 1e5 == pytest.approx(4.93, abs=0.1)
    assert -moment / lift == pytest.approx(24.5, abs=0.5)


@pytest.mark.parametrize("name", FLEET)
def test_how_far_the_neutral_point_lies_from_the_lattices(name: str) -> None:
    wings, tail, off = FLEET[name]
    build, lattice = both(wings, tail)
    trim = build_trim(build)
    assert trim.neutral_point is not None
    assert 100 * trim.neutral_point - lattice == pytest.approx(off, abs=0.3)
    assert (abs(off) > 3.5) == bool(validity_notes(trim))


@pytest.mark.parametrize("name", CANARDS)
def test_a_foreplanes_wake_takes_between_nothing_and_the_limit(name: str) -> None:
    wing, tail = CANARDS[name]
    build, lattice = both([wing], tail)
    trim = build_trim(build)
    assert trim.neutral_point is not None
    assert trim.wake_takes > 0
    low, high = 100 * (trim.neutral_point - trim.wake_takes), 100 * trim.neutral_point
    assert low - 1.0 <= lattice <= high + 1.0
    assert trim.least_margin is not None
    assert trim.margin is not None
    assert trim.least_margin == pytest.approx(trim.margin - trim.wake_takes)
