"""Any wall at all, within reason."""

from __future__ import annotations

from hypothesis import strategies as st

from nimble_shell.core.thermal.element import Element, ElementLayer, Part

thickness = st.floats(min_value=0.001, max_value=0.5)
conductivity = st.floats(min_value=0.02, max_value=3.0)
temperature = st.floats(min_value=-40, max_value=50)


@st.composite
def homogeneous(draw: st.DrawFn, name: str = "layer") -> ElementLayer:
    return ElementLayer(name=name, d=draw(thickness), parts=(Part(lambda_=draw(conductivity)),))


@st.composite
def bridged(draw: st.DrawFn, name: str = "bridged") -> ElementLayer:
    f = draw(st.floats(min_value=0.01, max_value=0.5))
    parts = (Part(f=1 - f, lambda_=draw(conductivity)), Part(f=f, lambda_=draw(conductivity)))
    return ElementLayer(name=name, d=draw(thickness), parts=parts, group=draw(st.sampled_from(["", "own"])) and name)


@st.composite
def tabled(draw: st.DrawFn, name: str = "foam") -> ElementLayer:
    at = sorted(draw(st.lists(st.integers(-30, 45), min_size=1, max_size=5, unique=True)))
    table = tuple((float(theta), draw(conductivity)) for theta in at)
    return ElementLayer(name=name, d=draw(thickness), parts=(Part(lambda_=table[0][1], table=table),))


@st.composite
def elements(draw: st.DrawFn, *, tables: bool = False, bridges: bool = True) -> Element:
    kinds = [homogeneous()] + ([bridged()] if bridges else []) + ([tabled()] if tables else [])
    count = draw(st.integers(1, 5))
    layers = tuple(draw(st.one_of(kinds)) for _ in range(count))
    layers = tuple(
        ElementLayer(name=f"{one.name} {n}", d=one.d, parts=one.parts, group=one.group and f"g{n}")
        for n, one in enumerate(layers)
    )
    R_si, R_se = draw(st.floats(min_value=0.04, max_value=0.2)), draw(st.floats(min_value=0.02, max_value=0.2))
    return Element(layers=layers, R_si=R_si, R_se=R_se)
