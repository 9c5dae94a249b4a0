import queue
import socket
import threading
import time
from collections.abc import Callable

import numpy as np
import pytest

from hardkeel.gauges.link import GaugeLink, GaugeReport
from hardkeel.gauges.port import StandInPort
from hardkeel.gauges.protocol import gauge_for, parse_value, value_line
from hardkeel.gauges.resting import Resting
from hardkeel.gauges.standin import StandIn
from hardkeel.practice.hidden import Hidden, hidden_by_chance, hidden_from
from hardkeel.survey.readings import Distance, Incidence
from tests.airframes import plain_survey

CROOKED = {"wing": {"pitch": 0.7}, "bench": {"pitch": 0.4, "z": 60.0}}
AT_WING = Incidence(id="?", body="wing", side="centre", value=0.0)


@pytest.fixture
def hidden() -> Hidden:
    return hidden_from(plain_survey(), CROOKED)


def value_of(gauge: StandIn) -> float:
    shown = parse_value(gauge.answer("READ"))
    assert shown is not None
    return shown.value


def test_a_gauge_zeroed_on_the_datum_reads_true_and_before_that_does_not(hidden: Hidden) -> None:
    gauge = StandIn("incidence", hidden, np.random.default_rng(3))
    hold = "HOLD " + AT_WING.model_dump_json(by_alias=True)
    assert gauge.answer(hold) == "OK"
    before = np.mean([value_of(gauge) for _ in range(200)])
    assert gauge.answer("HOLD datum") == "OK"
    assert gauge.answer("ZERO") == "OK"
    gauge.answer(hold)
    after = [value_of(gauge) for _ in range(200)]
    assert np.mean(after) == pytest.approx(2.7, abs=0.05)
    assert abs(before - 2.7) > 0.3
    assert all(round(value / 0.05, 6).is_integer() for value in after)


def test_a_tape_reads_lengths_and_refuses_angles(hidden: Hidden) -> None:
    gauge = StandIn("tape", hidden, np.random.default_rng(1))
    far = Distance(id="?", from_="nose_pin", to="wing_tip_te_port", value=0.0)
    hold = "HOLD " + far.model_dump_json(by_alias=True)
    gauge.answer(hold)
    before = np.mean([value_of(gauge) for _ in range(200)])
    assert abs(before - hidden.show(far)) > 0.3  # its own zero is off until it is zeroed
    gauge.answer("HOLD datum")
    gauge.answer("ZERO")
    gauge.answer(hold)
    after = np.mean([value_of(gauge) for _ in range(200)])
    assert after == pytest.approx(hidden.show(far), abs=0.06)
    assert gauge.answer("HOLD " + AT_WING.model_dump_json()).startswith("ERR")


@pytest.mark.parametrize(
    "line", ["", "DANCE", "HOLD {", 'HOLD {"kind":"height","id":"a","mark":"none","value":0}']
)
def test_nonsense_is_answered_with_err(line: str, hidden: Hidden) -> None:
    assert StandIn("tape", hidden, np.random.default_rng(1)).answer(line).startswith("ERR")


@pytest.mark.parametrize(
    "line",
    [
        "",
        "VAL",
        "VAL x deg",
        "VAL 1.2",
        "VAL 1.2 furlong",
        "V?L 2 deg",
        "VAL 1e9 mm",
        "VAL +999999.999 mm",
        "VAL +181 deg",
        "VAL nan mm",
        "\x00",
    ],
)
def test_garbled_answers_are_no_values(line: str) -> None:
    assert parse_value(line) is None


def test_a_value_is_read_back_from_its_line() -> None:
    shown = parse_value(value_line(-2.15, "deg", 2))
    assert shown is not None
    assert (shown.value, shown.unit) == (-2.15, "deg")
    assert gauge_for("tilt") == "level"
    assert gauge_for("angle") is None


def test_the_same_name_is_crooked_in_the_same_way() -> None:
    first, second, other = (hidden_by_chance(plain_survey(), name) for name in ("a", "a", "b"))
    assert (first.unknowns == second.unknowns).all()
    assert (first.unknowns != other.unknowns).any()


def wait_for(
    reports: "queue.SimpleQueue[GaugeReport]", fits: Callable[[GaugeReport], bool]
) -> GaugeReport:
    end = time.monotonic() + 15
    while time.monotonic() < end:
        report = reports.get(timeout=15)
        if fits(report):
            return report
    raise AssertionError("no such report came")


def test_a_link_reads_a_stand_in_zeroes_it_and_notices_the_pulled_cable(hidden: Hidden) -> None:
    port = StandInPort(StandIn("incidence", hidden, np.random.default_rng(5)))
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(port.url, reports.put, kind="incidence", stand_in=True)
    try:
        wait_for(reports, lambda r: r.state == "live")
        link.zero()
        link.hold(AT_WING.model_dump_json(by_alias=True))
        wait_for(reports, lambda r: r.shown is not None and abs(r.shown.value - 2.7) < 0.5)
        port.unplug(wait_s=2)
        wait_for(reports, lambda r: r.state == "lost")
    finally:
        link.close()
        port.unplug()
        link.join()


def test_a_garbled_line_makes_a_gauge_silent_not_wrong(hidden: Hidden) -> None:
    port = StandInPort(StandIn("level", hidden, np.random.default_rng(5)), garble=True)
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(port.url, reports.put)
    try:
        report = wait_for(reports, lambda _r: True)
        assert report == GaugeReport("silent")
    finally:
        link.close()
        port.unplug()
        link.join()


