"""Pieces that were checked on a mat: what the ledger keeps of them, and two hands held against each other."""

import math
from dataclasses import replace
from datetime import datetime

import numpy as np

from hardkeel.airframe.cut_pieces import cut_pieces
from hardkeel.joinery.flat import FlatPiece
from hardkeel.parts.model import OTHER_HAND, CheckedPiece
from hardkeel.project.model import Build
from hardkeel.sight.edges import edges_of
from hardkeel.sight.part_check import Check, worst_of


def key_of(piece: FlatPiece, check: Check) -> str:
    """By what the ledger keeps it: the other hand of a pair by itself."""
    return piece.name + (OTHER_HAND if piece.pair and check.mirrored else "")


def kept_of(check: Check, now: datetime) -> CheckedPiece:
    """What the ledger keeps."""
    worst, _ = worst_of(check)
    return CheckedPiece(
        read_at=now.isoformat(timespec="minutes"),
        fits=check.fits,
        mirrored=check.mirrored,
        rms=round(check.rms, 3) if math.isfinite(check.rms) else 0.0,
        sigma=round(check.sigma, 3),
        worst=round(worst, 2) if math.isfinite(worst) else 0.0,
        by=tuple(round(one, 2) if math.isfinite(one) else None for one in check.by.tolist()),
    )


def check_from(piece: FlatPiece, kept: CheckedPiece) -> Check | None:
    """What was kept, as it was found; ``None`` where the piece was drawn anew since."""
    edges = edges_of([np.array(ring) for ring in (piece.outline, *piece.holes)])
    if len(edges.at) != len(kept.by):
        return None
    by = np.array([math.nan if one is None else one for one in kept.by])
    return Check(
        kept.fits, kept.mirrored, frozenset(), edges.at, by, edges.ring, edges.normal, kept.sigma
    )


def checked_pieces(build: Build) -> tuple[tuple[str, FlatPiece, CheckedPiece], ...]:
    """All that are kept and still drawn: by what they are kept, the piece, what was found."""
    kept = build.listed.checked
    return tuple(
        (key, piece, kept[key])
        for piece in cut_pieces(build)
        for key in (piece.name, piece.name + OTHER_HAND)
        if key in kept
    )


def hands_apart(build: Build, piece: FlatPiece) -> Check | None:
    """Both hands of a pair held against each other: how much more wood the other hand has, place by place."""
    kept = build.listed.checked
    one, other = kept.get(piece.name), kept.get(piece.name + OTHER_HAND)
    if one is None or other is None:
        return None
    a, b = check_from(piece, one), check_from(piece, other)
    if a is None or b is None or not (a.fits and b.fits):
        return None
    sigma = math.hypot(a.sigma, b.sigma)
    return replace(a, by=b.by - a.by, sigma=sigma)
