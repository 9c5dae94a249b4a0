"""A judgement as the plain data that the contract's JSON wants: unrounded, nothing left out."""

import math

import numpy as np

from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.columns import BENCH, BEND
from hardkeel.survey.correcting import Correction, JointWay, Way
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import Photo
from hardkeel.survey.outliers import Fit, SightFit
from hardkeel.survey.ranking import NextReading
from hardkeel.survey.readings import Incidence, Offset, Tilt, marks_of
from hardkeel.survey.sighting import Adjusted, photo_view

Json = dict[str, object]
_MOST_ODDS = 60.0  # of a natural logarithm: as sure as a number tells


def as_json(judgement: Judgement) -> Json:
    """The output of ``hardkeel true --json``; what is infinite is given as null."""
    columns, solution = judgement.net.columns, judgement.solution
    sigma = np.sqrt(np.maximum(np.diag(solution.covariance), 0.0))

    def named(names: tuple[str, ...], start: int) -> Json:
        values: Json = {name: float(solution.unknowns[start + i]) for i, name in enumerate(names)}
        values["sigma"] = {name: float(sigma[start + i]) for i, name in enumerate(names)}
        return values

    told: Json = {
        "phase": judgement.phase,
        "bodies": {body: named(columns.names[body], at) for body, at in columns.start.items()},
        "bench": named(BENCH, columns.bench),
        "checks": [
            _check(check)
            | {"charged_to": list(judgement.charged[check.id])}
            | _limited(judgement, rule, check)
            for rule, check in zip(judgement.rules, judgement.checks, strict=True)
        ],
        "culprit": judgement.culprit or None,
        "suspects": [
            {"reading": s.reading, "w": s.w, "set_aside": True, "or": list(s.alike)}
            for s in judgement.outliers
        ],
        "doubts": [
            {"bad": list(one.bad), "odds": one.odds, "checks": list(one.checks)}
            for one in judgement.alternatives
        ],
        "readings": _readings(judgement),
        "fit": {
            "chi2": judgement.goodness.chi2,
            "rows": judgement.goodness.rows,
            "p": judgement.goodness.p,
        },
        "next": [_next(one) for one in judgement.next],
        "corrections": {c.body: _moves(c) for c in judgement.corrections},
        "ways": {
            c.body: {"only_shims": _way(c.only_shims), "only_sanding": _way(c.only_sanding)}
            | ({"fitted": _way(c.fitted)} if c.fitted is not None else {})
            for c in judgement.corrections
        },
    }
    if judgement.net.survey.photos:
        told["photos"] = [photo_json(judgement, photo) for photo in judgement.net.survey.photos]
    if judgement.net.survey.shared is not None:
        told["shared"] = _shared(judgement)
    if judgement.why:
        told["why"] = judgement.why
    if judgement.together is not None:
        told["together"] = {
            "only_shims": _joint(judgement.together.only_shims),
            "only_sanding": _joint(judgement.together.only_sanding),
        }
    if judgement.movement:
        told["movement"] = {
            body: {one.name: one.value for one in moved}
            | {"sigma": {one.name: one.sigma for one in moved}}
            for body, moved in judgement.movement.items()
        }
    if judgement.locks:
        told["locks"] = [
            {
                "body": one.body,
                "since": one.since,
                "moved": one.moved,
                "rivals": list(one.rivals),
                "read": list(one.read),
                "odds": math.exp(min(one.log_odds, _MOST_ODDS)),
            }
            for one in judgement.locks
        ]
    return told


def _limited(judgement: Judgement, rule: CheckRule, check: Check) -> Json:
    """What readings share that keeps an open check from being known better."""
    limit = judgement.limit_of(rule) if check.verdict == "unsure" else None
    return {"limited_by": {"what": limit[0], "of": limit[1]}} if limit is not None else {}


def _shared(judgement: Judgement) -> Json:
    """By what is shared and whose; a bend is the fuselage's alone, a mark has three shifts."""
    told: dict[str, Json] = {}
    for one in judgement.shared:
        if one.what == "mark":
            told.setdefault("marks", {})[one.owner] = {
                "value": list(one.value),
                "sigma": list(one.sigma),
            }
            continue
        found: Json = {"value": one.value[0], "sigma": one.sigma[0]}
        if one.what in BEND:
            told[one.what] = found
        else:
            told.setdefault(one.what, {})[one.owner] = found
    return dict(told)


