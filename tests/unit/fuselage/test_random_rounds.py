"""Fuselages by chance, of every shape: all wood inside the skin, girths that add up, blanks a skin inside the loft."""

import numpy as np
import pytest
import shapely

from hardkeel.fuselage.contours import contour_of, girth_of
from hardkeel.fuselage.cutting import carve, shape_of
from hardkeel.fuselage.flatwork import flatwork_of
from hardkeel.fuselage.inside import blank_of, inside_skins
from hardkeel.fuselage.loft import former_at
from hardkeel.fuselage.model import (
    Former,
    Framing,
    Fuselage,
    Longeron,
    Member,
    Planking,
    Section,
    SectionShape,
    TailPost,
)
from hardkeel.fuselage.notching import around_of
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.surface import surface_of
from hardkeel.fuselage.wrapping import wrap_of
from tests.draws import draws

SHAPES = ("superellipse", "flat-sides", "corner", "drawn")
COUNT = draws(12, 300)


def shaped(
    rng: np.random.Generator, shape: str, half: float, low: float, high: float
) -> dict[str, object]:
    tall = high - low
    match shape:
        case "superellipse":
            widest = low + rng.uniform(0.35, 0.65) * tall
            n, m = rng.uniform(1.4, 5.0, 2)
            return {"section": SectionShape(widest=widest, top=n, bottom=m)}
        case "flat-sides":
            deck, belly = rng.uniform(0.1, 0.45) * tall, rng.uniform(0.0, 0.4) * tall
            return {"section": SectionShape(kind="flat-sides", deck=deck, belly=belly)}
        case "corner":
            return {"corner": float(rng.uniform(1.0, 0.9 * min(half, tall / 2)))}
    # an egg of its own, drawn with chords
    turn = np.linspace(0, 2 * np.pi, int(rng.integers(40, 160)), endpoint=False)
    y = half * np.cos(turn) * (1 - 0.2 * np.sin(turn))
    z = (low + high) / 2 + tall / 2 * np.sin(turn)
    return {"outline": tuple(zip(y.tolist(), z.tolist(), strict=True))}


