"""Roll a wing of each kind by 1° and an engine by 2°, follow the advice: ``python tools/measure_any.py [COUNT] [KIND …]``."""

import sys
from collections import Counter

import numpy as np

from tests.airframes_of_any_kind import ANY
from tests.rigged import out_of_true, rig

_COUNT = 40
_CROOKED = {"dx": 0.3, "dy": 0.3, "dz": 0.3, "roll": 0.1, "pitch": 0.1, "yaw": 0.1}


def main(count: int, kinds: list[str]) -> None:
    """Print how many of each kind are true after two rounds."""
    for name in kinds or ANY:
        survey = ANY[name]().surveyed
        good, left = 0, Counter[str]()
        for seed in range(count):
            rng = np.random.default_rng(seed)
            poses = {
                body.id: {key: float(rng.normal(0, by)) for key, by in _CROOKED.items()}
                for body in survey.bodies
                if body.id != "fuselage"
            }
            poses["bench"] = {"pitch": 0.3, "roll": -0.2, "z": 70.0}
            poses["wing"]["roll"] += float(rng.choice((-1, 1)))
            if "thrust" in poses:
                poses["thrust"]["pitch" if seed % 2 else "yaw"] += 2.0 * float(rng.choice((-1, 1)))
            out = out_of_true(survey, rig(survey, poses, rng))
            good += not out
            left.update(out)
        found = dict(left.most_common(4))
        print(f"{name}: {good / count:.0%} true after two rounds", found, flush=True)


if __name__ == "__main__":
    main(int(sys.argv[1]) if sys.argv[1:] else _COUNT, sys.argv[2:])
