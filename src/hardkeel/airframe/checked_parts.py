"""Pieces that were checked on a mat: what the ledger keeps of them, and two hands held against each other."""

import hashlib
import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime

import numpy as np

from hardkeel.airframe.cut_pieces import cut_pieces
from hardkeel.joinery.flat import FlatPiece
from hardkeel.parts.model import OTHER_HAND, CheckedPiece
from hardkeel.project.model import Build
from hardkeel.sight.edges import edges_of
from hardkeel.sight.part_check import Check
from hardkeel.sight.part_faults import Fault, faults_of


@dataclass(frozen=True)
class Checked:
    """A piece as it was found on the mat, by what the ledger keeps.

    Attributes
    ----------
    key : str
        By what it is kept: the other hand of a pair by itself.
    check : Check, optional
        ``None`` where the piece was drawn anew since.
    faults : tuple of Fault
        Where it is off, the worst first.
    """

    key: str
    piece: FlatPiece
    kept: CheckedPiece
    check: Check | None
    faults: tuple[Fault, ...]


def key_of(piece: FlatPiece, check: Check) -> str:
    """By what the ledger keeps it: the other hand of a pair by itself."""
    return piece.name + (OTHER_HAND if piece.pair and check.mirrored else "")


def kept_of(piece: FlatPiece, check: Check, tilt: float | None, now: datetime) -> CheckedPiece:
    """What the ledger keeps of a check that was seen so many degrees aside, or scanned."""
    return CheckedPiece(
        read_at=now.isoformat(timespec="minutes"),
        drawn=_mark_of(piece),
        mirrored=check.mirrored,
        doubts=tuple(sorted(check.doubts)),  # type: ignore[arg-type]
        tilt=round(tilt, 1) if tilt is not None else None,
        sigma=round(check.sigma, 3),
        by=tuple(round(one, 2) if math.isfinite(one) else None for one in check.by.tolist()),
    )


def checked(build: Build, piece: FlatPiece, key: str) -> Checked | None:
    """What is kept of a piece under a key; ``None`` where nothing is."""
    kept = build.listed.checked.get(key)
    if kept is None:
        return None
    check = _check_from(piece, kept)
    return Checked(key, piece, kept, check, faults_of(check, piece) if check is not None else ())


def all_checked(build: Build) -> Iterator[Checked]:
    """Everything that is kept of pieces that are still drawn."""
    for piece in cut_pieces(build):
        for key in (piece.name, piece.name + OTHER_HAND):
            found = checked(build, piece, key)
            if found is not None:
                yield found


def hands_apart(build: Build, piece: FlatPiece) -> tuple[Fault, ...] | None:
    """Both hands of a pair held against each other: where the other one has more wood; ``None`` until both are known."""
    one, other = (checked(build, piece, piece.name + end) for end in ("", OTHER_HAND))
    if one is None or other is None or one.check is None or other.check is None:
        return None
    a, b = one.check, other.check
    if not (a.fits and b.fits):
        return None
    apart = replace(a, by=b.by - a.by, sigma=math.hypot(a.sigma, b.sigma))
    return faults_of(apart, piece)


def _mark_of(piece: FlatPiece) -> str:
    """Of its drawing, to a hundredth of a millimetre."""
    text = repr([[(round(u, 2), round(v, 2)) for u, v in r] for r in (piece.outline, *piece.holes)])
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def _check_from(piece: FlatPiece, kept: CheckedPiece) -> Check | None:
    """What was kept, as it was found; ``None`` where the piece was drawn anew since."""
    edges = edges_of([np.array(ring) for ring in (piece.outline, *piece.holes)])
    if kept.drawn != _mark_of(piece) or len(edges.at) != len(kept.by):
        return None
    by = np.array([math.nan if one is None else one for one in kept.by])
    doubts = frozenset[str](kept.doubts)
    return Check(kept.mirrored, doubts, edges.at, by, edges.ring, edges.normal, kept.sigma)
