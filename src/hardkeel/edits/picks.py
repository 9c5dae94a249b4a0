"""What was picked off a plan made the fuselage's figures, and what that changes."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.edits.fuselage import with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.model import TAIL_POST, Former, Fuselage, TailPost
from hardkeel.paper.model import KnownPoint
from hardkeel.paper.picking import Picked
from hardkeel.project.model import Build

Ends = Literal["post", "former"]  # what the last station picked is

FIGURES: Final = ("station", "half_width", "bottom", "top")  # of a stop, that a plan gives
_ENDS: Final = ("top", "bottom")
_POST_WORDS: Final = ("post", "tail post", "tailpost")
_SAME_STATION_MM: Final = 1.5  # a station picked this near to a former is that former's
_ALIKE_MM: Final = 0.05  # figures that differ by less are the same


@dataclass(frozen=True, slots=True)
class Taking:
    """What taking the picks does at one stop.

    Attributes
    ----------
    stop : str
        Id of the former, or of the tail post.
    was, now : Former or TailPost or None
        Before and after; ``was`` is ``None`` for one that is added.
    """

    stop: str
    was: Former | TailPost | None
    now: Former | TailPost

    @property
    def corners(self) -> tuple[str, ...]:
        """Lines that get a corner here which they had not."""
        before = self.was.line_corners if isinstance(self.was, Former) else ()
        after = self.now.line_corners if isinstance(self.now, Former) else ()
        return tuple(line for line in after if line not in before)

    @property
    def kind(self) -> Literal["added", "changed", "left"]:
        """What becomes of it; what stays within a twentieth of a millimetre, its corners too, is left."""
        if self.was is None:
            return "added"
        if self.corners:
            return "changed"
        pairs = ((getattr(self.was, key), getattr(self.now, key)) for key in FIGURES)
        return "changed" if any(abs(a - b) > _ALIKE_MM for a, b in pairs) else "left"


def takings(build: Build, picked: Iterable[Picked], *, ends: Ends = "post") -> tuple[Taking, ...]:
    """What taking picks would do, stop by stop from the nose; the build stays as it is.

    Raises
    ------
    BadInput
        As `take_picks`.
    """
    before = dict(build.fuselage.stations) if build.fuselage is not None else {}
    after = take_picks(build, tuple(picked), ends=ends).fuselage
    stops = after.stations if after is not None else ()
    return tuple(Taking(name, before.get(name), now) for name, now in stops)


def point_named(fuselage: Fuselage | None, pixel: Point2, text: str) -> KnownPoint | None:
    """A known point told by what it is: ``F5 top``, ``post bottom``, ``F3`` (on the datum line); ``None`` for other words.

    Raises
    ------
    BadInput
        Where it names an end of a former that is not there.
    """
    words = text.split()
    end = words[-1].lower() if len(words) > 1 else ""
    name = " ".join(words[:-1] if end in _ENDS else words)
    if name.lower() in _POST_WORDS:
        name = TAIL_POST
    stops = dict(fuselage.stations) if fuselage is not None else {}
    known = next((stop for key, stop in stops.items() if key.lower() == name.lower()), None)
    if known is None:
        if end in _ENDS:
            raise BadInput("", f"no former {name}: its place must be known before")
        return None
    height = {"top": known.top, "bottom": known.bottom}.get(end, 0.0)
    return KnownPoint(pixel=pixel, plan=(known.station, height), of=" ".join(words))


def ends_with(fuselage: Fuselage | None, rows: Sequence[Picked]) -> Ends:
    """What the last station is, as far as it shows: a former where it lies nearer to the last former than to the tail post."""
    if fuselage is None or fuselage.tail_post is None or not fuselage.formers or not rows:
        return "post"
    half_way = (fuselage.formers[-1].station + fuselage.tail_post.station) / 2
    return "former" if rows[-1].station < half_way else "post"


@edit
def take_picks(build: Build, picked: Iterable[Picked], *, ends: Ends = "post") -> Build:
    """Make picked points the airframe's figures; the last station is the tail post, or a former as the others.

    A station within a millimetre and a half of a former becomes that former's; others make new ones;
    formers that were not picked stay as they are.

    Raises
    ------
    BadInput
        When a station has no half-width, top or bottom yet, or a former that was not picked would stand
        behind the tail post.
    """
    rows = list(picked)
    if len(rows) < 2:  # noqa: PLR2004  nose and tail post
        raise BadInput("stations", "click at least two stations")
    for row in rows:
        lacking = [
            word
            for word, value in (
                ("half-width", row.half_width),
                ("bottom", row.bottom),
                ("top", row.top),
            )
            if value is None
        ]
        if lacking:
            raise BadInput("", f"the station at {row.station:.0f} mm has no {lacking[0]} yet")
    fuselage = build.fuselage or Fuselage()
    last = rows[-1]
    formers = _picked_formers(fuselage, rows if ends == "former" else rows[:-1])
    post = fuselage.tail_post
    if ends == "post":
        post = (post or _post_of(last)).but(**_figures(last))
    behind = [former for former in formers if post is not None and former.station >= post.station]
    if behind and ends == "former":
        raise BadInput(
            "",
            f"{behind[-1].id} at {behind[-1].station:.0f} mm would stand behind the tail post: is the last one the post?",
        )
    if behind and post is not None:
        raise BadInput(
            "",
            f"{behind[0].id} at {behind[0].station:.0f} mm was not picked and stands behind the tail "
            f"post at {post.station:.0f} mm: pick its station, or take it out first",
        )
    names = {former.id for former in formers} | {TAIL_POST}
    sections = tuple(s for s in fuselage.sections if s.from_ in names and s.to in names)
    return with_fuselage(
        build,
        fuselage.but(
            formers=tuple(sorted(formers, key=lambda one: one.station)),
            tail_post=post,
            sections=sections,
        ),
    )


def unpicked(fuselage: Fuselage | None, rows: Sequence[Picked]) -> tuple[str, ...]:
    """Formers whose station was not picked: they stay as they are."""
    formers = fuselage.formers if fuselage is not None else ()
    return tuple(
        former.id
        for former in formers
        if all(abs(former.station - row.station) > _SAME_STATION_MM for row in rows)
    )


def _picked_formers(fuselage: Fuselage, rows: Sequence[Picked]) -> list[Former]:
    """The formers with what was picked: those picked anew, new ones between them, the rest as they are."""
    kept = {former.id: former for former in fuselage.formers}
    used = set(kept)
    for number, row in enumerate(rows, start=1):
        near = [f for f in kept.values() if abs(f.station - row.station) <= _SAME_STATION_MM]
        if near:
            kept[near[0].id] = _with_corners(near[0].but(**_figures(row)), row)
            continue
        name = f"F{number}"
        while name in used:
            number += 1  # noqa: PLW2901  the next name that is free
            name = f"F{number}"
        used.add(name)
        kept[name] = _with_corners(Former.model_validate({"id": name, **_figures(row)}), row)
    return list(kept.values())


def _with_corners(former: Former, row: Picked) -> Former:
    """A former with the corners that the sheet's lines have there; those said before stay."""
    more = tuple(line for line in row.corners if line not in former.line_corners)
    return former.but(line_corners=(*former.line_corners, *more)) if more else former


def _figures(row: Picked) -> dict[str, float | None]:
    return {key: getattr(row, key) for key in FIGURES}


def _post_of(row: Picked) -> TailPost:
    return TailPost.model_validate(_figures(row))
