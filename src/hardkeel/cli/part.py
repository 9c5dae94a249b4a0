"""``hardkeel part``: a cut piece on its mat, held against its drawing."""

import argparse
import math
from pathlib import Path
from typing import Any, Final

from hardkeel.airframe.cut_pieces import piece_named
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.cli.options import as_text, unit_of
from hardkeel.edits.outlines import give_taken
from hardkeel.export.outline_file import SUFFIXES, outline_file
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.sight.part_check import Check, worst_of
from hardkeel.sight.part_faults import faults_of
from hardkeel.sight.part_photo import mat_from, read_part
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.given import bytes_of
from hardkeel.storage.package import Loaded, save

Json = dict[str, Any]
_BAR_MM: Final = 100.0


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Where it is proud or short; or the outline of what has no drawing."""
    if (parsed.piece is None) == (parsed.outline is None):
        raise BadInput(
            "piece", "say which piece lies there, or with --outline that it has no drawing"
        )
    if parsed.thickness <= 0:
        raise BadInput("thickness", f"{parsed.thickness:g} mm is no thickness of wood")
    mat = mat_from(bytes_of(parsed.mat), parsed.mat.name)
    if parsed.bars is not None:
        mat = mat.measured(*(bar / _BAR_MM for bar in parsed.bars))
    photo = read_part(bytes_of(parsed.photo), parsed.photo.name, mat)
    if parsed.outline is not None:
        return _outline(loaded, photo.outline(parsed.thickness), parsed)
    piece = piece_named(loaded.build, parsed.piece)
    check = photo.check(piece)
    if parsed.json:
        return as_text(part_json(piece, check))
    unit = unit_of(parsed)
    faults = faults_of(check, piece)
    lines = [say.verdict(piece, check, faults, unit)]
    if check.fits:
        lines += [f"  {say.fault_words(one, unit)}" for one in faults[1:]]
    lines += say.how_lines(check, photo.on.tilt, unit)
    return "\n".join(lines) + "\n"


def _outline(
    loaded: Loaded, rings: tuple[tuple[Point2, ...], ...], parsed: argparse.Namespace
) -> str:
    """Take an outline for what it is meant for, and say its size."""
    name = parsed.outline
    path = Path(name)
    kept = parsed.save
    if path.suffix.lower() in SUFFIXES:
        if kept is not None:
            raise BadInput("save", f"{path.name} is a template: it changes nothing of the build")
        write_atomically(path, outline_file(rings, path))
        kept = path
    else:
        made = give_taken(loaded.build, name, rings[0])
        if parsed.save is not None:
            save(made, parsed.save, attached=loaded.attached(), others=loaded.others)
    if parsed.json:
        return as_text({"outline": rings[0], "holes": rings[1:]})
    where = say.NOT_KEPT if kept is None else say.outline_written(str(kept))
    return f"{say.taken_words(rings, unit_of(parsed))} {where}\n"


def part_json(piece: FlatPiece, check: Check) -> Json:
    """The contract's figures."""
    by, at = worst_of(check)
    return {
        "piece": piece.name,
        "fits": check.fits,
        "mirrored": check.mirrored,
        "rms": check.rms if math.isfinite(check.rms) else None,
        "worst": {"by": by, "at": list(at)} if math.isfinite(by) else None,
        "deviation": [
            {"at": place, "by": off}
            for place, off in zip(check.at.tolist(), check.smooth.tolist(), strict=True)
            if math.isfinite(off)
        ],
        "sigma": check.sigma,
    }
