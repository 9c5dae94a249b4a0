"""The record's pages of Tail: each surface, what it is of and weighs, its sticks, what moves, how flat it was."""

from hardkeel.airframe.tails import clashes_in, frame_choices, passing_in, tail_mass, volumes_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.cut_table import cut_table
from hardkeel.export.stationery import Flowable, Paragraph, Styles, safe
from hardkeel.messages import flat as say_flat
from hardkeel.messages import tail as say
from hardkeel.project.model import Build
from hardkeel.tail.controls import hinge_stations, mismatch_of
from hardkeel.tail.flatness import PHASES, flatness_of
from hardkeel.tail.kinds import has
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import cut_list_of_tail


def tail_story(build: Build, unit: LengthUnit, styles: Styles) -> list[Flowable]:
    """Every surface that says how it is built; nothing where none does."""
    story: list[Flowable] = []
    built = [surface for surface in build.tail if surface.kind is not None]
    for surface in built:
        story.append(Paragraph(safe(say.surface_title(surface)), styles.heading))
        try:
            story += _surface(build, surface, unit, styles)
        except BadInput as fault:  # a section that is lost: the rest of the record stands
            story.append(Paragraph(safe(str(fault)), styles.text))
    if built:
        try:
            told = say.clash_sentences(clashes_in(build), unit) or [say.MOVES_FREE]
        except BadInput:
            told = []
        story += [Paragraph(safe(text), styles.text) for text in told]
    return story


def _surface(
    build: Build, surface: TailSurface, unit: LengthUnit, styles: Styles
) -> list[Flowable]:
    kind = say.kind_words(surface)
    weighs = f"{kind[:1].upper()}{kind[1:]}, {say.grams(tail_mass(build, surface))}"
    lines = [f"{weighs}; {say.volume_sentence(surface, volumes_of(build, surface))}"]
    if has(surface, "bracing"):
        lines.append(say.pinch_sentence(frame_choices(build, surface)[0], unit))
    stations = hinge_stations(surface, build.profiles)
    lines += [say.hinge_sentence(stations[0], unit, upright=surface.upright)] if stations else []
    lines += [
        one for one in [say.mismatch_sentence(mismatch_of(surface, build.profiles), unit)] if one
    ]
    ways = passing_in(build, surface)
    lines += [say.passing_sentence(ways, unit)] if ways else []
    for phase in PHASES:
        flat = flatness_of(surface, phase)
        if flat is not None:
            sentence = say_flat.flat_sentence(flat, unit, upright=surface.upright)
            words = say.FLAT_PHASES[phase]
            lines.append(f"{words[:1].upper()}{words[1:]}: {say_flat.flat_answer(flat)} {sentence}")
    story: list[Flowable] = [Paragraph(safe(text), styles.text) for text in lines]
    parts = cut_list_of_tail(surface, build.profiles)
    return [*story, cut_table(parts, "Part", unit, styles)] if parts else story
