"""One word everywhere: the answer at the top, the keel line, the parts' lines and their vials never disagree."""

from collections.abc import Callable

import pytest

from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages.advice import headline
from hardkeel.messages.names import body_name
from hardkeel.messages.standing import how_far_trued
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.ui.shell.keel import keel_of
from hardkeel.ui.stages.true.showing import vial_groups

SHARES = (0.05, 0.15, 0.4, 1.0, 3.0)  # of the usual tolerances: from all out to all true


@pytest.mark.parametrize("make", [demo_build, *(demo.make for demo in DEMOS)])
def test_header_keel_line_and_vials_say_the_same(make: Callable[[], Build]) -> None:
    build = make()
    checks = judge_survey(build.surveyed, build.phase).checks
    heard = set()
    for share in SHARES:
        tolerances = {check.id: share * check.tolerance for check in checks}
        survey = build.surveyed.but(tolerances=tolerances)
        judgement = judge_survey(survey, build.phase)
        if judgement.moved:
            continue  # the top tells of that first
        mine = build.but(survey=survey)
        groups = vial_groups(mine, judgement, "mm")
        parts = {part.body: part for part in keel_of(mine, judgement, "mm").parts}
        out = {one.body for one in groups if any(v.verdict == "out" for v in one.vials)}
        assert {one.body for one in groups if one.verdict == "out"} == out
        assert {body for body, part in parts.items() if part.verdict == "out"} == out
        for one in groups:
            if one.body in parts:
                assert (parts[one.body].text, parts[one.body].verdict) == (one.words, one.verdict)
        said = headline(survey, judgement)
        heard.add(said)
        named = {b.id for b in survey.bodies if body_name(survey, b.id).lower() in said.lower()}
        if "out of true" in said:
            assert out <= named
        assert ("out of true" in said) == bool(out)
        vials = [vial for one in groups for vial in one.vials]
        count = sum(vial.verdict == "out" for vial in vials)
        unsure = sum(vial.verdict == "unsure" for vial in vials)
        if judgement.checks:
            words = how_far_trued(mine, judgement)
            assert words == (f"{count} out, {unsure} open" if count + unsure else "all true")
    assert heard or not checks
