"""Hatches as data: the same drawing of a material on screen, on paper and in a chart. Sizes in px at 1x."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.materials.material import Hatching


@dataclass(frozen=True, slots=True)
class Stroke:
    """A drawn line."""

    d: str  #: SVG path data
    pen: float


@dataclass(frozen=True, slots=True)
class Dot:
    """A drawn grain."""

    x: float
    y: float
    r: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Hatch:
    """A tile that repeats."""

    width: float
    height: float
    strokes: tuple[Stroke, ...] = ()
    dots: tuple[Dot, ...] = ()
    opacity: float = 1.0


HATCHES: dict[Hatching, Hatch] = {
    "foam": Hatch(width=14, height=14, opacity=0.55,
                  strokes=(Stroke("M3.5 0L7 3.5 3.5 7 0 3.5ZM10.5 7L14 10.5 10.5 14 7 10.5Z", 0.6),)),
    "fibre": Hatch(width=16, height=20, opacity=0.7,
                   strokes=(Stroke("M0 5C4 0 4 10 8 5S12 0 16 5M0 15C4 20 4 10 8 15S12 20 16 15", 0.6),)),
    "straw": Hatch(width=24, height=14, opacity=0.75,
                   strokes=(Stroke("M1 3L11 1M13 5L23 3M3 9L12 11M14 12L22 8M6 6L10 7", 0.6),)),
    "osb": Hatch(width=23, height=17,
                 strokes=(Stroke("M1 3l6 1M10 1l5 3M18 4l4-2M3 9l4-3M9 8l7-1M19 8l3 4M1 14l5-1M8 13l4 3M14 13l6 0", 0.8),)),
    "timber": Hatch(width=16, height=16,
                    strokes=(Stroke("M0 16L16 0M-4 4L4 -4M12 20L20 12", 0.7), Stroke("M0 11L11 0M5 16L16 5", 0.35))),
    "grain": Hatch(width=9, height=60,
                   strokes=(Stroke("M1.5 0C2.5 20 .5 40 1.5 60M5 0C4 15 6.5 30 5 60M8 0C8.6 22 7 38 8 60", 0.55),)),
    "board": Hatch(width=8, height=8, dots=(Dot(2, 2, 0.6), Dot(6, 5.6, 0.6), Dot(1.4, 6.4, 0.4))),
    "concrete": Hatch(width=34, height=34, strokes=(Stroke("M5 9l5-5 2 6zM22 25l6-2-2 6zM25 6l4 3-5 2z", 0.75),),
                      dots=(Dot(16, 4, 0.7), Dot(3, 20, 0.7), Dot(12, 17, 0.6), Dot(20, 15, 0.8), Dot(31, 18, 0.6), Dot(9, 28, 0.8),
                            Dot(17, 30, 0.6), Dot(32, 31, 0.7))),
    "masonry": Hatch(width=20, height=20, strokes=(Stroke("M-2 22L22 -2M8 22L22 8M-2 12L12 -2", 0.5),)),
    "gravel": Hatch(width=22, height=16,
                    strokes=(Stroke("M1 4a4 2.6 0 1 0 8 0a4 2.6 0 1 0-8 0M11.4 5a4.6 3 0 1 0 9.2 0a4.6 3 0 1 0-9.2 0"
                              "M5.6 12a4.4 2.8 0 1 0 8.8 0a4.4 2.8 0 1 0-8.8 0", 0.7),)),
    "earth": Hatch(width=26, height=26,
                   strokes=(Stroke("M1 11L11 1M5 13L13 5M9 15l6-6M14 25l6-6M17 26l8-8M13 18l3-3", 0.7),)),
    "glass": Hatch(width=12, height=18, strokes=(Stroke("M2 12L8 4M5 14L11 6", 0.7),)),
    "steel": Hatch(width=8, height=8, strokes=(Stroke("M0 8L8 0M2 8L8 2M-2 2L2 -2M6 10L10 6", 0.9),)),
    "membrane": Hatch(width=4, height=10, strokes=(Stroke("M2 0L2 6", 1.6),)),
}  # fmt: skip
