"""The table of classes in the papers is what the model says."""

import re
from pathlib import Path

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.flights import build_trim
from hardkeel.airframe.tolerances import CLASS_FACTOR
from hardkeel.balance.model import Balance
from hardkeel.edits.flying import set_flight
from hardkeel.survey.judging import judge_survey
from hardkeel.trim.flying import effect_of

_ROWS = {
    "decalage": "decalage",
    "wing twist": "wing_twist_difference",
    "wing centred": "wing_offset",
    "fin straight": "fin_yaw",
    "stabilizer to wing": "stab_roll_to_wing",
}


def test_the_table_of_classes_is_worked_anew() -> None:
    text = (Path(__file__).parents[3] / "docs" / "in-the-air.md").read_text(encoding="utf-8")
    told = {}
    for line in text.splitlines():
        cells = [cell.strip() for cell in line.strip("|").split("|")]
        if cells[0] in _ROWS and len(cells) == 5:
            told[_ROWS[cells[0]]] = cells[1:4]
    assert set(told) == set(_ROWS.values())
    for column, model_class in enumerate(CLASS_FACTOR):
        build = set_flight(build_from(Figures(model_class=model_class)), speed=10.0)
        trim = build_trim(build.but(balance=Balance(target_percent=30.0)))
        for check in judge_survey(build.surveyed).checks:
            if check.id not in told:
                continue
            edge = effect_of(trim, check, check.tolerance, 0.0)
            assert edge is not None
            numbers = [float(n) for n in re.findall(r"\d+\.\d+", told[check.id][column])]
            assert numbers[0] == check.tolerance
            assert abs(numbers[1] - abs(edge.first)) <= 0.0501
