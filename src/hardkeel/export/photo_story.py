"""The photos of a truing record: each with the true airframe and the one that stands there over it, and its figures."""

import io
from collections.abc import Mapping
from typing import Final

from hardkeel.base.units import LengthUnit
from hardkeel.export.stationery import (
    WIDTH,
    Canvas,
    Color,
    Flowable,
    HexColor,
    ImageReader,
    KeepTogether,
    Paragraph,
    Styles,
    black,
    mm,
    safe,
    white,
)
from hardkeel.messages import sight as say
from hardkeel.messages.advice import suspect_sentence
from hardkeel.picture.photo import OverPhoto, Pixel, over_photo
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.sighting import photo_view

_FACTOR: Final = 10.0
_HIGHEST: Final = 110 * mm
_LINES: Final = {
    "out": HexColor(0xB3261E),
    "true": HexColor(0x0B6E4F),
    "unsure": HexColor(0x0B5A6E),
}
_CLICK: Final = 1.6 * mm


class PhotoFlow(Flowable):
    """A photo with lines over it.

    Parameters
    ----------
    size : (int, int)
        Of the whole picture, pixels: what the lines are counted in.
    """

    def __init__(
        self, data: bytes, size: tuple[int, int], over: OverPhoto, clicks: tuple[Pixel, ...]
    ) -> None:
        super().__init__()
        self._image = ImageReader(io.BytesIO(data))
        self._over, self._clicks = over, clicks
        self._scale = min(WIDTH / size[0], _HIGHEST / size[1])
        self.width, self.height = size[0] * self._scale, size[1] * self._scale

    def wrap(self, _width: float, _height: float) -> tuple[float, float]:
        """As large as it is."""
        return self.width, self.height

    def draw(self) -> None:
        """Photo, true airframe, estimate, clicks."""
        canvas: Canvas = self.canv
        canvas.saveState()
        canvas.drawImage(self._image, 0, 0, self.width, self.height)
        clip = canvas.beginPath()
        clip.rect(0, 0, self.width, self.height)
        canvas.clipPath(clip, stroke=0)
        for line in self._over.hull:
            self._line(canvas, line, white, 0.4, closed=False)
        for outline in self._over.wanted:
            self._line(canvas, outline.points, white, 0.7, closed=True)
        for outline in self._over.estimated:
            colour = _LINES.get(outline.verdict or "unsure", black)
            self._line(canvas, outline.points, colour, 1.1, closed=True)
        canvas.setStrokeColor(white)
        canvas.setLineWidth(0.6)
        for u, v in self._clicks:
            canvas.circle(u * self._scale, self.height - v * self._scale, _CLICK)
        canvas.restoreState()

    def _line(
        self,
        canvas: Canvas,
        points: tuple[Pixel, ...],
        colour: Color,
        width: float,
        *,
        closed: bool,
    ) -> None:
        if not points:
            return
        path = canvas.beginPath()
        for i, (u, v) in enumerate(points):
            to = path.lineTo if i else path.moveTo
            to(u * self._scale, self.height - v * self._scale)
        if closed:
            path.close()
        canvas.setStrokeColor(colour)
        canvas.setLineWidth(width)
        canvas.drawPath(path, stroke=1, fill=0)


def photo_story(
    build: Build,
    judgement: Judgement,
    unit: LengthUnit,
    styles: Styles,
    attached: Mapping[str, bytes],
) -> list[Flowable]:
    """Each photo in use that is here, with what is said of it; nothing where there is none."""
    found: list[Flowable] = []
    survey = build.surveyed
    for photo in survey.photos:
        view, data = photo_view(judgement, photo.id), attached.get(photo.image)
        if view is None:
            continue
        clicks = tuple(one.value for one in judgement.sightings if one.photo == photo.id)
        lines = [say.clicked_words(photo.id, len(clicks)), say.view_words(view, unit)]
        lines += [
            suspect_sentence(survey, judgement, one, unit)
            for one in judgement.outliers
            if (sight := survey.sighting(one.reading)) is not None and sight.photo == photo.id
        ]
        story: list[Flowable] = []
        if data is not None:
            over = over_photo(build, judgement, photo.id, _FACTOR)
            story += [
                PhotoFlow(data, photo.size, over, clicks),
                Paragraph(safe(say.PRINTED_LEGEND.format(factor=_FACTOR)), styles.small),
            ]
        story += [Paragraph(safe(line), styles.text) for line in lines]
        if not found:
            story.insert(0, Paragraph(say.SIGHT, styles.heading))
        found.append(KeepTogether(story))
    return found
