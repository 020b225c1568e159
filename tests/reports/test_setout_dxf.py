"""The drawing of a set-out, read back by another reader's rules: units, layers, areas, marks and dimensions."""

from __future__ import annotations

import io

import ezdxf
import pytest
import shapely

from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.demo.heron_flats import campus
from nimble_shell.reports.setout_dxf import LAYERS, faces_dxf
from nimble_shell.services.shop_papers import paper_faces


@pytest.mark.parametrize("building", ["main-laboratory", "sample-cold-store", "seed-barn"])
def test_a_drawing_holds_what_is_set_out(building: str) -> None:
    project = campus()
    found = measured(project, next(one for one in project.buildings if one.id == building))
    assert isinstance(found, MeasuredBuilding)
    set_ = set_out_building(project, found)
    faces, papers = set_.faces, paper_faces(found, set_)
    content = faces_dxf(papers)
    assert content == faces_dxf(papers), "the same file twice"
    drawing = ezdxf.read(io.StringIO(content.decode()))
    audit = drawing.audit()
    assert not audit.errors
    assert not audit.fixes
    assert drawing.units == ezdxf.units.MM
    space = drawing.modelspace()
    assert {one.dxf.layer for one in space} <= set(LAYERS)
    panels = [shapely.Polygon([(x, y) for x, y, *_ in one]) for one in space.query('LWPOLYLINE[layer=="PANELS"]')]
    ours = [one.panel for face in faces for one in face.panels]
    assert len(panels) == len(ours)
    holes = {one.name: one.w * one.h for face in faces for one in face.elevation.openings}
    for drawn, one in zip(panels, ours, strict=True):
        assert drawn.area == pytest.approx(one.piece.area + sum(holes[name] for name in one.piece.holes), rel=1e-9)
    marks = {one.dxf.text for one in space.query('TEXT[layer=="MARKS"]')}
    assert {one.mark for face in faces for one in face.panels} <= marks
    members = sum(len(face.members()) for face in faces)
    assert len(space.query('LINE[layer=="SPLINES"]')) + len(space.query('LINE[layer=="POSTS"]')) == members
    pieces = [piece for paper in papers for plate in paper.plates for piece in plate.pieces]
    lines = space.query('LINE[layer=="PLATES"]')
    assert sum(one.dxf.start.distance(one.dxf.end) for one in lines) == pytest.approx(sum(pieces))
    assert len(lines) == len(pieces)
    assert len(space.query('LINE[layer=="ANCHORS"]')) == 2 * sum(len(paper.anchors) for paper in papers)
    assert len(space.query('LWPOLYLINE[layer=="FITTINGS"]')) == sum(len(paper.fitted) for paper in papers)
    widths = [one.get_measurement() for one in space.query("DIMENSION")]
    lowest = [one for face in faces if isinstance(face.found, SetOut)
              for one in [max(x for x, _ in face.elevation.outline)] * 2]  # fmt: skip
    assert sum(widths) == pytest.approx(sum(lowest)), "both rows of dimensions add up to each face"