def test_a_slow_gauge_is_silent_and_closing_does_not_wait_for_it(hidden: Hidden) -> None:
    port = StandInPort(StandIn("tape", hidden, np.random.default_rng(5)), delay_s=5)
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(port.url, reports.put)
    try:
        assert wait_for(reports, lambda _r: True).state == "silent"
    finally:
        start = time.monotonic()
        link.close()
        port.unplug()
        assert time.monotonic() - start < 0.5
        link.join(8)


def test_the_same_link_talks_over_a_socket(hidden: Hidden) -> None:
    gauge = StandIn("incidence", hidden, np.random.default_rng(5))
    server = socket.create_server(("127.0.0.1", 0))

    def serve() -> None:
        peer, _ = server.accept()
        with peer, peer.makefile("rw", newline="\n") as lines:
            for line in lines:
                lines.write(gauge.answer(line) + "\n")
                lines.flush()

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(f"socket://127.0.0.1:{server.getsockname()[1]}", reports.put)
    try:
        assert wait_for(reports, lambda r: r.state == "live").shown is not None
    finally:
        link.close()
        link.join()
        thread.join(3)
        server.close()


def answered_by(answers: Callable[[int, str], str]) -> tuple[str, socket.socket]:
    """The address of a gauge on a socket that answers its nth line so."""
    server = socket.create_server(("127.0.0.1", 0))

    def serve() -> None:
        try:
            peer, _ = server.accept()
            with peer, peer.makefile("rw", newline="\n") as lines:
                for number, line in enumerate(lines):
                    lines.write(answers(number, line.strip()) + "\n")
                    lines.flush()
        except OSError:  # closed before or while it was talked to
            return

    threading.Thread(target=serve, daemon=True).start()
    return f"socket://127.0.0.1:{server.getsockname()[1]}", server


def states_until(reports: "queue.SimpleQueue[GaugeReport]", state: str) -> list[str]:
    states: list[str] = []
    while not {state, "live"} & set(states):
        states.append(reports.get(timeout=15).state)
    return states


def test_another_gauge_that_says_so_late_is_never_read() -> None:
    def answer(number: int, line: str) -> str:
        if number == 0:
            time.sleep(1.0)  # it wakes up: longer than an answer counts
        return "IAM level sleepy 1" if line == "WHO" else "VAL +1.5 deg"

    url, server = answered_by(answer)
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(url, reports.put, kind="tape")
    try:
        assert states_until(reports, "other") == ["other"]
    finally:
        link.close()
        link.join()
        server.close()


def test_a_value_in_another_unit_is_told() -> None:
    url, server = answered_by(
        lambda _n, line: "IAM tape odd 1" if line == "WHO" else "VAL +1.5 deg"
    )
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(url, reports.put, kind="tape")
    try:
        assert states_until(reports, "unit") == ["unit"]
    finally:
        link.close()
        link.join()
        server.close()


def zeroed_after(answers: Callable[[int, str], str]) -> GaugeReport:
    """The tenth live report of a gauge that is told to zero itself when it is first live."""
    url, server = answered_by(answers)
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink(url, reports.put, kind="tape")
    try:
        wait_for(reports, lambda r: r.state == "live")
        link.zero()
        live = [wait_for(reports, lambda r: r.state == "live") for _ in range(8)]
        return live[-1]
    finally:
        link.close()
        link.join()
        server.close()


def tape(line: str, zero: str) -> str:
    return {"WHO": "IAM tape own 1", "ZERO": zero}.get(line, "VAL +12.5 mm")


def test_zeroed_is_what_was_answered() -> None:
    assert zeroed_after(lambda _n, line: tape(line, "OK")).zeroed


def test_a_gauge_that_does_not_zero_says_why() -> None:
    refused = zeroed_after(lambda _n, line: tape(line, "ERR hold it still"))
    assert (refused.zeroed, refused.refused) == (False, "hold it still")


def test_a_gauge_that_was_silent_may_have_been_switched_off() -> None:
    def answer(number: int, line: str) -> str:
        if number == 6:
            time.sleep(1.0)  # longer than an answer counts
        return tape(line, "OK")

    assert not zeroed_after(answer).zeroed


def known_of(resting: Resting) -> tuple[bool, bool]:
    return resting.still, resting.moved


def test_a_gauge_at_rest_and_one_that_moved() -> None:
    resting = Resting()
    assert not any(resting.show(value, "deg") for value in (2.0, 2.1))
    assert known_of(resting) == (False, True)
    resting.show(2.05, "deg")
    assert known_of(resting) == (True, True)
    resting.read()
    assert known_of(resting) == (True, False)
    resting.show(2.1, "deg")
    assert known_of(resting) == (True, False)
    assert resting.show(5.0, "deg")
    assert known_of(resting) == (False, True)
    for _ in range(3):
        resting.show(2.05, "deg")
    assert known_of(resting) == (True, True)  # it was elsewhere, and came back
    resting.read()
    resting.show(2.05, "deg", "another place")  # a stand-in does not travel, it is told
    assert known_of(resting) == (False, True)
    resting.forget()
    assert known_of(resting) == (False, True)


def test_a_port_that_is_not_there_is_lost_not_fatal() -> None:
    reports: queue.SimpleQueue[GaugeReport] = queue.SimpleQueue()
    link = GaugeLink("/dev/no-such-port", reports.put)
    try:
        assert reports.get(timeout=10).state == "lost"
    finally:
        link.close()
        link.join()
