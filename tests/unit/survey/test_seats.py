"""Every kind of seat is told only what it can do, in the builder's steps; what is glued is left alone."""

import math

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.messages.advice import seat_advice, step_sentence
from hardkeel.survey.checking import Check
from hardkeel.survey.correcting import Correction
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Seat, SeatKind, Shop, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work
from hardkeel.survey.soundness import check_survey
from tests.airframes import plain_survey, readings_of


def seated(kind: SeatKind, body: str = "stab", *, foot: bool = False, step: float = 0.1) -> Survey:
    """The plain survey with another seat; struts go straight down 120 mm to their feet."""
    survey = plain_survey(twist=False)
    bodies = []
    for one in survey.bodies:
        if one.id == body and one.seat is not None:
            contacts = tuple(
                c.but(foot=(c.at[0], c.at[1], c.at[2] - 120.0)) if foot else c
                for c in one.seat.contacts
            )
            bodies.append(one.but(seat=Seat(contacts=contacts, kind=kind)))
        else:
            bodies.append(one)
    shop = Shop(shim_step=step, sand_step=step, stroke=step, washer=0.5)
    return survey.but(bodies=tuple(bodies), shop=shop)


def known(survey: Survey, wrong: dict[str, float]) -> Judgement:
    """Judged from exact readings of an airframe that is wrong by these unknowns."""
    net = network_of(survey)
    truth = np.zeros(net.columns.size)
    for unknown, amount in wrong.items():
        body, _, name = unknown.partition(".")
        column = net.columns.column(body, name)
        assert column is not None
        truth[column] = amount
    exact = readings_of(survey, truth, np.random.default_rng(1), 400, noise=0.0).readings
    return judge_survey(survey.but(readings=tuple(r.but(sigma=0.001) for r in exact)))


def at(judged: Judgement, body: str = "stab") -> Correction:
    return next(one for one in judged.corrections if one.body == body)


def work(judged: Judgement, body: str = "stab") -> tuple[SeatStep, ...]:
    return seat_work(judged, at(judged, body), "sanding").steps


def test_a_slot_opens_the_edge_it_must_go_to_and_packs_the_other() -> None:
    # starboard tip down by 2 degrees: the starboard contacts, 25 mm out, must rise by 25·sin 2°
    judged = known(seated("slot", step=0.01), {"stab.roll": -2.0})
    steps = {step.contacts[0]: step for step in work(judged)}
    rise = 25 * math.sin(math.radians(2.0))
    assert steps["le_starboard"].up == pytest.approx(rise, abs=0.011)
    assert steps["le_port"].up == pytest.approx(-rise, abs=0.011)
    assert {step.act for step in steps.values()} == {"edge"}
    assert steps["le_starboard"].count == round(rise / 0.01)
    survey = judged.net.survey
    said = step_sentence(survey, "stab", steps["le_starboard"], "mm")
    assert said.startswith("Open the slot's upper edge 0.9 mm at the")
    assert "pack the lower edge by as much" in said
    said = step_sentence(survey, "stab", steps["le_port"], "mm")
    assert "the slot's lower edge" in said
    assert "pack the upper edge" in said


def test_a_slot_that_must_turn_opens_its_ends_one_aft_one_forward() -> None:
    judged = known(seated("slot"), {"stab.yaw": 1.5})
    aft = {step.contacts[0]: step.aft for step in work(judged)}
    assert aft["le_port"] == pytest.approx(-aft["le_starboard"], abs=0.11)
    assert abs(aft["le_port"]) == pytest.approx(25 * math.sin(math.radians(1.5)), abs=0.06)
    assert "open its end" in step_sentence(
        judged.net.survey, "stab", work(judged)[0], "mm"
    ).lower().replace("slot's ", "")


def test_a_hole_is_opened_where_the_tube_must_go_and_filled_behind() -> None:
    judged = known(seated("tube"), {"stab.pitch": 1.0, "stab.yaw": 1.5})
    steps = work(judged)
    assert steps
    assert {step.act for step in steps} == {"hole"}
    said = step_sentence(judged.net.survey, "stab", steps[0], "mm")
    assert said.endswith("; fill it behind.")
    assert "sand" not in said.lower()


def test_struts_are_told_their_new_length() -> None:
    # lengths on their own: distance from the foot to where the contact stands, and to where it must
    judged = known(seated("struts", "wing", foot=True), {"wing.roll": 1.5})
    wing = judged.net.survey.body("wing")
    assert wing is not None
    angle = math.radians(1.5)
    for contact in wing.seat.contacts if wing.seat is not None else ():
        x, y, z = contact.at
        dz = math.sin(angle) * y
        dy = math.cos(angle) * y - y
        move = next(m for m in at(judged, "wing").moves if m.contact == contact.id)
        assert move.strut is not None
        possible = [math.hypot(dy, 120.0 + sign * dz) for sign in (1, -1)]
        assert min(abs(move.strut[0] - one) for one in possible) < 0.02
        assert move.strut[1] == pytest.approx(120.0, abs=1e-6)
        assert math.hypot(x - contact.foot[0], z - contact.foot[2]) == 120.0  # type: ignore[index]
    steps = work(judged, "wing")
    assert {step.act for step in steps} == {"strut"}
    port = next(step for step in steps if "port" in step.contacts[0])
    starboard = next(step for step in steps if "starboard" in step.contacts[0])
    assert port.up == pytest.approx(-starboard.up, abs=0.11)
    assert port.length == pytest.approx(120.0, abs=0.001)
    assert "between its holes" in step_sentence(judged.net.survey, "wing", port, "mm")


