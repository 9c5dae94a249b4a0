"""A crooked airframe with printed targets, photographed four times, with the truth beside."""

import math
from dataclasses import dataclass

import numpy as np

from hardkeel.demo.kettlewick import demo_build
from hardkeel.fuselage.hull import hull_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.practice.hidden import Hidden, hidden_by_chance
from hardkeel.practice.photographing import labels_on, outlines_of, picture_of
from hardkeel.sight.codes import CodeSeen
from hardkeel.sight.pictures import Pixels
from hardkeel.sight.targets import Taken
from hardkeel.sight.viewpoints import camera_at, hidden_marks
from hardkeel.survey.cameras import Camera
from hardkeel.survey.model import FUSELAGE, Mark, Survey, Target
from hardkeel.survey.network import network_of
from hardkeel.survey.priors import Shared

SIZE = (4000, 3000)
FOCAL, TOLD, K1 = 0.83, 0.8125, -0.03  # of the longer side: as it is, and as it is told
PLACED = (0.3, 0.1)
# from 40 to 45 degrees up, all round: (round, up), degrees
AROUND = ((60.0, 42.0), (-60.0, 42.0), (120.0, 44.0), (-120.0, 44.0))


@dataclass(frozen=True)
class Bench:
    """What stands before the camera: the survey that the builder has, and the airframe as it is."""

    survey: Survey
    hidden: Hidden
    fuselage: Fuselage


def bench(seed: int, side: float = 20.0) -> Bench:
    """The demo with 32 targets, crooked, each label beside its mark by as much as a hand lays it."""
    build = demo_build()
    survey = _with_targets(build.surveyed.but(readings=(), photos=(), gluing=None, locked=()))
    survey = survey.but(target_size=side)
    hidden = hidden_by_chance(survey, f"crooked {seed}")
    unknowns = hidden.unknowns.copy()
    net = network_of(survey)
    rng = np.random.default_rng(1000 + seed)
    for (what, _), at in net.columns.shared.items():
        if what == "mark":
            unknowns[at : at + 3] = rng.normal(size=3) * (PLACED[0], PLACED[0], PLACED[1])
    assert build.fuselage is not None
    return Bench(survey, Hidden(net, unknowns), build.fuselage)


def cameras(made: Bench, rng: np.random.Generator, size: tuple[int, int] = SIZE) -> list[Camera]:
    points = made.hidden.net.placer.place(made.hidden.unknowns).airframe
    found = []
    for round_, up in AROUND:
        a, b = (math.radians(one + float(rng.normal(0, 3))) for one in (round_, up))
        way = (math.cos(a) * math.cos(b), math.sin(a) * math.cos(b), math.sin(b))
        found.append(camera_at(points, way, size, FOCAL * size[0], K1))
    return found


def seen(made: Bench, seed: int, noise: float = 0.06) -> list[Taken]:
    """What four photographs show, reckoned: each target that nothing hides, its corners off by a little."""
    rng = np.random.default_rng(seed)
    labels, points = (
        labels_on(made.hidden),
        made.hidden.net.placer.place(made.hidden.unknowns).airframe,
    )
    at = {mark.id: points[made.hidden.net.index[mark.id]] for mark in made.survey.marks}
    outlines = outlines_of(made.hidden)
    found = []
    for number, camera in enumerate(cameras(made, rng), start=1):
        gone = hidden_marks(made.survey, at | outlines, camera, hull_of(made.fuselage))
        codes = []
        for mark, label in labels.items():
            if mark in gone or (camera.place - label.at) @ label.normal <= 0:
                continue
            half = label.size / 2
            ring = [(-half, half), (half, half), (half, -half), (-half, -half)]
            corners = np.array([label.at + u * label.right + v * label.up for u, v in ring])
            spots = camera.project(corners, SIZE) + rng.normal(size=2) * noise
            if min(math.dist(spots[i], spots[i - 1]) for i in range(4)) > 14:
                codes.append(CodeSeen(label.code, tuple(map(tuple, spots.tolist()))))  # type: ignore[arg-type]
        name = f"p{number}.jpg"
        found.append(Taken(name, f"photos/{name}", SIZE, TOLD * SIZE[0], tuple(codes)))
    return found


def pictures(made: Bench, seed: int, size: tuple[int, int] = SIZE) -> list[Pixels]:
    """Four photographs, drawn."""
    rng = np.random.default_rng(seed)
    return [
        picture_of(made.hidden, made.fuselage, camera, rng, size)
        for camera in cameras(made, rng, size)
    ]


def _with_targets(survey: Survey) -> Survey:
    """Leading and trailing edges at tips and roots, the fin's both faces, the deck, the sides."""
    marks: list[Mark] = []
    targets: list[Target] = []

    def add(
        name: str, body: str, at: tuple[float, float, float], normal: tuple[float, float, float]
    ) -> None:
        marks.append(Mark(id=f"target_{name}", body=body, at=at))
        targets.append(Target(code=len(targets), mark=f"target_{name}", normal=normal))

    up, port, starboard = (0.0, 0.0, 1.0), (0.0, -1.0, 0.0), (0.0, 1.0, 0.0)
    for body, root, tip, half, inner in (
        ("wing", (192.0, 380.0, 52.0), (204.0, 370.0, 78.0), 600.0, 70.0),
        ("stab", (810.0, 912.0, 27.0), (820.0, 908.0, 27.0), 205.0, 55.0),
    ):
        for hand, sign in (("port", -1.0), ("starboard", 1.0)):
            for place, (le, te, z), y in (("root", root, inner), ("tip", tip, half)):
                add(f"{body}_{place}_le_{hand}", body, (le + 10, sign * y, z), up)
                add(f"{body}_{place}_te_{hand}", body, (te - 10, sign * y, z), up)
    for hand, normal, y in (("port", port, -1.5), ("starboard", starboard, 1.5)):
        add(f"fin_top_front_{hand}", "fin", (862.0, y, 140.0), normal)
        add(f"fin_top_rear_{hand}", "fin", (905.0, y, 140.0), normal)
        add(f"fin_low_{hand}", "fin", (850.0, y, 62.0), normal)
    for x, y, z in (
        (100.0, 0.0, 42.0),
        (440.0, -12.0, 42.0),
        (560.0, 10.0, 40.0),
        (690.0, 0.0, 36.0),
    ):
        add(f"deck_{x:.0f}", FUSELAGE, (x, y, z), up)
    for x in (60.0, 430.0, 600.0):
        for normal, sign in ((port, -1.0), (starboard, 1.0)):
            add(
                f"side_{x:.0f}_{sign:.0f}",
                FUSELAGE,
                (x, sign * (29.0 - max(0.0, (x - 300) * 0.03)), 5.0),
                normal,
            )
    shared = Shared(target=PLACED)
    return survey.but(
        marks=(*survey.marks, *marks), targets=tuple(targets), target_size=20.0, shared=shared
    )
