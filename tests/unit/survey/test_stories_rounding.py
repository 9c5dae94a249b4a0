"""Stories of bad readings where rounding has the last word."""

import numpy as np

from hardkeel.survey.likelihoods import Linear, stories_of


def test_a_reading_whose_cofactor_is_lost_in_rounding_is_in_no_story() -> None:
    # two sightings of two rows each, the second's block no cofactor: more covariance than variances
    q = np.zeros((5, 5))
    q[:2, :2] = 0.5 * np.eye(2)
    q[2:4, 2:4] = [[1e-9, 0.02], [0.02, 1e-9]]
    linear = Linear(
        a=np.zeros((5, 3)),
        e=np.array([6.0, 4.0, 3.0, 3.0, 0.0]),
        q=q,
        b=np.zeros((1, 5)),
        values=np.zeros(1),
        variances=np.ones(1),
        rows=((0, 1), (2, 3)),
        first=np.array([0, 2]),
        second=np.array([1, 3]),
    )
    with np.errstate(all="raise"):
        stories = stories_of(linear, ())
    assert {one.bad for one in stories} == {(), (0,)}
    assert all(np.isfinite(one.score) for one in stories)
