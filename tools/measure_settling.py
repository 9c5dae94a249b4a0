"""How well a click settles, as a table: ``python tools/measure_settling.py``; printed by ``make bench``."""

import math
import sys
import time

import numpy as np

from hardkeel.paper.line_snapping import Settled, snap_to_line
from tests.scans import PAPERS, scan_of

DPI = (100, 150, 200, 300, 600)
WIDTHS = (0.2, 0.35, 0.5, 0.8)
WITHIN_MM = 0.1


def main(rounds: int = 40) -> None:
    """Print the 95th percentile of what is left (mm) and the share that did not settle."""
    print(
        "clicks up to 0.8 mm beside the line: 95th percentile of what is left, mm (not settled, %)"
    )
    print("paper      dpi " + "".join(f"{f'line {w} mm':>16}" for w in WIDTHS))
    rng = np.random.default_rng(4)
    spent, count, good = 0.0, 0, 0
    for paper in PAPERS:
        for dpi in DPI:
            cells = []
            for width in WIDTHS:
                left, lost = [], 0
                for _ in range(rounds):
                    off = float(rng.uniform(-0.8, 0.8))
                    scan = scan_of(rng, dpi, width, paper, off)
                    begin = time.perf_counter()
                    found = snap_to_line(scan.grey, scan.click, scan.px_per_mm)
                    spent += time.perf_counter() - begin
                    count += 1
                    if not isinstance(found, Settled):
                        lost += 1
                        left.append(abs(off))
                        continue
                    right, down = found.right / scan.px_per_mm, found.down / scan.px_per_mm
                    along = right * math.cos(scan.way) + down * math.sin(scan.way)
                    left.append(abs(along - off))
                good += sum(one <= WITHIN_MM for one in left)
                cells.append(f"{np.quantile(left, 0.95):9.3f} ({100 * lost / rounds:3.0f})")
            print(f"{paper:<10}{dpi:>4}" + "".join(f"{cell:>16}" for cell in cells), flush=True)
    print(
        f"within {WITHIN_MM} mm: {100 * good / count:.1f} % of {count}; {1e3 * spent / count:.1f} ms a click"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if sys.argv[1:] else 40)
