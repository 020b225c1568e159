"""The body that a model describes: drawn in a building that has none, compared with what stands in one that has."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from nimble_shell.core.building.body import BuildingBody
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shell.project import Building
from nimble_shell.formats.reading.reading import ReadBody

_SAME = 0.002  #: of lengths [m]
_SAME_AREA = 0.01  #: [m²]
_SAME_ANGLE = 0.1  #: [°]


def body_from(read: ReadBody, building: Building, source: str) -> BuildingBody:
    """As the building would have it, counted with its first wall, roof and floor. Raises DomainError.

    No model says where its ground lies: it is taken at the foot of the walls until somebody types it.
    """

    def first(stations: str) -> str:
        return next((one.id for one in building.elements if one.station in stations), "")

    roof = Roof(form=read.form, pitch=read.pitch, towards=read.towards, overhang=read.overhang)
    return BuildingBody(id="b1", name=building.name[:80], outline=read.outline, storeys=read.storeys, base=read.base,
                        ground=read.base, roof=roof, wall=first("D"), top=first("B"), floor=first("HF"),
                        source=source)  # fmt: skip


def not_drawn(read: ReadBody) -> tuple[str, ...]:
    """What of a model its body does not have, in words with a way out."""
    if read.roof_known:
        return ()
    return (
        "its roof is none of those that are drawn: it stands flat until its form is chosen, or flat faces are added",
    )


def differences(read: ReadBody, building: Building) -> tuple[str, ...]:
    """What a file says otherwise than what is drawn, in words; nothing of it is taken."""
    return tuple(_differences(read, building))


def _differences(read: ReadBody, building: Building) -> Iterator[str]:
    bodies = building.bodies
    area = sum(shapely.Polygon(one.outline).area for one in bodies)
    theirs = shapely.Polygon(read.outline).area
    if abs(area - theirs) > _SAME_AREA:
        yield sentence("its plan has {a}, what is drawn {b}", a=(theirs, "area"), b=(area, "area"))
    eaves, its = max(one.eaves for one in bodies), read.base + sum(read.storeys)
    if abs(eaves - its) > _SAME:
        yield sentence("its eaves lie at {a}, those drawn at {b}", a=(its, "distance"), b=(eaves, "distance"))
    storeys = max(len(one.storeys) for one in bodies)
    if storeys != len(read.storeys):
        yield f"it has {len(read.storeys)} storeys, what is drawn {storeys}"
    roof = bodies[0].roof
    if roof.form != read.form:
        yield f"its roof is {_roof(read.form)}, the one drawn {_roof(roof.form)}"
    elif roof.form != "flat" and abs(roof.pitch - read.pitch) > _SAME_ANGLE:
        yield sentence("its roof pitches {a}, the one drawn {b}", a=(read.pitch, "angle"), b=(roof.pitch, "angle"))
    if abs((building.north - read.north + 180) % 360 - 180) > _SAME_ANGLE:
        yield sentence("the top of its plan faces {a}, of the one drawn {b}", a=(read.north, "angle"),
                       b=(building.north, "angle"))  # fmt: skip


def _roof(form: str) -> str:
    return form if form == "flat" else f"of {form}" if "pitch" in form else "a hip"
