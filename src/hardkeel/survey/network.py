"""A survey made ready for solving: its unknowns, its placed marks, what is known beforehand."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from hardkeel.base.values import Point
from hardkeel.geometry.rotation import Array
from hardkeel.survey.columns import AIRFRAME, Columns, Priors, SharedPart, lay_out
from hardkeel.survey.model import FUSELAGE, Survey, contacts_of
from hardkeel.survey.observing import Observer
from hardkeel.survey.placing import Placer
from hardkeel.survey.readings import Reading
from hardkeel.survey.sharing import bend_of, points_of, shared_parts


@dataclass(frozen=True)
class GluingPrior:
    """What is known beforehand, in place of the weak priors: x ~ N(mean, weight⁻¹).

    Attributes
    ----------
    mean, weight : Array
        Shape (n,) and (n, n).
    """

    mean: Array
    weight: Array


@dataclass(frozen=True, slots=True)
class Network:
    """A survey made ready for solving: bodies, unknowns, placed marks.

    Attributes
    ----------
    index : dict of str to int
        Row of each mark among the placed points.
    seats : dict of str to Placer
        By body, its seat's contacts: near the root, so placed with the body but not twisted.
    parts : tuple of SharedPart
        What readings share.
    lean : Lean, optional
        What an earlier phase left, where this one leans on it.
    """

    survey: Survey
    columns: Columns
    placer: Placer
    index: dict[str, int]
    seats: dict[str, Placer]
    parts: tuple[SharedPart, ...] = ()
    gluing_prior: GluingPrior | None = None

    @property
    def prior_mean(self) -> Array:
        """Shape (n,)."""
        return (
            self.gluing_prior.mean if self.gluing_prior is not None else np.zeros(self.columns.size)
        )

    @property
    def prior_matrix(self) -> Array:
        """Shape (n, n)."""
        return (
            self.gluing_prior.weight
            if self.gluing_prior is not None
            else np.diag(self.columns.prior_weight)
        )

    def observer(self, readings: Sequence[Reading]) -> Observer:
        """Predictor of these readings."""
        return Observer(self.survey, readings, self.columns, self.index)

    def placer_of(self, points: Sequence[tuple[str, Point]]) -> Placer:
        """Placer of other points than the marks (contacts, outlines)."""
        return Placer(self.columns, self.survey.bodies, points)


def network_of(survey: Survey, like: Network | None = None, priors: Priors = AIRFRAME) -> Network:
    """Prepare a survey whose references are sound.

    Parameters
    ----------
    like : Network, optional
        Of another survey; where bodies and marks are the same, what was made ready for it serves.
    """
    parts = shared_parts(survey)
    if (
        like is not None
        and like.survey.bodies == survey.bodies
        and like.survey.marks == survey.marks
        and like.parts == parts
    ):
        return replace(like, survey=survey, gluing_prior=None)
    columns = lay_out(
        (body for body in survey.bodies if body.id != FUSELAGE), priors, parts, bend_of(survey)
    )
    points, names = points_of(survey), [mark.id for mark in survey.marks]
    placer = Placer(columns, survey.bodies, points, names)
    index = {mark.id: i for i, mark in enumerate(survey.marks)}
    seats = {
        body.id: Placer(
            columns, [body.but(twist=False)], [(body.id, c.at) for c in contacts_of(body)]
        )
        for body in survey.bodies
        if body.id in columns.start and contacts_of(body)
    }
    return Network(survey, columns, placer, index, seats, parts)
