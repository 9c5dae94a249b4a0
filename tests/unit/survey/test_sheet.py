"""The rigging sheet: the same list whatever was read, on paper in the same order as on the screen."""

import io

import pytest
from pypdf import PdfReader

from hardkeel.base.units import LengthUnit
from hardkeel.demo.kettlewick import demo_build
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.rigging_form import rigging_form_pdf
from hardkeel.messages.names import reading_name
from hardkeel.project.model import Build
from hardkeel.survey.reading_form import form_list, next_on_form
from hardkeel.survey.readings import place_of
from tests.airframes import plain_survey


def test_the_list_does_not_depend_on_what_was_read() -> None:
    survey = demo_build().surveyed
    assert survey.readings
    listed = form_list(survey)
    assert listed == form_list(survey.but(readings=()))
    assert listed == form_list(survey.but(locked=("wing",)))
    assert [one.id for one in listed] == [str(i) for i in range(1, len(listed) + 1)]
    assert len({place_of(one) for one in listed}) == len(listed) <= 30


def test_the_next_on_the_sheet_is_the_first_that_is_not_in() -> None:
    listed = form_list(plain_survey())
    assert next_on_form(listed, ()) == listed[0]
    taken = (listed[0].but(id="r1"), listed[2].but(id="r2"))
    assert next_on_form(listed, taken) == listed[1]
    assert next_on_form(listed, listed) is None


@pytest.mark.parametrize("unit", ["mm", "in"])
def test_the_paper_has_every_reading_in_order_with_its_number(unit: LengthUnit) -> None:
    build = demo_build()
    paper = PdfReader(io.BytesIO(rigging_form_pdf(build, unit, PAPERS["A4"])))
    text = " ".join(" ".join(page.extract_text().split()) for page in paper.pages)
    at = -1
    for reading in form_list(build.surveyed):
        found = text.find(reading_name(build.surveyed, reading), at + 1)
        assert found > at, reading
        at = found
    assert len(paper.pages) >= 2


def test_an_empty_build_has_a_sheet_that_says_so() -> None:
    assert io.BytesIO(rigging_form_pdf(Build(), "mm", PAPERS["A4"])).read(5) == b"%PDF-"
