"""How well a cut part is checked on its mat: ``python -m tools.measure_parts [COUNT]``.

Pictures by `tests.matted`, which looks ray by ray and shares nothing with the check but a camera's formula: 4000 by 3000
pixels from 380 to 520 mm, up to 25 degrees aside, a lens that bends, balsa and dark ply of 3 mm with grain, a cast shadow
and a head's, either face up, saved as a telephone does; 0.15 mm left on or taken off along 20 mm of an edge.
"""

import resource
import sys
import time
from typing import Final

import numpy as np

from hardkeel.sight.part_faults import faults_of
from tests.unit.sight.test_part_check import FAULT, PIECE, seen, slightly_wrong

_COUNT: Final = 60


def main(count: int) -> None:
    """Print how many are found, what else is named, and how far the figures are off."""
    found, named = 0, 0
    sizes, beside, sigmas, seconds = [], [], [], []
    for number in range(count):
        by, pixels, film = slightly_wrong(number)
        begun = time.monotonic()
        check = seen(pixels, film).check(PIECE)
        seconds.append(time.monotonic() - begun)
        told = faults_of(check, PIECE)
        found += any(one.edge == "the starboard edge" and one.by * by > 0 for one in told)
        named += sum(one.edge != "the starboard edge" for one in told)
        inside = np.all((check.at > FAULT[:2]) & (check.at < FAULT[2:]), axis=1)
        sizes.append(abs(float(np.nanmedian(check.by[inside])) - by))
        beside.append(float(np.sqrt(np.nanmean(check.smooth[~inside] ** 2))))
        sigmas.append(check.sigma)
    print(f"{count} pictures: the fault named in {found}, another place named {named} times")
    for words, values in (
        ("its size off by", sizes),
        ("places beside it, rms", beside),
        ("as told, sigma", sigmas),
        ("seconds", seconds),
    ):
        low, high = np.percentile(values, [50, 95])
        print(f"  {words}: {low:.3f}, in 19 of 20 no more than {high:.3f}")
    print(f"  {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB, drawing included")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _COUNT)
