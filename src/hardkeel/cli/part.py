"""``hardkeel part``: a cut piece on its mat, held against its drawing."""

import argparse
import math
from typing import Any, Final

from hardkeel.airframe.cut_pieces import piece_named
from hardkeel.cli.options import as_text, unit_of
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.sight.part_check import Check, worst_of
from hardkeel.sight.part_faults import faults_of
from hardkeel.sight.part_photo import mat_from, read_part
from hardkeel.storage.given import bytes_of
from hardkeel.storage.package import Loaded

Json = dict[str, Any]
_BAR_MM: Final = 100.0


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Where it is proud or short."""
    piece = piece_named(loaded.build, parsed.piece)
    mat = mat_from(bytes_of(parsed.mat), parsed.mat.name)
    if parsed.bars is not None:
        mat = mat.measured(*(bar / _BAR_MM for bar in parsed.bars))
    photo = read_part(bytes_of(parsed.photo), parsed.photo.name, mat)
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
