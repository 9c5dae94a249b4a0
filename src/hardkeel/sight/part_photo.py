"""A picture of what lies on a mat, read once: then piece after piece can be held against it."""

from dataclasses import dataclass

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.base.values import Point2
from hardkeel.joinery.flat import FlatPiece
from hardkeel.sight.codes import codes_in, grey_of
from hardkeel.sight.mat import Mat
from hardkeel.sight.mat_pose import OnMat, lay_on
from hardkeel.sight.part_check import Check, check_part
from hardkeel.sight.part_outline import outline_from
from hardkeel.sight.pictures import read_colours
from hardkeel.sight.tint import Light, Looked, look


@dataclass(frozen=True)
class PartPhoto:
    """A picture laid on its mat."""

    name: str
    light: Light
    looked: Looked
    on: OnMat

    def check(self, piece: FlatPiece) -> Check:
        """Hold a piece against what lies there.

        Raises
        ------
        BadInput
            When nothing of its size does.
        """
        try:
            return check_part(piece, self.light, self.looked, self.on)
        except BadInput as fault:
            raise BadInput(self.name, fault.fault) from None

    def outline(self, thickness: float) -> tuple[tuple[Point2, ...], ...]:
        """The outline and holes of what lies there, of wood so thick, mm; it needs no drawing.

        Raises
        ------
        BadInput
            When nothing does.
        """
        try:
            return outline_from(self.light, self.looked, self.on, thickness)
        except BadInput as fault:
            raise BadInput(self.name, fault.fault) from None


def read_part(data: bytes, name: str, mat: Mat) -> PartPhoto:
    """A JPEG or PNG of a mat.

    Raises
    ------
    BadInput
        When it can't be read, or shows no mat, or not this one.
    """
    colours = read_colours(data, name)
    try:
        seen = codes_in(grey_of(colours.pixels))
        on = lay_on(mat, seen, colours.size, colours.focal)
        light = Light(colours.pixels)
        looked = look(light, mat, on)
    except BadInput as fault:
        raise BadInput(name, fault.fault) from None
    return PartPhoto(name, light, looked, on)


def mat_from(data: bytes, name: str) -> Mat:
    """The mat that `hardkeel mat` wrote beside its print.

    Raises
    ------
    BadInput
        Naming what is wrong in it.
    """
    try:
        with faults_told():
            mat = Mat.model_validate_json(data)
    except BadInput as fault:
        raise BadInput(name, fault.sentence) from None
    codes = [one.code for one in mat.codes]
    if len(set(codes)) < len(codes):
        raise BadInput(name, "codes: one is there twice")
    for number, one in enumerate(mat.codes):
        corners = np.array(one.corners)
        if abs(float(np.linalg.det(corners[[1, 3]] - corners[0]))) < 1.0:
            raise BadInput(name, f"codes.{number}.corners: enclose nothing")
    mat.inside  # noqa: B018  that something is free
    return mat
