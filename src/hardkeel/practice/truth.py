"""How an exercise's airframe really stands and what its tools are like: sealed in the file until the end."""

import base64
import binascii
import zlib
from typing import Final, Self

import numpy as np
from pydantic import Field

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.base.values import Finite, Text, Value
from hardkeel.practice.hidden import Hidden
from hardkeel.survey.columns import BENCH
from hardkeel.survey.model import Survey
from hardkeel.survey.network import network_of

_MOST_BYTES: Final = 1 << 20


class SharedTruth(Value):
    """One thing that several readings share: ``gauge`` of its instrument, ``mark`` of its id; mm or degrees."""

    what: Text
    owner: str
    value: tuple[Finite, ...]


class Truth(Value):
    """What is hidden.

    Attributes
    ----------
    story : str
        Its id (`practice.stories`).
    bodies : mapping of str to mapping of str to float
        Each body's unknowns as ``true --json`` names them, mm and degrees; what is missing is 0.
    bench : mapping of str to float
        Pitch and roll, degrees, and z, mm.
    slips : mapping of int to float
        The how-manyth reading is misread by how many of its sigmas.
    caught : mapping of str to float
        By pin, mm that every line swung from it shows too much: it catches on something on its way.
    """

    story: Text
    bodies: dict[str, dict[str, Finite]]
    bench: dict[str, Finite]
    shared: tuple[SharedTruth, ...] = ()
    slips: dict[int, Finite] = Field(default_factory=dict)
    caught: dict[str, Finite] = Field(default_factory=dict)

    def hidden(self, survey: Survey) -> Hidden:
        """The airframe that instruments are held on.

        Raises
        ------
        BadInput
            When it speaks of a body or a mark that the survey does not have.
        """
        net = network_of(survey)
        unknowns = np.zeros(net.columns.size)
        for body, names in self.bodies.items():
            for name, amount in names.items():
                column = net.columns.column(body, name)
                if column is None:
                    raise BadInput(
                        "practice.sealed", f'speaks of "{body}", which the model does not have'
                    )
                unknowns[column] = amount
        for name, amount in self.bench.items():
            unknowns[net.columns.bench + BENCH.index(name)] = amount
        for one in self.shared:
            at = net.columns.shared.get((one.what, one.owner))
            if at is None:
                raise BadInput(
                    "practice.sealed", f'speaks of "{one.owner}", which the model does not have'
                )
            unknowns[at : at + len(one.value)] = one.value
        return Hidden(net, unknowns)

    def sealed(self) -> str:
        """As the file has it: readable by who looks, but not at a glance."""
        return base64.b64encode(zlib.compress(self.model_dump_json().encode(), 9)).decode("ascii")

    @classmethod
    def unsealed(cls, text: str) -> Self:
        """From a file.

        Raises
        ------
        BadInput
            When it is none.
        """
        try:
            packed = zlib.decompressobj()
            data = packed.decompress(base64.b64decode(text, validate=True), _MOST_BYTES)
        except (binascii.Error, ValueError, zlib.error):
            raise BadInput(
                "practice.sealed", "is not what an exercise's truth is sealed in"
            ) from None
        try:
            with faults_told():
                return cls.model_validate_json(data)
        except BadInput as fault:
            raise BadInput("practice.sealed", fault.sentence) from None
