"""Fuselages that frame's tests share: a plain box, and random ones with every kind of member."""

from itertools import pairwise
from typing import get_args

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.edits.framing import add_member
from hardkeel.fuselage.model import (
    METHODS,
    Board,
    Bracing,
    CutOut,
    Former,
    Framing,
    Fuselage,
    Longeron,
    Member,
    MemberKind,
    Section,
    TailPost,
)
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.project.model import Build

SIDE, SKIN = 3.0, 1.5


def box(*members: Member, half_width: float = 30.0, method: str = "sheet-sides") -> Fuselage:
    """A straight box of 400 mm: everything in it is known by hand."""
    formers = tuple(
        Former(
            id=f"F{i + 1}",
            station=100.0 * i,
            half_width=half_width,
            bottom=-40.0,
            top=50.0,
            thickness=4.0,
            material="light-ply",
        )
        for i in range(5)
    )
    return Fuselage(
        side_thickness=SIDE,
        side_material="balsa-medium",
        bottom_skin=SKIN,
        top_skin=SKIN,
        formers=formers,
        sections=(Section.model_validate({"from": "F1", "to": "F5", "method": method}),),
        framing=Framing(members=members),
    )


def member(kind: str, name: str = "m", **figures: object) -> Member:
    """A member with what it needs."""
    return Member.model_validate({"id": name, "kind": kind, **figures})


def random_frame(rng: np.random.Generator) -> Fuselage | None:
    """A fuselage as wild as a file may hold; ``None`` where it does not hang together."""
    count = int(rng.integers(1, 8))
    station, formers = float(rng.uniform(-50, 50)), []
    for i in range(count):
        bottom = float(rng.uniform(-60, 20))
        formers.append(
            Former(
                id=f"F{i + 1}",
                station=station,
                bottom=bottom,
                top=bottom + float(rng.uniform(2, 120)),
                half_width=float(rng.uniform(0, 60)),
                corner=float(rng.choice([0.0, rng.uniform(0, 40)])),
                thickness=float(rng.uniform(1, 8)) if rng.random() < 0.7 else None,
                lightened=bool(rng.random() < 0.3),
                split=bool(rng.random() < 0.2),
                sticks=(5.0, 3.0) if rng.random() < 0.2 else None,
                cutouts=tuple(
                    CutOut(
                        id=f"c{k}",
                        kind=str(rng.choice(["battery", "tank", "hatch", "hole"])),  # type: ignore[arg-type]
                        width=float(rng.uniform(1, 90)),
                        height=float(rng.uniform(1, 90)),
                        y=float(rng.uniform(-20, 20)),
                        z=float(rng.uniform(-40, 40)),
                    )
                    for k in range(int(rng.integers(0, 3)))
                ),
            )
        )
        station += float(rng.uniform(0.5, 4) if rng.random() < 0.3 else rng.uniform(20, 200))
    post = None
    if rng.random() < 0.8 or count == 1:
        post = TailPost(
            station=station,
            bottom=0.0,
            top=float(rng.uniform(5, 40)),
            half_width=float(rng.uniform(0, 8)),
        )
    names = [former.id for former in formers] + (["tail_post"] if post is not None else [])
    sections = tuple(
        Section.model_validate({"from": a, "to": b, "method": str(rng.choice(METHODS))})
        for a, b in pairwise(names)
    )
    fuselage = Fuselage(
        side_thickness=float(rng.choice([0.0, 1.5, 3.0, 10.0])),
        bottom_skin=float(rng.choice([0.0, 1.5])),
        top_skin=float(rng.choice([0.0, 2.0])),
        side_material="balsa-medium",
        formers=tuple(formers),
        tail_post=post,
        sections=sections,
        longerons=tuple(
            Longeron(
                id=name,
                section=(float(rng.uniform(1, 8)), float(rng.uniform(1, 8))),
                material="spruce",
            )
            for name in ("upper", "lower")
        )
        if rng.random() < 0.7
        else (),
        bracing=Bracing(upright=(4.0, 4.0), diagonal=(4.0, 4.0), pattern="crossed")
        if rng.random() < 0.7
        else None,
        board=Board(z=-70.0) if rng.random() < 0.3 else None,
    )
    build = Build(fuselage=fuselage)
    try:
        check_fuselage(fuselage)
        for _ in range(int(rng.integers(0, 6))):
            a, b = sorted(rng.choice(len(names), 2, replace=False).tolist())
            kind = str(rng.choice(sorted(get_args(MemberKind))))
            build = add_member(build, kind, names[a], names[b])  # type: ignore[arg-type]
    except BadInput:
        return None
    return build.fuselage