def by_chance(seed: int, shape: str, *, planked: bool) -> Fuselage:
    rng = np.random.default_rng([seed, SHAPES.index(shape)])
    count = int(rng.integers(4, 10))
    x = np.cumsum(rng.uniform(50, 140, count))
    along = np.linspace(0, 1, count)
    half = rng.uniform(30, 70) * (0.45 + 0.55 * np.sin(np.pi * (0.15 + 0.75 * along)))
    tall = rng.uniform(70, 150) * (0.45 + 0.55 * np.sin(np.pi * (0.15 + 0.75 * along)))
    middle = rng.uniform(-8, 8) + 18 * along
    skin = float(rng.uniform(1.0, 3.0))
    formers = []
    for i in range(count):
        low, high = middle[i] - tall[i] / 2, middle[i] + tall[i] / 2
        formers.append(
            Former(
                id=f"F{i + 1}", station=float(x[i]), half_width=float(half[i]), bottom=float(low),
                top=float(high), thickness=float(rng.uniform(2, 5)),
            ).but(**shaped(rng, shape, float(half[i]), float(low), float(high)))
        )  # fmt: skip
    ends = {"from": "F1", "to": f"F{count}"}
    members = [
        Member.model_validate({"id": "crutch", "kind": "crutch", "width": 8.0, "thickness": 5.0,
                               "z": float(np.max(middle - tall / 4)), **ends}),
        Member.model_validate({"id": "keel", "kind": "keel", "height": 8.0, "thickness": 3.0, **ends}),
        Member.model_validate({"id": "tray", "kind": "servo-tray", "from": "F2", "to": "F3",
                               "thickness": 2.0, "z": float(middle[1])}),
    ]  # fmt: skip
    members += [
        Member.model_validate({"id": f"s{a}", "kind": "stringer", "section": (3.0, 3.0), "angle": float(a),
                               "by_girth": True, **ends})
        for a in (30, 70, 110)
    ]  # fmt: skip
    planking = Planking.model_validate({"width": 8.0, "thickness": skin, "keel_width": 6.0, **ends})
    skins: dict[str, object] = (
        {} if planked else {"side_thickness": skin, "top_skin": skin, "bottom_skin": skin}
    )
    return Fuselage(
        formers=tuple(formers),
        tail_post=TailPost(station=float(x[-1] + 60), half_width=4, bottom=float(middle[-1] - 12), top=float(middle[-1] + 12)),
        longerons=(Longeron(id="upper", section=(4, 4)), Longeron(id="lower", section=(4, 4))),
        sections=(Section.model_validate({"from": "F1", "to": "tail_post", "method": "board"}),),
        framing=Framing(members=tuple(members), planking=planking if planked else None),
    ).but(**skins)  # fmt: skip


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("seed", range(COUNT))
def test_every_piece_lies_inside_the_skin(shape: str, seed: int) -> None:
    planked = seed % 2 == 0
    fuselage = by_chance(seed, shape, planked=planked)
    skin = (
        fuselage.framed.planking.thickness if fuselage.framed.planking else fuselage.side_thickness
    )
    for former in fuselage.formers:
        contour = shapely.Polygon(contour_of(former))
        inside = contour.buffer(-skin, quad_segs=32)  # a second way: the polygon moved in
        wood = shapely.union_all(
            [shapely.Polygon(rings[0], rings[1:]) for rings in shape_of(fuselage, former).pieces]
        )
        assert wood.difference(inside.buffer(0.02)).area < 0.05
        # a skin around the blank is the loft, at two hundred points
        rim = shapely.Polygon(blank_of(fuselage, former)).exterior
        for share in np.linspace(0, 1, 200, endpoint=False):
            point = rim.interpolate(share, normalized=True)
            assert contour.exterior.distance(point) == pytest.approx(skin, abs=0.02)
        for passage in carve(former, around_of(fuselage, former)).passages:
            if passage.stick is not None:
                assert inside_skins(fuselage, former).buffer(0.03).contains(passage.stick)
    surface = surface_of(fuselage)
    pieces = {one.part: one for one in flatwork_of(fuselage)}
    last = fuselage.formers[-1].station
    for x in np.linspace(fuselage.formers[0].station + 5, last - 5, 7):
        half = surface.half(np.array([x]))[0]
        inside = (
            shapely.Polygon([*half, *(half[::-1] * (-1.0, 1.0))])
            .buffer(0)
            .buffer(-skin, quad_segs=32)
        )
        for name, thick in (("crutch", 5.0), ("tray", 2.0)):
            piece = pieces.get(name)
            if piece is None:
                continue
            member = next(one for one in fuselage.framed.members if one.id == name)
            cut = shapely.Polygon(piece.outline).intersection(
                shapely.LineString([(x, -500), (x, 500)])
            )
            if cut.is_empty:
                continue
            _, left, _, right = cut.bounds
            there = shapely.box(left, member.z - thick / 2, right, member.z + thick / 2)
            assert there.difference(inside.buffer(0.06)).area < 0.05


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("seed", range(COUNT))
def test_planks_and_panels_add_up_to_the_girth(shape: str, seed: int) -> None:
    fuselage = by_chance(seed, shape, planked=True)
    planked = planks_of(fuselage)
    for former in fuselage.formers:
        for side in ("port", "starboard"):
            wide = sum(
                dict(one.widths).get(former.id, 0.0) for one in planked.planks if one.side == side
            )
            assert wide == pytest.approx(girth_of(former) / 2 - 3.0, rel=1e-3)
    wrap = wrap_of(fuselage)
    if wrap is not None:
        x = np.array([one.station for one in fuselage.formers])
        at = wrap.at(x)
        total = 2 * (at.belly + at.beneath + at.above + at.deck)
        assert total == pytest.approx([girth_of(one) for one in fuselage.formers], rel=1e-3)


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("seed", range(draws(4, 60)))
def test_a_former_that_is_put_in_between_is_lofted_like_its_neighbours(
    shape: str, seed: int
) -> None:
    fuselage = by_chance(seed, shape, planked=False)
    a, b = fuselage.formers[1], fuselage.formers[2]
    made = former_at(fuselage, (a.station + b.station) / 2, "new")
    areas = [shapely.Polygon(contour_of(one)).area for one in (a, made, b)]
    lofted = float(surface_of(fuselage).area(np.array([made.station]))[0])
    # a neighbour's shape drawn by chance is far from another's, and the lines stay the loft's own
    assert areas[1] == pytest.approx(lofted, rel=0.1)
    like = [
        one.but(section=a.section, corner=a.corner, outline=a.outline) for one in fuselage.formers
    ]
    if a.section is None or a.section.widest is None:
        even = fuselage.but(formers=tuple(like))
        made = former_at(even, made.station, "new")
        lofted = float(surface_of(even).area(np.array([made.station]))[0])
        found = shapely.Polygon(contour_of(made)).area
        assert found == pytest.approx(lofted, rel=0.02)
