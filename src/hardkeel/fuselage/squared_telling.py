"""A squared frame as the plain data that the contract's JSON wants: unrounded, nothing left out."""

import math

from hardkeel.fuselage.curing import JudgedFrame, judge_frame
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.squaring import UNKNOWNS, Squared
from hardkeel.survey.readings import Phase
from hardkeel.survey.telling import photo_json, sight_fit_json

Json = dict[str, object]


def squaring_json(fuselage: Fuselage, phase: Phase | None = None) -> Json:
    """The ``squaring`` of ``hardkeel frame --json``.

    Raises
    ------
    BadInput
        When the frame has no board, a reading points at nothing, or the figures can't be adjusted.
    """
    return judged_json(judge_frame(fuselage, phase))


def judged_json(judged: JudgedFrame) -> Json:
    """The same of a frame that was judged."""
    squared, shape, named, cure = judged.squared, judged.shape, judged.named, judged.cure
    photos = squared.net.survey.photos
    seen = [photo_json(squared, photo) for photo in photos]
    return ({"photos": seen} if photos else {}) | {
        "formers": [_former(squared, name) for name in squared.formers],
        "readings": [
            {
                "id": fit.id,
                "residual": fit.residual,
                "redundancy": fit.redundancy,
                "w": fit.w,
                "noticed_from": fit.noticed_from if math.isfinite(fit.noticed_from) else None,
                "used": fit.used,
            }
            for fit in squared.fits
        ]
        + [sight_fit_json(fit) for fit in squared.sight_fits],
        "suspects": [
            {"reading": one.reading, "w": one.w, "set_aside": True, "or": list(one.alike)}
            for one in squared.outliers
        ],
        "checks": [
            {
                "id": check.id,
                "value": check.value,
                "sigma": check.sigma,
                "target": check.target,
                "tolerance": check.tolerance,
                "verdict": check.verdict,
                "unit": check.unit,
            }
            | ({"edge": True} if check.edge else {})
            for check in squared.checks
        ],
        "shape": {
            "twist": shape.twist,
            "bow": shape.bow,
            "yaw": shape.yaw,
            "lean": shape.lean,
            "sigma": dict(shape.sigma),
        },
        "named": named.name,
        "former": named.former,
        "probable": dict(named.probable),
        "cure": {
            "name": cure.name,
            "formers": [{"former": former} | given for former, given in cure.formers],
        }
        if cure is not None
        else None,
        "moves": [
            {"former": one.former, "point": one.point, "dx": one.dx, "dy": one.dy, "dz": one.dz}
            for one in judged.moves
        ],
    }


def _former(squared: Squared, name: str) -> Json:
    found = {unknown: squared.unknown(name, unknown) for unknown in UNKNOWNS}
    told: Json = {"id": name}
    told |= {unknown: value for unknown, (value, _) in found.items()}
    told["sigma"] = {unknown: sigma for unknown, (_, sigma) in found.items()}
    return told
