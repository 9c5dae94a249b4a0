"""A second way to the plan of evenings: every rule looked at minute by minute, and the optimum by a time-indexed program.

Written from the contract alone; shares no code with the app.  The program (one 0/1 variable for each step and minute
of a coarse grid, solved by HiGHS) finds the true optimum where all figures lie on the grid.
"""

from collections import Counter
from datetime import datetime, timedelta
from typing import Any

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_matrix

Json = dict[str, Any]
MORE_EVENINGS = 400


def minute(text: str, zero: datetime) -> int:
    return round((datetime.fromisoformat(text) - zero).total_seconds() / 60)


class Case:
    """The open steps that can be done, in minutes."""

    def __init__(self, data: Json) -> None:
        bench = data["bench"]
        self.zero = datetime.fromisoformat(bench["evenings"][0]["start"])
        self.given = [
            (minute(one["start"], self.zero), minute(one["start"], self.zero) + one["minutes"])
            for one in bench["evenings"]
        ]
        self.capacity = bench.get("resources", {})
        self.steps = {one["id"]: one for one in data["steps"]}
        longest = max(end - start for start, end in self.given)
        bad = {
            name
            for name, one in self.steps.items()
            if one.get("state", "open") == "open"
            and (
                one.get("hands_minutes", 0) > longest
                or any(n > self.there(r) for r, n in Counter(one.get("needs", [])).items())
            )
        }
        while True:
            more = {
                name
                for name, one in self.steps.items()
                if one.get("state", "open") == "open"
                and name not in bad
                and bad & set(one.get("after", []))
            }
            if not more:
                break
            bad |= more
        self.impossible = bad
        self.open = [
            n
            for n, one in self.steps.items()
            if one.get("state", "open") == "open" and n not in bad
        ]

    def there(self, resource: str) -> int:
        return int(self.capacity.get(resource, 1))

    def evening(self, number: int) -> tuple[int, int]:
        if number < len(self.given):
            return self.given[number]
        start, end = self.given[-1]
        later = 1440 * (number - len(self.given) + 1)
        return start + later, end + later

    def figures(self, name: str) -> tuple[int, int, int, int]:
        """Hands; from the start to handle, to cure, and how long it holds."""
        one = self.steps[name]
        hands = int(one.get("hands_minutes", 0))
        handle = hands + int(one.get("handle_minutes", 0))
        cure = hands + max(int(one.get("cure_minutes", 0)), int(one.get("handle_minutes", 0)))
        return hands, handle, cure, cure if one.get("holds_until") == "cure" else handle

    def doing(self) -> dict[str, int]:
        return {
            name: minute(one["started"], self.zero)
            for name, one in self.steps.items()
            if one.get("state") == "doing"
        }

    def lag(self, before: str, follower: str) -> int:
        return self.figures(before)[2 if self.steps[follower].get("needs_cure") else 1]


def broken(data: Json, plan: Json) -> list[str]:
    """Every rule that a plan breaks."""
    case = Case(data)
    starts = {one["id"]: minute(one["start"], case.zero) for one in plan["steps"]}
    said = [] if set(starts) == set(case.open) else ["not the open, possible steps"]
    if {one["id"] for one in plan["impossible"]} != case.impossible:
        said.append("impossible")
    for one in plan["steps"]:
        said += _step_broken(case, one, starts)
    said += _taken_twice(case, starts)
    ends = [starts[n] + case.figures(n)[0] for n in starts]
    if ends and minute(plan["finish"], case.zero) != max(ends):
        said.append("finish")
    if plan["evenings_used"] != len({one["evening"] for one in plan["steps"]}):
        said.append("evenings_used")
    farthest = max([one["evening"] for one in plan["steps"]], default=0)
    if plan["more_evenings"] != max(0, farthest - len(case.given) + 1):
        said.append("more_evenings")
    return said


def _step_broken(case: Case, one: Json, starts: dict[str, int]) -> list[str]:
    """Its own times, its evening, what it waits for."""
    name, said, under = one["id"], [], case.doing()
    start = starts[name]
    hands, handle, cure, _ = case.figures(name)
    for key, length in (("end", hands), ("handle", handle), ("cure", cure)):
        if minute(one[key], case.zero) != start + length:
            said.append(f"{name} {key}")
    first, last = case.evening(one["evening"])
    if not (first <= start and start + hands <= last):
        said.append(f"{name} not in its evening")
    for other in case.steps[name].get("after", []):
        since = starts.get(other, under.get(other))
        if since is not None and start < since + case.lag(other, name):
            said.append(f"{name} before {other}")
    return said


