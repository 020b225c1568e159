"""What panels leave open: faces that cannot be set out, joints pinned badly, weights, anchors, panels out of square."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace

from nimble_shell.core.quantities.sentence import composed, sentence
from nimble_shell.core.setout.anchoring import NoAnchor, anchors_of
from nimble_shell.core.setout.choices import MOST_PEOPLE
from nimble_shell.core.setout.faces import FaceSetOut, set_out_unpinned
from nimble_shell.core.setout.panels import NoWay, SetOut
from nimble_shell.core.setout.rules import COUNTED
from nimble_shell.core.shell.decisions import OpenDecision, WayOut
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.set_out import BuildingSetOut
from nimble_shell.core.shop.laydown import FOUR, check, laydown, measured_of

_WORDS = {"panels": ("panel", "panels"), "off_module": ("panel off the module", "panels off the module"),
          "members": ("joint", "joints"), "lopsided": ("joint without its image", "joints without their image"),
          "astray": ("joint off those below", "joints off those below")}  # fmt: skip


def panel_decisions(building: MeasuredBuilding, found: BuildingSetOut) -> Iterator[OpenDecision]:
    """Of a building as it is set out, and of its panels as they were measured on the bed."""
    stations = {one.id: one.station for one in building.elements}
    for face in found.faces:
        station = stations[face.zone]
        if isinstance(face.found, NoWay):
            yield OpenDecision(key=f"face-{face.face}", matter="set-out", state="open", step=6, station=station,
                               id=face.face, text=composed(f"Face {face.mark} cannot be set out: {{why}}",
                                                           why=face.found.reason))  # fmt: skip
            continue
        yield from _pins(building, face, face.found, station)
        yield from _anchors(building, face, station)
    yield from _weights(building, found)
    yield from _readings(building, found, stations)


def _pins(building: MeasuredBuilding, face: FaceSetOut, now: SetOut, station: str) -> Iterator[OpenDecision]:
    """Joints that cost what counts, where they are pinned."""
    if not face.pins:
        return
    free = set_out_unpinned(face, building.setout)
    if isinstance(free, NoWay):
        return
    for term in (one for one in building.setout.order if one in COUNTED):
        more = getattr(now.sum, term) - getattr(free.sum, term)
        if more < 0:
            return
        if more:
            stored = building.as_stored()
            left = tuple(one for one in stored.setout.pins if one.face != face.face)
            way = WayOut(text=f"Let the joints of {face.mark} go where they are best",
                         changed=replace(stored, setout=replace(stored.setout, pins=left)))  # fmt: skip
            word = _WORDS[term][more != 1]
            yield OpenDecision(key=f"pins-{face.face}", matter="set-out", state="open", step=6, station=station,
                               id=face.face, text=f"Face {face.mark}: its pinned joints cost {more} {word}",
                               ways=(way,))  # fmt: skip
            return


def _anchors(building: MeasuredBuilding, face: FaceSetOut, station: str) -> Iterator[OpenDecision]:
    wrong = [one for one in anchors_of(face, building.setout.anchors) if isinstance(one, NoAnchor) or one.problem]
    if wrong:
        first = wrong[0]
        why = first.reason if isinstance(first, NoAnchor) else first.problem
        yield OpenDecision(key=f"anchors-{face.face}", matter="set-out", state="open", step=6, station=station,
                           id=face.face, view="fittings",
                           text=composed(f"Face {face.mark}: “{{name}}” {'and others ' if wrong[1:] else ''}"
                                         "as entered meets what stands there: {why}", name=first.name, why=why),
                           ways=(WayOut(text="The engineer moves them, or a joint is pinned elsewhere"),))  # fmt: skip


def _weights(building: MeasuredBuilding, found: BuildingSetOut) -> Iterator[OpenDecision]:
    choices = building.setout
    if choices.crane:
        return
    heavy = [one for face in found.faces for one in face.panels if choices.wants_crane(one.panel.mass)]
    if heavy:
        worst = max(heavy, key=lambda one: one.panel.mass)
        count = f"{len(heavy)} panels are" if len(heavy) > 1 else "a panel is"
        limit = MOST_PEOPLE * choices.people_kg
        stored = building.as_stored()
        yield OpenDecision(
            key="by-hand", matter="set-out", state="open", step=6, view="timber",
            text=sentence(f"There is no crane, and {count} more than {MOST_PEOPLE} people carry: {worst.mark} has "
                          "{m}, they carry {l}", m=(worst.panel.mass, "mass"), l=(limit, "mass")),
            ways=(
                WayOut(text=sentence("No panel heavier than {l}", l=(limit, "mass")),
                       changed=replace(stored, setout=replace(stored.setout, heaviest=limit))),
                WayOut(text="A crane comes", changed=replace(stored, setout=replace(stored.setout, crane=True))),
            ),
        )  # fmt: skip


def _readings(building: MeasuredBuilding, found: BuildingSetOut, stations: Mapping[str, str]) -> Iterator[OpenDecision]:
    """Panels that lay out of square when they were read last."""
    panels = {one.mark: (face, one.panel.piece) for face in found.faces for one in face.panels}
    for read in building.shop.readings:
        face, piece = panels.get(read.panel, (None, None))
        if face is None or piece is None or len(piece.outline) != FOUR:
            continue
        done = check(laydown(piece.outline), measured_of([one * 1000 for one in read.read]))
        if done.worst > building.shop.tolerance * 1000 + 1e-6:
            yield OpenDecision(
                key=f"square-{read.panel}", matter="set-out", state="open", step=8, station=stations[face.zone],
                view="laydown",
                text=sentence(f"{read.panel} lies out of square: a reading is off by {{w}}, allowed {{t}}",
                              w=(done.worst / 1000, "length"), t=(building.shop.tolerance, "length")),
                ways=(WayOut(text="Rack it on the bed and read it again", step=8, view="laydown"),),
            )  # fmt: skip
