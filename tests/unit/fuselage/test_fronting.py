"""A nose block in layers from the cowl's ring to the firewall, and a canopy that lands on its formers."""

from itertools import pairwise

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.airframe.orders.frame import frame_steps
from hardkeel.fuselage.contours import area_of
from hardkeel.fuselage.fronting import canopy_line, nose_layers, unlanded
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Framing, Fuselage, Member, SectionShape
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.messages.findings import finding_sentence, finding_title
from hardkeel.picture.frame_in_space import in_space
from hardkeel.project.model import Build


def fuselage(*members: Member) -> Fuselage:
    rows = (
        (0.0, 40.0, -45.0, 45.0),
        (100.0, 50.0, -55.0, 55.0),
        (250.0, 48.0, -50.0, 60.0),
        (400.0, 20.0, -10.0, 40.0),
    )
    formers = tuple(
        Former(id=f"F{i}", station=x, half_width=half, bottom=low, top=high, thickness=3.0,
               section=SectionShape(top=2.4, bottom=2.0))
        for i, (x, half, low, high) in enumerate(rows, start=1)
    )  # fmt: skip
    return Fuselage(formers=formers, framing=Framing(members=members))


def block(**more: object) -> Member:
    made = {"id": "nose", "kind": "nose-block", "from": "F1", "station": -50.0, "thickness": 12.0,
            "width": 60.0, "height": 64.0, "z": 2.0}  # fmt: skip
    return Member.model_validate(made | more)


@given(st.floats(-120, -3), st.floats(3, 30), st.floats(20, 110), st.floats(0, 12))
def test_layers_fill_the_room_and_hold_the_block(
    front: float, thick: float, width: float, wall: float
) -> None:
    member = block(station=front, thickness=thick, width=width, inset=wall)
    layers = nose_layers(fuselage(member), member)
    assert layers[0].front == pytest.approx(front)
    assert layers[-1].rear == pytest.approx(0.0)
    assert all(one.rear - one.front <= thick + 0.5 + 1e-9 for one in layers)
    for one, other in pairwise(layers):
        assert one.rear == pytest.approx(other.front)
    # the middle of each layer lies within its wood, but for the hole
    former = fuselage(member).formers[0]
    whole = shapely.Polygon(
        [(width / 2 * np.cos(t), 2.0 + 32.0 * np.sin(t)) for t in np.linspace(0, 2 * np.pi, 721)]
    )
    assert layers[0].front_face.symmetric_difference(whole).area < 0.01 * whole.area
    outer = (
        shapely.Polygon(layers[-1].wood.exterior)
        if layers[-1].wood.geom_type == "Polygon"
        else None
    )
    if outer is not None and width < 2 * former.half_width:
        assert outer.area >= area_of(former) * 0.999


def test_a_ring_between_firewall_and_cowl_is_cut_hollow_and_stands_in_a_step() -> None:
    build = Build(fuselage=fuselage(block(inset=8.0, station=-20.0)))
    assert build.fuselage is not None
    pieces = [one for one in pieces_of(build.fuselage) if one.kind == "nose-block"]
    assert [one.name for one in pieces] == ["nose 1", "nose 2"]
    assert all(len(one.holes) == 1 for one in pieces)
    assert sum(one.thickness for one in pieces) == pytest.approx(20.0)
    steps = {one.id for one in frame_steps(build)}
    assert any("nose" in one for one in steps)
    in_front = [one for one in in_space(build).faces if one.ref == "nose"]
    assert min(float(one.rings[0][:, 0].min()) for one in in_front) == pytest.approx(-20.0)


def canopy(**more: object) -> Member:
    made = {"id": "canopy", "kind": "canopy", "from": "F2", "to": "F3", "height": 30.0}
    return Member.model_validate(made | more)


def test_a_canopys_line_rises_from_the_deck_and_comes_back_to_it() -> None:
    member = canopy(station=150.0)
    build = fuselage(member)
    line = canopy_line(build, member)
    assert line is not None
    deck = loft_of(build).top
    assert float(line.value(100.0)) == pytest.approx(float(deck.value(100.0)))
    assert float(line.value(150.0)) == pytest.approx(float(deck.value(150.0)) + 30.0)
    assert float(line.value(250.0)) == pytest.approx(float(deck.value(250.0)))
    assert unlanded(build, member) == ()
    assert canopy_line(build, canopy(station=900.0)) is None


def test_an_edge_that_lands_on_no_former_is_told_with_the_nearest() -> None:
    member = canopy(short=30.0)
    build = fuselage(member)
    (edge,) = unlanded(build, member)
    assert (edge[0], edge[1], edge[2]) == ("rear", 220.0, "F3")
    assert edge[3] == pytest.approx(28.5)
    (found,) = [one for one in findings_of(build) if one.kind == "unlanded"]
    assert found.former == "F3"
    assert "rear edge" in finding_title(found)
    assert "add one there" in finding_sentence(found, "mm", 3.0)