def _readings(judgement: Judgement) -> list[Json]:
    """In the survey's order, figures and sightings as they stand there."""
    fits = {fit.id: _fit(fit) for fit in judgement.fits} | {
        fit.id: sight_fit_json(fit) for fit in judgement.sight_fits
    }
    return [
        fits[reading.id] | ({"simulated": True} if reading.simulated else {})
        for reading in judgement.net.survey.readings
        if reading.id in fits
    ]


def sight_fit_json(fit: SightFit) -> Json:
    """How a sighting sits."""
    noticed = fit.noticed_from
    return {
        "id": fit.id,
        "residual": fit.residual,
        "off": list(fit.off) if fit.off is not None else None,
        "redundancy": fit.redundancy,
        "w": fit.w,
        "noticed_from": noticed if noticed is not None and math.isfinite(noticed) else None,
        "used": fit.used,
    }


def photo_json(judgement: Adjusted, photo: Photo) -> Json:
    """Where a photo was taken from, and by what lens."""
    view = photo_view(judgement, photo.id)
    if view is None:
        return {
            "id": photo.id,
            "used": False,
            "place": None,
            "rotation": None,
            "focal": None,
            "k1": None,
            "rms": None,
            "sigma": None,
        }
    return {
        "id": photo.id,
        "used": True,
        "place": view.camera.place.tolist(),
        "rotation": view.camera.rotation.tolist(),
        "focal": view.camera.focal,
        "k1": view.camera.k1,
        "rms": view.rms,
        "sigma": {
            "place": list(view.place_sigma),
            "focal": view.focal_sigma,
            "k1": view.k1_sigma,
        },
    }


def _check(check: Check) -> Json:
    return {
        "id": check.id,
        "value": check.value,
        "sigma": check.sigma,
        "target": check.target,
        "tolerance": check.tolerance,
        "verdict": check.verdict,
        "unit": check.unit,
        "spread": check.spread,
    } | ({"edge": True} if check.edge else {})


def _fit(fit: Fit) -> Json:
    return {
        "id": fit.id,
        "residual": fit.residual,
        "redundancy": fit.redundancy,
        "w": fit.w,
        "noticed_from": fit.noticed_from if math.isfinite(fit.noticed_from) else None,
        "used": fit.used,
    }


def _next(one: NextReading) -> Json:
    reading = one.reading
    told: Json = {
        "kind": reading.kind,
        "marks": list(marks_of(reading)),
        "helps": one.helps,
        "sigma_now": one.sigma_now,
        "sigma_after": one.sigma_after,
        "expected": reading.value,
        "instrument": reading.instrument,
    }
    if isinstance(reading, Incidence):
        told |= {
            "body": reading.body,
            "side": reading.side,
            "span_fraction": reading.span_fraction,
            "zero": reading.zero,
        }
    if isinstance(reading, Incidence | Tilt) and reading.turned:
        told["turned"] = True
    if isinstance(reading, Offset) and reading.along is not None:
        told["marks"], told["along"] = [reading.mark], list(reading.along)
    return told


def _moves(correction: Correction) -> list[Json]:
    return [
        {
            "contact": m.contact,
            "lift": m.lift,
            "slide_x": m.slide_x,
            "slide_y": m.slide_y,
            "sigma": {"lift": m.lift_sigma, "slide_x": m.slide_x_sigma, "slide_y": m.slide_y_sigma},
        }
        | ({"strut": {"now": m.strut[0], "wanted": m.strut[1]}} if m.strut is not None else {})
        for m in correction.moves
    ]


def _way(way: Way) -> Json:
    return {
        "moves": [{"contact": contact, "mm": mm} for contact, mm in way.moves],
        "checks": [_check(check) for check in way.checks],
    }


def _joint(way: JointWay) -> Json:
    return {
        "moves": [{"body": body, "contact": contact, "mm": mm} for body, contact, mm in way.moves],
        "checks": [_check(check) for check in way.checks],
    }
