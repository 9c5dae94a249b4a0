"""A part that was touched between two pictures is named, with the pictures; one that was not never is."""

import numpy as np
import pytest

from hardkeel.demo.fleet import DEMOS, OTHER_SHAPES
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.sight import lay_targets
from hardkeel.messages.sight import again_title, click_sentence
from hardkeel.messages.targets import moved_words
from hardkeel.practice.hidden import Hidden, hidden_by_chance, hidden_from
from hardkeel.project.model import Build
from hardkeel.sight.moved import MovedPart, moved_between
from hardkeel.sight.targets import sighted
from hardkeel.survey.columns import POSE
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.network import network_of
from tests.targeted import Bench, seen


def judged(laid: Build, seed: int, touched: tuple[str, str, float] | None, still: int) -> Judgement:
    """Four photographs; a body is turned after so many of them."""
    survey = laid.surveyed.but(readings=(), photos=(), gluing=None, locked=())
    hidden = hidden_by_chance(survey, f"crooked {seed}")
    after = hidden
    if touched is not None:
        body, part, by = touched
        unknowns = hidden.unknowns.copy()
        unknowns[hidden.net.columns.start[body] + POSE.index(part)] += by
        after = Hidden(hidden.net, unknowns)
    assert laid.fuselage is not None
    first, last = (seen(Bench(survey, one, laid.fuselage), seed) for one in (hidden, after))
    return judge_survey(sighted(survey, [*first[:still], *last[still:]], "dry").survey, "dry")


@pytest.mark.parametrize(
    ("touched", "still", "photos"),
    [
        (("stab", "yaw", 0.3), 2, ("p3", "p4")),
        (("stab", "yaw", 0.3), 1, ("p2", "p3", "p4")),
        (("stab", "roll", 2.0), 3, ("p4",)),
        (("wing", "roll", 0.5), 2, ("p3", "p4")),
        (("fin", "roll", 1.5), 2, ("p3", "p4")),
    ],
)
def test_what_was_touched_is_named_with_the_pictures(
    touched: tuple[str, str, float], still: int, photos: tuple[str, ...]
) -> None:
    judgement = judged(lay_targets(demo_build()), 1, touched, still)
    found = moved_between(judgement)
    assert found is not None
    assert (found.body, found.photos) == (touched[0], photos)
    # a second way: how far its marks are from where they were, turned by so much about the body's pivot
    net = judgement.net
    step = np.zeros(net.columns.size)
    step[net.columns.start[touched[0]] + POSE.index(touched[1])] = touched[2]
    zero = np.zeros_like(step)
    apart = np.linalg.norm(
        net.placer.place(step).airframe - net.placer.place(zero).airframe, axis=1
    )
    assert found.by == pytest.approx(float(apart.max()), rel=0.25)


@pytest.mark.parametrize(
    "make",
    [demo_build, *(one.make for one in (*DEMOS, *OTHER_SHAPES))],
    ids=lambda one: one.__name__,
)
def test_a_model_that_stands_still_is_never_said_to_have_moved(make: object) -> None:
    assert callable(make)
    laid = lay_targets(make())
    for seed in (2, 3):
        assert moved_between(judged(laid, seed, None, 2)) is None


def test_one_picture_alone_says_nothing_of_it() -> None:
    laid = lay_targets(demo_build())
    assert moved_between(judge_survey(laid.surveyed, "dry")) is None


def test_it_is_said_with_the_pictures_names() -> None:
    survey = demo_build().surveyed
    moved = MovedPart("stab", ("p3", "p4"), 1.24, 400.0)
    what, why = moved_words(survey, moved, "mm", {"p3": "c.jpg", "p4": "d.jpg"})
    assert what == "The stabilizer stood otherwise in c.jpg and d.jpg: by up to 1.2 mm."
    assert "mixes both" in why
    assert moved_words(survey, MovedPart("fin", ("p2",), 25.4, 99.0), "in")[0].endswith(
        "in p2: by up to 1.000″."
    )


def test_a_target_that_does_not_fit_is_not_asked_to_be_clicked() -> None:
    judgement = judged(lay_targets(demo_build()), 1, ("stab", "yaw", 1.0), 2)
    survey = judgement.net.survey
    assert judgement.outliers
    for one in judgement.outliers:
        said = click_sentence(survey, judgement, one)
        assert "target" in said.lower()
        assert "click" not in said
        assert "click" not in again_title(survey, one.reading)


def test_a_misread_tape_moves_nothing_between_pictures() -> None:
    """The demo's own readings have a tape that is 9 mm off; two pictures of what stands otherwise than they say."""
    demo = demo_build()
    laid = lay_targets(demo)
    bare = laid.surveyed.but(readings=(), photos=(), gluing=None, locked=())
    hidden = hidden_from(demo.surveyed, demo.hidden or {})
    net = network_of(bare)
    unknowns = np.zeros(net.columns.size)
    own = hidden.net.columns.own
    unknowns[:own] = hidden.unknowns[:own]
    assert laid.fuselage is not None
    for seed in (4, 5, 6):
        taken = seen(Bench(bare, Hidden(net, unknowns), laid.fuselage), seed)[:2]
        given = sighted(laid.surveyed, taken, "dry").survey
        assert len(given.readings) > len(demo.surveyed.readings) > 20
        assert moved_between(judge_survey(given, "dry")) is None


def test_one_wrong_sighting_is_no_moved_part() -> None:
    laid = lay_targets(demo_build())
    survey = judged(laid, 2, None, 2).net.survey
    first = next(one for one in survey.sightings if one.photo == "p4" and "stab_tip" in one.mark)
    u, v = first.value
    bad = survey.but(
        readings=tuple(
            one.but(value=(u + 25.0, v)) if one == first else one for one in survey.readings
        )
    )
    assert moved_between(judge_survey(bad, "dry")) is None
