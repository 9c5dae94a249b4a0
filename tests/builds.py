"""Random but sound builds for property tests."""

from hypothesis import strategies as st

from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.balance.model import Balance, Battery, Hatch, Mass
from hardkeel.fuselage.model import CutOut, Former, Fuselage, Longeron, Section, TailPost, Template
from hardkeel.paper.model import KnownLength, KnownPoint, Pair, Plan, PrintedSheet, Trace
from hardkeel.parts.model import STATES, Ledger, Listed, OwnWood
from hardkeel.project.model import Build

figures = st.floats(-400, 400).map(lambda x: round(x, 3))
sizes = st.floats(0.5, 400).map(lambda x: round(x, 3))
names = st.text(
    alphabet="abcdefghijklmnopqrstuvwxyzäöFßé_-0123456789 ", min_size=1, max_size=14
).filter(lambda text: bool(text.strip()))
pixels = st.tuples(st.floats(0, 6000), st.floats(0, 2000)).map(
    lambda p: (round(p[0], 2), round(p[1], 2))
)


@st.composite
def fuselages(draw: st.DrawFn) -> Fuselage:
    """Two to ten formers and a tail post at rising stations."""
    count = draw(st.integers(2, 10))
    gaps = draw(st.lists(st.floats(8, 160), min_size=count, max_size=count))
    stations = [round(sum(gaps[:i]), 2) for i in range(count + 1)]
    formers = []
    for i in range(count):
        low = draw(st.floats(-90, 0))
        formers.append(
            Former(
                id=f"F{i + 1}",
                station=stations[i],
                bottom=round(low, 2),
                top=round(low + draw(st.floats(15, 140)), 2),
                half_width=round(draw(st.floats(6, 70)), 2),
                corner=round(draw(st.sampled_from([0.0, 4.0, 30.0])), 2),
                lightened=draw(st.booleans()),
                thickness=draw(st.sampled_from([None, 3.0])),
                cutouts=draw(st.sampled_from([(), (CutOut(id="c", width=9.0, height=7.0),)])),
                template=draw(st.sampled_from([None, Template(half_width=20, bottom=-9, top=9)])),
            )
        )
    post = TailPost(station=stations[-1], bottom=0.0, top=12.0, half_width=3.0)
    section = Section(
        from_="F1", to="tail_post", method=draw(st.sampled_from(["sheet-sides", "crutch"]))
    )
    return Fuselage(
        side_thickness=draw(st.sampled_from([0.0, 1.5, 3.0])),
        side_material="balsa-medium",
        top_skin=draw(st.sampled_from([0.0, 1.5])),
        bottom_skin=1.0,
        formers=tuple(formers),
        tail_post=post,
        sections=(section,),
        longerons=draw(st.sampled_from([(), (Longeron(id="upper", section=(5.0, 4.0)),)])),
    )


pairs = st.builds(
    Pair,
    part=st.none() | names,
    direction=st.sampled_from(["x", "y"]),
    kind=st.sampled_from(["outline", "spacing", "bent-length"]),
    plan=st.floats(10, 900),
    measured=st.floats(10, 900),
    sigma=st.sampled_from([0.2, 0.3, 0.8]),
)
sheets = st.lists(names, max_size=3, unique=True).flatmap(
    lambda ids: st.tuples(
        *(
            st.builds(PrintedSheet, id=st.just(i), pairs=st.lists(pairs, max_size=6).map(tuple))
            for i in ids
        )
    )
)
masses = st.lists(names, max_size=6, unique=True).flatmap(
    lambda ids: st.tuples(
        *(
            st.builds(
                Mass, id=st.just(f"m {i}"), mass=st.floats(0, 900), x=figures, weighed=st.booleans()
            )
            for i in ids
        )
    )
)
balances = st.builds(
    Balance,
    target_percent=st.none() | st.floats(0, 70),
    target_x=st.none() | figures,
    battery=st.none()
    | st.builds(
        Battery,
        id=st.just("pack"),
        mass=st.floats(1, 900),
        between=st.none() | st.tuples(st.floats(-90, 50), st.floats(51, 300)),
        size=st.none() | st.tuples(sizes, sizes, sizes),
    ),
    nose_weight_x=st.none() | figures,
    hatches=st.just(()) | st.just((Hatch(id="belly", between=(1.0, 90.0), width=40.0),)),
)
ledgers = st.builds(
    Ledger,
    states=st.dictionaries(names, st.sampled_from(STATES), max_size=4),
    weighed=st.dictionaries(names, st.floats(0.1, 500), max_size=4),
    pairs=st.dictionaries(names, st.sampled_from(["mirrored", "same"]), max_size=2),
    printed=st.lists(st.builds(Listed, name=names, quantity=st.integers(0, 9)), max_size=4).map(
        tuple
    ),
    woods=st.dictionaries(
        st.just("spruce"), st.builds(OwnWood, density=st.floats(1, 900)), max_size=1
    ),
)
plans = st.builds(
    Plan,
    id=st.just("p"),
    image=st.just("plans/abc.png"),
    photo=st.booleans(),
    lengths=st.lists(st.builds(KnownLength, a=pixels, b=pixels, length=sizes), max_size=2).map(tuple),
    points=st.lists(st.builds(KnownPoint, pixel=pixels, plan=st.tuples(figures, figures)), max_size=3).map(tuple),
    traces=st.lists(st.builds(Trace, id=names, kind=st.just("stations"), pixels=st.lists(pixels, max_size=3).map(tuple)), max_size=2).map(tuple),
    origin=st.none() | pixels,
)  # fmt: skip


@st.composite
def builds(draw: st.DrawFn) -> Build:
    """A starter with any of the sections of Lay out."""
    kind = draw(st.sampled_from([one.id for one in STARTERS]))
    span = draw(st.floats(500, 2500))
    build = start_from(kind, round(span, 1), round(span * draw(st.floats(0.7, 1.2)), 1))
    return build.but(
        audit=draw(sheets),
        masses=draw(masses),
        balance=draw(st.none() | balances),
        ledger=draw(st.none() | ledgers),
        plans=draw(st.lists(plans, max_size=1).map(tuple)),
    )