def test_a_cabane_takes_whole_washers() -> None:
    judged = known(seated("cabane", "wing"), {"wing.pitch": 1.0})
    steps = work(judged, "wing")
    assert {step.act for step in steps} == {"washers"}
    for step in steps:
        assert step.mm == pytest.approx(0.5 * abs(step.count))
    said = {step_sentence(judged.net.survey, "wing", step, "mm")[:4] for step in steps}
    assert said == {"Put ", "Take"}


@pytest.mark.parametrize("kind", ["slot", "tube", "struts", "cabane"])
def test_the_checks_that_will_follow_are_those_of_solving_anew(kind: SeatKind) -> None:
    """An independent way: turn the airframe by what the steps do, read it again, judge it."""
    wrong = {"stab.roll": 1.2, "stab.pitch": -0.9}
    judged = known(seated(kind), wrong)
    fitted = at(judged).fitted
    assert fitted is not None
    stab = judged.net.survey.body("stab")
    assert stab is not None
    assert stab.seat is not None
    lifts = dict(fitted.moves)
    places = np.array([c.at for c in stab.seat.contacts])
    rise = np.array([lifts[c.id] for c in stab.seat.contacts])
    flat = np.column_stack([np.ones(len(rise)), places[:, 0] - 900.0, places[:, 1]])
    _, by_x, by_y = np.linalg.lstsq(flat, rise, rcond=None)[0]
    # up at the trailing edge is leading edge down; up to starboard is the sign that roll has
    after = dict(wrong)
    after["stab.pitch"] -= math.degrees(math.atan(by_x))
    sign = 1.0 if _rises_to_starboard() else -1.0
    after["stab.roll"] += sign * math.degrees(math.atan(by_y))
    again = known(seated(kind), after)
    for check in fitted.checks:
        anew = again.check(check.id)
        assert anew is not None
        assert anew.value == pytest.approx(check.value, abs=0.03)


def _rises_to_starboard() -> bool:
    survey = plain_survey(twist=False)
    net = network_of(survey)
    truth = np.zeros(net.columns.size)
    column = net.columns.column("stab", "roll")
    assert column is not None
    truth[column] = 1.0
    return bool(
        net.seats["stab"].place(truth).airframe[:, 2].max() > 30.0
        and net.seats["stab"]
        .place(truth)
        .airframe[np.argmax(net.seats["stab"].place(truth).airframe[:, 2]), 1]
        > 0
    )


def test_a_saddle_is_still_shimmed_or_sanded() -> None:
    judged = known(seated("saddle"), {"stab.roll": 1.2})
    assert at(judged).fitted is None
    assert {step.act for step in work(judged)} == {"sand"}


@pytest.mark.parametrize("kind", ["slot", "tube", "struts", "cabane"])
def test_where_nothing_is_out_nothing_is_to_do_at_any_seat(kind: SeatKind) -> None:
    judged = known(seated(kind, "wing", foot=True), {"wing.roll": 0.15, "wing.dz": 0.4})
    assert not [check for check in judged.checks_on("wing") if check.verdict == "out" or check.edge]
    correction = next(one for one in judged.corrections if one.body == "wing")
    work = seat_work(judged, correction, "sanding")
    assert not work.needed
    assert work.steps == ()
    said = seat_advice(judged.net.survey, judged, correction, "sanding", "mm")
    assert said.do == ()


def out_of(judged: Judgement) -> list[Check]:
    return [check for check in judged.checks if check.verdict == "out"]


def test_what_is_glued_is_never_asked_to_move() -> None:
    wrong = {"wing.pitch": 1.5, "wing.roll": 1.2}
    free = known(plain_survey(twist=False), wrong)
    assert free.culprit == "wing"
    survey = plain_survey(twist=False).but(locked=("wing",), aim={"stab": "wing"})
    judged = known(survey, wrong)
    assert [one.body for one in judged.corrections] == ["stab"]
    assert judged.charged["decalage"] == ("stab",)
    assert judged.culprit == "stab"
    assert "wing_incidence" in {check.id for check in out_of(judged)}  # still told
    # the stabilizer follows the wing: its trailing edge comes to where decalage is right
    decalage = next(c for c in at(judged).only_shims.checks if c.id == "decalage")
    assert decalage.verdict == "true"
    assert judged.together is not None
    assert {body for body, _, _ in judged.together.only_shims.moves} == {"stab"}


def test_no_reading_is_asked_for_what_is_glued() -> None:
    survey = plain_survey().but(locked=("wing", "stab"))
    judged = judge_survey(survey)
    assert judged.next
    assert {one.helps for one in judged.next} <= {"fin_yaw", "fin_lean_to_stab"}
    everything = judge_survey(plain_survey().but(locked=("wing", "stab", "fin")))
    assert everything.next == ()


def test_an_unknown_body_can_not_be_locked() -> None:
    with pytest.raises(BadInput, match=r"survey\.locked"):
        check_survey(plain_survey().but(locked=("canard",)))