def _taken_twice(case: Case, starts: dict[str, int]) -> list[str]:
    """Hands and resources, minute by minute; what is under way may stand on itself."""
    under = case.doing()
    busy: Counter[int] = Counter()
    held: dict[str, Counter[int]] = {}
    was: dict[str, Counter[int]] = {}
    for begun, plans in ((under, was), (starts, None)):
        for name, start in begun.items():
            hands, _, _, holds = case.figures(name)
            busy.update(range(start, start + hands))
            for resource in case.steps[name].get("needs", []):
                held.setdefault(resource, Counter()).update(range(start, start + holds))
        if plans is not None:
            busy = Counter(dict.fromkeys(busy, 1))
            was = {resource: Counter(use) for resource, use in held.items()}
    said = ["two in one pair of hands"] if any(n > 1 for n in busy.values()) else []
    for resource, use in held.items():
        before = was.get(resource, Counter())
        if any(n > max(case.there(resource), before[m]) for m, n in use.items()):
            said.append(f"too much {resource}")
    return said


Row = tuple[dict[int, float], float, float]


def optimum(data: Json, upper: int, grid: int = 10) -> tuple[int, int]:
    """Finish (minutes after the first evening's start) and evenings used of the best plan; `upper` is a finish that some plan has."""
    case = Case(data)
    number, spans = 0, []
    while case.evening(number)[0] <= upper:
        spans.append(case.evening(number))
        number += 1
    columns = [
        (name, at, n)
        for name in case.open
        for n, (first, last) in enumerate(spans)
        for at in range(first, last - case.figures(name)[0] + 1, grid)
    ]
    size = len(columns) + len(spans) + 1  # then evenings used, then finish
    rows = _order_rows(case, columns, size)
    rows += [({i: 1.0, len(columns) + n: -1.0}, -np.inf, 0) for i, (_, _, n) in enumerate(columns)]
    for at in range(0, max(end for _, end in spans) + 4000, grid):
        rows += _rows_at(case, columns, at)
    matrix = lil_matrix((len(rows), size))
    for i, (row, _, _) in enumerate(rows):
        for j, value in row.items():
            matrix[i, j] = value
    limits = LinearConstraint(
        matrix.tocsr(), [low for _, low, _ in rows], [high for _, _, high in rows]
    )

    def least(cost: np.ndarray, finish: int) -> int:
        high = np.ones(size)
        high[-1] = finish
        found = milp(cost, constraints=limits, bounds=Bounds(0, high), integrality=np.ones(size))
        assert found.success, found.message
        result: int = round(found.fun)
        return result

    cost = np.zeros(size)
    cost[-1] = 1.0
    finish = least(cost, upper)
    cost = np.zeros(size)
    cost[len(columns) : size - 1] = 1.0
    return finish, least(cost, finish)


def _order_rows(case: Case, columns: list[tuple[str, int, int]], size: int) -> list[Row]:
    """Each step once, before the finish, behind what it waits for."""
    index: dict[str, list[int]] = {}
    for i, (name, _, _) in enumerate(columns):
        index.setdefault(name, []).append(i)
    rows: list[Row] = []
    under = case.doing()
    for name in case.open:
        rows.append((dict.fromkeys(index[name], 1.0), 1, 1))
        hands = case.figures(name)[0]
        ends = {i: float(columns[i][1] + hands) for i in index[name]}
        rows.append((ends | {size - 1: -1.0}, -np.inf, 0))
        for other in case.steps[name].get("after", []):
            row = {i: float(columns[i][1]) for i in index[name]}
            if other in index:
                row |= {i: -float(columns[i][1]) for i in index[other]}
                rows.append((row, case.lag(other, name), np.inf))
            elif other in under:
                rows.append((row, under[other] + case.lag(other, name), np.inf))
    return rows


def _rows_at(case: Case, columns: list[tuple[str, int, int]], at: int) -> list[Row]:
    """One pair of hands and what there is of each resource, at one minute."""
    under = case.doing()

    def here(name: str, start: int, figure: int) -> bool:
        return start <= at < start + case.figures(name)[figure]

    rows: list[Row] = []
    row = {i: 1.0 for i, (name, start, _) in enumerate(columns) if here(name, start, 0)}
    if row:
        rows.append((row, -np.inf, 0 if any(here(n, s, 0) for n, s in under.items()) else 1))
    for resource in {r for one in case.steps.values() for r in one.get("needs", [])}:
        wants = {name: one.get("needs", []).count(resource) for name, one in case.steps.items()}
        use = {
            i: float(wants[name])
            for i, (name, start, _) in enumerate(columns)
            if wants[name] and here(name, start, 3)
        }
        if use:
            gone = sum(wants[name] for name, start in under.items() if here(name, start, 3))
            rows.append((use, -np.inf, max(0, case.there(resource) - gone)))
    return rows


def later(data: Json, minutes: int) -> str:
    """A time so many minutes after the first evening's start."""
    start = datetime.fromisoformat(data["bench"]["evenings"][0]["start"])
    return (start + timedelta(minutes=minutes)).isoformat(timespec="minutes")
