"""Faces of a set-out as they are drawn and listed: panels, joints, plates, anchors, and what is fitted into them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.quantities.sentence import composed
from nimble_shell.core.setout.alike import Alike, Hand, alike
from nimble_shell.core.setout.anchoring import Anchor, NoAnchor, anchors_of
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.elevation import bands_of
from nimble_shell.core.setout.entered import AnchorKind, Sensor, Way
from nimble_shell.core.setout.faces import FaceSetOut, module_in
from nimble_shell.core.setout.panels import NoWay, Panel, SetOut
from nimble_shell.core.setout.partition import Sum
from nimble_shell.core.setout.pieces import Piece
from nimble_shell.core.setout.plates import Line
from nimble_shell.core.setout.points import NoPoint
from nimble_shell.core.setout.strips import M2
from nimble_shell.core.shell.face_edges import FaceEdge, beside, edges_of_faces
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.set_out import BuildingSetOut
from nimble_shell.core.shop.cut_list import face_plates
from nimble_shell.core.shop.screwing import screwed
from nimble_shell.core.shop.works import fittings_of
from nimble_shell.core.takeoff.module_fit import off_module

_NEAR = 1e-6
_M = 1000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnJoint:
    """A joint on its face."""

    storey: int
    layer: int
    u: float  #: from the face's left end [m]
    bottom: float  #: [m]
    top: float
    post: bool  #: whether it stands at an opening's edge
    pinned: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnPanel:
    """A panel on its face. [m]"""

    mark: str
    storey: int
    layer: int
    u0: float
    u1: float
    v0: float
    v1: float
    outline: tuple[tuple[float, float], ...]
    openings: tuple[str, ...]  #: marks of those that it holds or is notched for
    area: float  #: [m²]
    mass: float  #: [kg]
    people: int  #: that carry it
    crane: bool  #: whether it is more than people carry
    left: str  #: what stands at its left edge, or the joint of the building there
    right: str
    foot: str  #: the joint of the building there; empty between storeys
    head: str
    shape: int  #: panels with the same number are alike
    hand: Hand  #: of those that are one another's mirror image
    off_module: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOpening:
    """An opening on its face. [m]"""

    id: str
    mark: str
    u: float
    v: float
    w: float
    h: float
    off_module: float  #: of its nearer edge from the nearest module line


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnPlate:
    """A run of plate with its butt joints. [m]"""

    storey: int
    line: Line
    n: int  #: of several on one line, the lowest is nought
    u0: float
    v0: float
    u1: float
    v1: float
    butts: tuple[float, ...]
    reason: str  #: why it cannot be cut from stock


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnPost:
    """A post under a load. [m]"""

    storey: int
    u: float  #: of its middle
    width: float
    bottom: float
    top: float
    load: float | None  #: [N]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnAnchor:
    """An anchor at the foot of a wall. [m]"""

    name: str
    kind: AnchorKind
    u: float
    v: float
    panel: str
    problem: str


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnFitting:
    """A sensor or a socket with the way that leads to it. [m]"""

    kind: Literal["sensor", "socket"]
    name: str
    u: float
    v: float
    depth: float
    way: Way
    panel: str  #: that it is in; empty where it is in none


@dataclass(frozen=True, slots=True, kw_only=True)
class HoldPoint:
    """What has to be looked at before it is covered."""

    what: str  #: a sentence
    panel: str  #: that covers it


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnSetOut:
    """A face as it is set out."""

    face: str
    mark: str
    kind: str
    element: str
    assembly: str  #: id of its build-up
    words: str  #: how its system is cut
    spline: str  #: what stands at its joints
    module: float  #: [m]
    layers: int
    outline: tuple[tuple[float, float], ...]
    origin: tuple[float, float]  #: of u and v here, on the face [m]
    levels: tuple[float, ...]
    openings: tuple[SetOpening, ...]
    joints: tuple[DrawnJoint, ...]
    panels: tuple[DrawnPanel, ...]
    sum: Sum | None  #: None where it cannot be set out
    reason: str  #: then, why not
    bottom: float  #: length of plates [m]
    top: float
    headers: float
    shop_mass: float  #: of what is put together in the shop [kg/m²]
    plates: tuple[DrawnPlate, ...]
    posts: tuple[DrawnPost, ...]  #: under entered loads
    anchors: tuple[DrawnAnchor, ...]
    no_anchors: tuple[str, ...]  #: why a pattern does not go on; sentences
    screws: int | None  #: through its skins; None while no pattern is entered
    fitted: tuple[DrawnFitting, ...]  #: sensors and sockets
    holds: tuple[HoldPoint, ...]  #: what is looked at before a panel covers it


def drawn_faces(building: MeasuredBuilding, found: BuildingSetOut) -> tuple[DrawnSetOut, ...]:
    """Every face that is made of panels."""
    edges = edges_of_faces(building, found.faces)
    of = {one.id: one.assembly_id or "" for one in building.elements}
    same = alike([
        (of[face.zone], one, tuple((each.x, each.y, each.w, each.h) for each in face.elevation.openings
                                   if each.name in one.panel.piece.holes))
        for face in found.faces for one in face.panels
    ])  # fmt: skip
    return tuple(_drawn(building, one, found, edges.get(one.face, ()), same) for one in found.faces)


def _drawn(
    building: MeasuredBuilding, one: FaceSetOut, found: BuildingSetOut, edges: Sequence[FaceEdge],
    same: Mapping[str, Alike],
) -> DrawnSetOut:  # fmt: skip
    assembly = next(each.assembly_id or "" for each in building.elements if each.id == one.zone)
    marks = {each.id: each.mark or each.id for each in building.openings}
    rules, set_ = one.rules.rules, one.found
    module, choices = module_in(one), building.setout
    anchors = anchors_of(one, choices.anchors)
    placed = tuple(each for each in anchors if isinstance(each, Anchor))
    done = set_ if isinstance(set_, SetOut) else None
    return DrawnSetOut(
        face=one.face, mark=one.mark, kind=one.kind, element=one.zone, assembly=assembly, words=one.rules.words,
        spline=one.rules.spline, module=module / _M, layers=rules.layers, outline=_metres(one.elevation.outline),
        origin=one.shift, levels=tuple(each / _M for each in one.elevation.levels),
        openings=tuple(
            SetOpening(id=own, mark=marks.get(own, own), u=each.x / _M, v=each.y / _M,
                       w=each.w / _M, h=each.h / _M, off_module=_nearer(each.x / _M, each.w / _M, module / _M))
            for own, each in zip(one.openings, one.elevation.openings, strict=True)
        ),
        joints=_joints(one), panels=tuple(_panels(one, building.setout, edges, same)),
        sum=None if done is None else done.sum,
        reason=set_.reason if isinstance(set_, NoWay) else "", bottom=0.0 if done is None else done.bottom,
        top=0.0 if done is None else done.top, headers=0.0 if done is None else done.headers,
        shop_mass=found.masses.get(assembly, 0.0), plates=tuple(_plates(one, found.plates.get(assembly, 0), building)),
        posts=tuple(_posts(one, choices)),
        anchors=tuple(DrawnAnchor(name=each.name, kind=each.kind, u=each.x / _M, v=each.y / _M, panel=each.panel,
                                  problem=each.problem) for each in placed),
        no_anchors=tuple(composed("“{name}”: {why}", name=each.name, why=each.reason) for each in anchors
                         if isinstance(each, NoAnchor)),
        screws=None if choices.screws is None else screwed(one, choices.screws).skins,
        fitted=tuple(_fitted(one, choices)), holds=tuple(_holds(one, placed, choices)),
    )  # fmt: skip


def _nearer(u: float, w: float, module: float) -> float:
    return min((off_module(one, module) for one in (u, u + w)), key=abs)


def _metres(points: Sequence[tuple[float, float]]) -> tuple[tuple[float, float], ...]:
    return tuple((x / _M, y / _M) for x, y in points)


def _joints(one: FaceSetOut) -> tuple[DrawnJoint, ...]:
    pinned = {(pin.storey, round(pin.u, 5)) for pin in one.pins}
    return tuple(
        DrawnJoint(storey=each.band, layer=each.layer, u=each.x / _M, bottom=each.base / _M, top=each.top / _M,
                   post=each.post, pinned=(each.band, round(each.x / _M, 5)) in pinned)
        for each in one.members()
    )  # fmt: skip


def _panels(
    one: FaceSetOut, choices: SetOutChoices, edges: Sequence[FaceEdge], same: Mapping[str, Alike]
) -> list[DrawnPanel]:
    rules = one.rules.rules
    widths = rules.module_widths or ((rules.cover,) if rules.cover else ())
    posts = {(each.band, each.layer, each.x): each.post for each in one.members()}
    found = []
    for each in one.panels:
        piece, mass, own = each.panel.piece, each.panel.mass, same[each.mark]
        left, right, foot, head = beside(piece, edges)
        off = bool(widths) and all(abs(piece.width - (wide or 0.0)) > _NEAR for wide in widths)
        found.append(DrawnPanel(
            mark=each.mark, storey=each.panel.band, layer=each.panel.layer, u0=piece.x0 / _M, u1=piece.x1 / _M,
            v0=piece.y0 / _M, v1=piece.y1 / _M, outline=_metres(piece.outline), area=piece.area * M2, mass=mass,
            people=choices.people(mass), crane=choices.wants_crane(mass), off_module=off,
            left=_edge(one, posts, each.panel, piece.x0) or left or "end",
            right=_edge(one, posts, each.panel, piece.x1) or right or "end",
            foot=foot, head=head, shape=own.shape, hand=own.hand,
            openings=tuple(_held(one, piece)),
        ))  # fmt: skip
    return found


def _edge(one: FaceSetOut, posts: Mapping[tuple[int, int, float], bool], panel: Panel, x: float) -> str:
    """A post, or the joint of the system; empty at the end of the face."""
    post = posts.get((panel.band, panel.layer, x))
    return "" if post is None else "post" if post else one.rules.spline


def _held(one: FaceSetOut, piece: Piece) -> list[str]:
    """Openings that a panel holds whole, or is notched for."""
    return [
        each.name for each in one.elevation.openings
        if each.x < piece.x1 - _NEAR and each.right > piece.x0 + _NEAR
        and each.y < piece.y1 + _NEAR and each.top > piece.y0 - _NEAR
    ]  # fmt: skip


def _plates(one: FaceSetOut, plates: int, building: MeasuredBuilding) -> Iterator[DrawnPlate]:
    for n, made, run in face_plates(one, plates, max(building.shop.bars) * _M):
        done = not isinstance(made, NoPoint)
        yield DrawnPlate(
            storey=run.band, line=run.line, n=n, u0=run.x0 / _M, v0=run.y0 / _M, u1=run.x1 / _M, v1=run.y1 / _M,
            butts=tuple(x / _M for x in made.butts) if not isinstance(made, NoPoint) else (),
            reason="" if done else "no butt joint within the longest bar keeps clear of the joints between panels",
        )  # fmt: skip


def _posts(one: FaceSetOut, choices: SetOutChoices) -> Iterator[DrawnPost]:
    if isinstance(one.found, NoWay):
        return
    bands = bands_of(one.elevation)
    for post in (each for each in choices.posts if each.face == one.face):
        low, high = bands[post.storey].at(post.u * _M)
        yield DrawnPost(storey=post.storey, u=post.u, width=post.width, bottom=low / _M, top=high / _M, load=post.load)


def _fitted(one: FaceSetOut, choices: SetOutChoices) -> Iterator[DrawnFitting]:
    for each in fittings_of(one, choices):
        of = each.of
        over = next((panel.mark for panel in one.panels if each.within(panel)), "")
        yield DrawnFitting(kind="sensor" if isinstance(of, Sensor) else "socket", name=of.name, u=of.u, v=of.v,
                           depth=of.depth if isinstance(of, Sensor) else 0.0, way=of.way, panel=over)  # fmt: skip


def _holds(one: FaceSetOut, anchors: Sequence[Anchor], choices: SetOutChoices) -> Iterator[HoldPoint]:
    """Anchors and cables are looked at before the panel that covers them is set or closed."""
    by_panel = Counter((each.panel, each.name) for each in anchors)
    for (panel, name), count in by_panel.items():
        yield HoldPoint(what=f"{count} × “{name}” in place and tight before the panel covers them", panel=panel)
    for each in fittings_of(one, choices):
        over = next((panel.mark for panel in one.panels if each.within(panel)), "")
        if over and isinstance(each.of, Sensor):
            yield HoldPoint(what=f"sensor “{each.of.name}” reads, and its cable is out, before the skin covers it",
                            panel=over)  # fmt: skip
