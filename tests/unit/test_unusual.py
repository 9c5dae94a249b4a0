"""Figures that are possible and nearly always a slip are asked about; those of real models are not."""

import json
from typing import Any, get_args

import pytest
from hypothesis import given
from pydantic import BaseModel

from hardkeel.airframe.starters import STARTERS, Starter, start_from
from hardkeel.cli.commands import run_command
from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages.unusual import asked_about, looked_at
from hardkeel.project.model import Build
from hardkeel.project.unusual import oddities, oddities_in
from hardkeel.storage.format import text_of
from tests.builds import builds

DEMO = demo_build()


@pytest.mark.parametrize(
    ("figures", "field"),
    [
        ({"thickness": 254.0}, "thickness"),
        ({"half_width": 939.8}, "half_width"),
        ({"station": -2540.0}, "station"),
    ],
)
def test_inches_for_millimetres_are_asked_about(figures: dict[str, float], field: str) -> None:
    assert DEMO.fuselage is not None
    first = DEMO.fuselage.stations[0][0]
    fuselage = DEMO.fuselage.but(
        formers=tuple(
            one.but(**figures) if one.id == first else one for one in DEMO.fuselage.formers
        )
    )
    after = DEMO.but(fuselage=fuselage)
    found = oddities(DEMO, after)
    assert [(one.owner, one.field, one.value) for one in found] == [
        (first, field, *figures.values())
    ]
    assert first in asked_about(found[0])
    assert oddities(after, after.but(name="other")) == ()  # once believed, never asked about again


@pytest.mark.parametrize("demo", DEMOS, ids=lambda demo: demo.name)
def test_no_demo_is_asked_about(demo: Any) -> None:
    assert oddities_in(demo.make()) == ()


@pytest.mark.parametrize("kind", STARTERS, ids=lambda kind: kind.id)
@pytest.mark.parametrize(("span", "length"), [(400.0, 330.0), (1500.0, 1100.0), (4200.0, 3000.0)])
def test_no_usual_model_is_asked_about(kind: Starter, span: float, length: float) -> None:
    assert oddities_in(start_from(kind.id, span, length)) == ()


@given(builds())
def test_nothing_is_asked_of_a_build_that_stays(build: Build) -> None:
    assert oddities(build, build.but(name="another")) == ()


def test_every_length_of_an_airframe_says_what_is_usual() -> None:
    """A figure that is added to the file gets its bounds with its type, or this names it."""
    lacking: list[str] = []
    seen: set[type] = set()

    def walk(kind: type[BaseModel]) -> None:
        if kind in seen or kind.__module__.split(".")[1] not in (
            "fuselage",
            "tail",
            "balance",
            "build",
        ):
            return
        seen.add(kind)
        for name, field in kind.model_fields.items():
            stands = f"{field.annotation} {field.metadata}"
            bounded = "Usual(" in stands or "Le(le=1)" in stands or "Lt(lt=1)" in stands
            if "float" in stands and not bounded:
                lacking.append(f"{kind.__name__}.{name}")
            parts = [field.annotation]
            while parts:
                part = parts.pop()
                parts.extend(get_args(part))
                if isinstance(part, type) and issubclass(part, BaseModel):
                    walk(part)

    walk(Build)
    # angles, percents and tolerances have hard bounds of their own
    assert set(lacking) <= {
        "Member.angle", "Squaring.tolerances", "Controls.up", "Controls.down", "Linkage.travel",
        "Balance.target_percent", "TailSurface.hinge_at_chord",
    }  # fmt: skip


def test_a_file_with_such_a_figure_is_read_and_told_of(tmp_path: Any, capsys: Any) -> None:
    data = json.loads(text_of(DEMO))
    data["fuselage"]["formers"][2]["thickness"] = 254
    path = tmp_path / "thick.json"
    path.write_text(json.dumps(data))
    assert run_command(["parts", str(path)]) == 0
    told = capsys.readouterr()
    assert "thickness 254.00 mm = 10″ is unusual" in told.err
    assert "unusual" not in told.out


def test_more_than_one_is_counted() -> None:
    wings = tuple(wing.but(dihedral=50.0, incidence=40.0) for wing in DEMO.wings)
    told = looked_at(oddities(DEMO, DEMO.but(wings=wings)))
    assert told.endswith("So is one more figure.")
    assert looked_at(()) == ""
