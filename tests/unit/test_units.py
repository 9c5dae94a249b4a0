import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.base.units import (
    LengthUnit,
    format_angle,
    format_length,
    format_size,
    format_small_length,
    nearest_fraction,
    parse_angle,
    parse_length,
    parse_number,
)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("12.5", 12.5),
        ("12,5", 12.5),
        ("12.5 mm", 12.5),
        ("12.5mm", 12.5),
        ("1.25 cm", 12.5),
        ("0.5 m", 500.0),
        ("1/2", 12.7),
        ("3/32", 2.38125),
        ('1-3/16"', 30.1625),
        ("1 3/16 in", 30.1625),
        ("1-3/16″", 30.1625),
        ("1 3/16 inches", 30.1625),
        ("1½ in", 38.1),
        ("½", 12.7),
        ("2 in", 50.8),
        ('0.5"', 12.7),
        ("1' 2-1/2\"", 368.3),
        ("1 ft 6 in", 457.2),
        ("2 ft", 609.6),
        ("-0.6", -0.6),
        ("−0.6 mm", -0.6),
        ("+3", 3.0),
        (" 7 ", 7.0),
        (".5", 0.5),
    ],
)
def test_every_spelling_is_understood(text: str, mm: float) -> None:
    assert parse_length(text).mm == pytest.approx(mm, abs=1e-9)


def test_a_bare_number_is_in_the_unit_of_the_screen_but_a_fraction_is_inches() -> None:
    assert parse_length("2", "in").mm == pytest.approx(50.8)
    assert parse_length("1/4", "in").mm == parse_length("1/4", "mm").mm == pytest.approx(6.35)


@pytest.mark.parametrize(
    "text", ["", "abc", "1/0", "1//2", "12 parsec", "1/2 mm", "--3", "1e3", "nan", "inf", "9" * 30]
)
def test_what_is_no_length_gets_one_sentence(text: str) -> None:
    with pytest.raises(BadInput) as told:
        parse_length(text)
    assert "\n" not in str(told.value)
    assert len(str(told.value)) > 10


@pytest.mark.parametrize("text", ["1,250", "12,500 mm", "1,250,000", "-3,175"])
def test_a_comma_that_can_be_read_two_ways_is_refused(text: str) -> None:
    for parse in (parse_length, parse_angle, parse_number):
        with pytest.raises(BadInput, match="two ways"):
            parse(text)


@pytest.mark.parametrize(
    ("text", "value"), [("0,125", 0.125), ("12,5", 12.5), ("1,25", 1.25), ("1,2345", 1.2345)]
)
def test_a_comma_that_can_only_be_a_decimal_one_is(text: str, value: float) -> None:
    assert parse_length(text).mm == parse_number(text) == parse_angle(text) == value


@pytest.mark.parametrize("text", ["9" * 350, "9" * 350 + "/2", "1/" + "9" * 350, "1" * 41 + '"'])
def test_hundreds_of_digits_are_told(text: str) -> None:
    for parse in (parse_length, parse_angle, parse_number):
        with pytest.raises(BadInput):
            parse(text)


def test_it_says_what_it_understood() -> None:
    assert parse_length("1-3/16").as_text == "30.16 mm = 1-3/16″"


@pytest.mark.parametrize(
    ("text", "degrees"),
    [("2.1", 2.1), ("2.1°", 2.1), ("-0.3 deg", -0.3), ("1°30'", 1.5), ("−2", -2.0)],
)
def test_angles_are_understood(text: str, degrees: float) -> None:
    assert parse_angle(text) == pytest.approx(degrees)


@pytest.mark.parametrize("text", ["", "two", "200", "1..2"])
def test_what_is_no_angle_gets_one_sentence(text: str) -> None:
    with pytest.raises(BadInput):
        parse_angle(text)


@given(st.floats(min_value=-3000, max_value=3000), st.sampled_from(["mm", "in"]))
def test_what_is_shown_is_read_back_to_the_digit_shown(mm: float, unit: LengthUnit) -> None:
    shown = format_length(mm, unit)
    assert parse_length(shown, unit).mm == pytest.approx(mm, abs=0.0501)


@given(st.floats(min_value=0, max_value=2000))
def test_the_nearest_fraction_is_within_half_a_64th(mm: float) -> None:
    text = nearest_fraction(mm)
    inches = parse_length(text if "/" in text else f"{text} in", "in").mm
    assert abs(inches - mm) <= 25.4 / 128 + 1e-9


def test_small_things_are_told_with_sensible_digits() -> None:
    assert format_length(14.299999, "mm") == "14.3 mm"
    assert format_small_length(0.6, "in") == "0.024″ (1/32)"
    assert format_size((60.0, 3.0), "mm") == "60.0 × 3.0 mm"
    assert format_size((60.0, 3.0), "in") == "2.362 × 0.118″"
    assert format_angle(-0.001) == "0.00°"
    assert format_angle(0.2, signed=True) == "+0.20°"
