"""What to begin a unit with until its maker has declared it: frames, glazings and the edge between them."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class FrameStart:
    """A frame by its material."""

    key: str
    name: str
    U: float  #: [W/(m²·K)]
    visible: float  #: width of frame and sash together [m]
    deep: float  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class GlassStart:
    """A glazing by its panes."""

    key: str
    name: str
    panes: int
    U: float  #: of its centre [W/(m²·K)]
    g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SpacerStart:
    """An edge of the glass, by the frame that it lies in."""

    key: str
    name: str
    psi: float  #: [W/(m·K)]


#: Usual values of new units; whoever orders one has its maker's own.
FRAMES: tuple[FrameStart, ...] = (
    FrameStart(key="timber", name="timber, 80 deep", U=1.2, visible=0.11, deep=0.08),
    FrameStart(key="timber-foam", name="timber with a foam core", U=0.85, visible=0.12, deep=0.1),
    FrameStart(key="plastic", name="plastic, six chambers", U=1.1, visible=0.115, deep=0.08),
    FrameStart(key="metal-break", name="metal with a thermal break", U=1.6, visible=0.09, deep=0.075),
)
GLASSES: tuple[GlassStart, ...] = (
    GlassStart(key="double", name="two panes, one coating, argon", panes=2, U=1.1, g=0.6),
    GlassStart(key="triple", name="three panes, two coatings, argon", panes=3, U=0.6, g=0.5),
    GlassStart(key="triple-sun", name="three panes, for much sun", panes=3, U=0.7, g=0.62),
    GlassStart(key="triple-shade", name="three panes, against the sun", panes=3, U=0.6, g=0.3),
)
#: ISO 10077-1:2017, annex G, for low-emissivity glazing: ordinary spacers (table G.1) and improved ones (table G.2).
SPACERS: tuple[SpacerStart, ...] = (
    SpacerStart(key="metal", name="aluminium or steel, in timber or plastic", psi=0.08),
    SpacerStart(key="improved", name="thermally improved, in timber or plastic", psi=0.06),
    SpacerStart(key="metal-metal", name="aluminium or steel, in metal with a break", psi=0.11),
    SpacerStart(key="improved-metal", name="thermally improved, in metal with a break", psi=0.08),
)
