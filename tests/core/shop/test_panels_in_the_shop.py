"""Pieces, works, handling and filling of panels: areas and volumes against closed forms, masses by adding up."""

from __future__ import annotations

from dataclasses import replace

import pytest
from core.setout.test_entered import box, face_of

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.elevation import Elevation, Opening
from nimble_shell.core.setout.entered import Sensor, Socket
from nimble_shell.core.shop.choices import ShopChoices
from nimble_shell.core.shop.cut_list import PanelCuts, pieces_of_face
from nimble_shell.core.shop.filling import fill_of, is_filled
from nimble_shell.core.shop.handling import G, centre_of, handling_of
from nimble_shell.core.shop.works import fittings_of, works_of

WINDOW = Opening(name="W1", x=300, y=900, w=600, h=900, mass=30.0)


@pytest.fixture
def sip() -> Assembly:
    return SYSTEMS["sip"].assembly("wall", "SIP wall")


def test_plates_add_up_to_the_face_and_run_on_over_joints(sip: Assembly) -> None:
    face = face_of(box(12_000))
    pieces = pieces_of_face(face, sip, CATALOGUE, 4800.0)
    for line in ("bottom", "top"):
        own = [one for one in pieces if one.name.startswith(f"{line} plate")]
        runs = sum(one.length * one.count for one in own) / 12_000
        assert runs == pytest.approx(round(runs))
        assert max(one.length for one in own) > 1200, "longer than a panel"
    assert len({one.key for one in pieces}) == len(pieces), "every piece has a name of its own"


def test_a_core_stands_back_for_what_goes_into_it(sip: Assembly) -> None:
    """Skin less core is what is worked out of its edges, on all four sides."""
    face = face_of(box(3600, WINDOW))
    cuts = PanelCuts(face, sip, CATALOGUE, 4800.0)
    for one in face.panels:
        pieces = {piece.name: piece for piece in cuts.pieces(one)}
        left, right, low, high = cuts.recesses(one)
        assert pieces["core"].width == pytest.approx(pieces["skin, inside"].width - left - right)
        assert pieces["core"].length == pytest.approx(pieces["skin, inside"].length - low - high)
        recesses = {work.where: work.deep for work in works_of(cuts, one, ()) if work.kind == "recess"}
        named = zip(("left", "right", "bottom", "top"), (left, right, low, high), strict=True)
        assert recesses == {edge: deep for edge, deep in named if deep > 0}


def test_an_opening_brings_its_frame_and_a_roof_its_bevels(sip: Assembly) -> None:
    face = face_of(box(1200, WINDOW))
    pieces = {one.name: one for one in pieces_of_face(face, sip, CATALOGUE, 4800.0)}
    assert (pieces["jamb of W1"].length, pieces["jamb of W1"].count) == (900, 2)
    assert pieces["sill of W1"].length == 600
    assert pieces["header over W1"].count == 2
    pitched = replace(face, pitch=35.0)
    cuts = PanelCuts(pitched, sip, CATALOGUE, 4800.0)
    bevels = [one for one in works_of(cuts, face.panels[0], ()) if one.kind == "bevel"]
    assert [(one.where, one.angle) for one in bevels] == [("bottom", 35.0), ("top", 35.0)]
    assert all(one.bevel == 35.0 for one in cuts.pieces(face.panels[0]) if one.stuff in ("sheet", "block"))


def test_sensors_and_sockets_are_worked_into_the_panel_they_are_in(sip: Assembly) -> None:
    face = face_of(box(2400))
    choices = SetOutChoices(sensors=(Sensor(name="S1", face="a", u=1.5, v=1.0, depth=0.08, way="up"),),
                            sockets=(Socket(face="a", u=0.4, v=0.3, way="down"),))  # fmt: skip
    placed, cuts = fittings_of(face, choices), PanelCuts(face, sip, CATALOGUE, 4800.0)
    first, second = (
        [one for one in works_of(cuts, each, placed) if one.kind not in ("recess", "bevel")] for each in face.panels
    )
    assert [(one.kind, one.length) for one in first] == [("box", 70), ("chase", 300)]
    assert [(one.kind, one.where) for one in second] == [("sensor", "S1"), ("cable way", "to the top")]
    assert (second[0].u, second[0].v, second[0].deep) == (pytest.approx(300), 1000, 80)
    assert second[1].length == pytest.approx(1700)


def test_the_centre_of_gravity_is_that_of_the_parts() -> None:
    """A rectangle with a hole, by taking away; a triangle at a third; a unit in the hole pulls towards itself."""
    assert centre_of([(0, 0), (3000, 0), (0, 1500)]) == pytest.approx((1000, 500, 2_250_000))
    face = face_of(box(1200, WINDOW))
    one = face.panels[0]
    per_m2 = 20.0
    area = 1.2 * 2.7 - 0.6 * 0.9
    v = (1.2 * 2.7 * 1350 - 0.6 * 0.9 * 1350) / area
    empty = replace(one, panel=replace(one.panel, mass=area * per_m2))
    found = handling_of(empty, face.elevation.openings, per_m2)
    assert (found.u, found.v) == pytest.approx((600.0, v))
    assert found.turn == pytest.approx(found.mass * G * v / 2700)
    low = replace(WINDOW, y=300.0)
    face = face_of(box(1200, low))
    own = area * per_m2
    loaded = replace(face.panels[0], panel=replace(face.panels[0].panel, mass=own + 30.0))
    found = handling_of(loaded, face.elevation.openings, per_m2)
    empty_v = (1.2 * 2.7 * 1350 - 0.6 * 0.9 * 750) / area
    assert found.v == pytest.approx((own * empty_v + 30 * 750) / (own + 30))


def test_beads_fill_the_frame_and_what_settles_is_blown_on_top() -> None:
    assembly = SYSTEMS["bead-cassette"].assembly("wall", "beads")
    assert is_filled(assembly)
    assert not is_filled(SYSTEMS["sip"].assembly("wall", "SIP"))
    face = face_of(box(2400, replace(WINDOW, x=300, w=1500)))
    assert assembly.core_index is not None
    depth = assembly.layers[assembly.core_index].d
    shop = ShopChoices(settlement=0.05, bag=0.2, port_rise=1.5)
    found = fill_of([face], assembly, 0.08, 15.0, shop)
    area = 2.4 * 2.7 - 1.5 * 0.9
    assert sum(one.cavity for one in found.panels) == pytest.approx(area * depth * 0.92)
    assert found.blown == pytest.approx(area * depth * 0.92 / 0.95)
    assert found.bags(0.2) == -(-found.blown // 0.2)
    for one in found.panels:
        assert [port.v for port in one.ports] == sorted(port.v for port in one.ports)
        assert all(0 < port.v < 2700 for port in one.ports)
        inside = [port for port in one.ports if 300 < port.u < 1800 and 900 < port.v < 1800]
        assert not inside, "no port opens into a window"


def test_trims_go_round_openings_of_metal_panels() -> None:
    metal = SYSTEMS["metal-panel"].assembly("wall", "metal")
    face = face_of(Elevation(outline=((0, 0), (1200, 0), (1200, 2700), (0, 2700)), openings=(WINDOW,)))
    trims = {one.name: one.length * one.count for one in pieces_of_face(face, metal, CATALOGUE, 6000.0)
             if "trim" in one.name}  # fmt: skip
    assert trims == {"head trim of W1": 600, "sill trim of W1": 600, "jamb trim of W1": 1800}
