"""Panel and cut lists as tables, and faces as a drawing, for those who make them."""

from __future__ import annotations

from nimble_shell.core.quantities.units import UnitSystem, unit_for
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.formats.csv_text import write_table
from nimble_shell.reports.setout_dxf import faces_dxf
from nimble_shell.services.setout import SetOutDraft, set_out_sheet
from nimble_shell.services.shop import shop_sheet
from nimble_shell.services.shop_papers import paper_faces
from nimble_shell.services.whole_shell import shaped

_DIGITS = 4  #: after the point
PANELS = ("mark", "face", "storey", "layer", "width", "height", "unit", "area", "unit of area", "mass", "unit of mass",
          "people", "openings", "on the module")  # fmt: skip
PIECES = ("truck", "panel", "piece", "count", "material", "thickness", "depth", "length", "width", "unit",
          "cut at", "cut at the other end", "bar", "state")  # fmt: skip


def panels_csv(project: Project, building_id: str) -> bytes:
    """All panels of a building, in the units of the project. Raises DomainError, NotFound."""
    system, sheet = project.basis.schools.units, set_out_sheet(project, building_id, SetOutDraft())
    length, area, mass = (unit_for(one, system) for one in ("length", "area", "mass"))
    return write_table(PANELS, [
        (one.mark, face.mark, one.storey + 1, one.layer + 1, round((one.u1 - one.u0) * length.per_si, _DIGITS),
         round((one.v1 - one.v0) * length.per_si, _DIGITS), length.symbol, round(one.area * area.per_si, _DIGITS),
         area.symbol, round(one.mass * mass.per_si, _DIGITS), mass.symbol, one.people, " ".join(one.openings),
         "no" if one.off_module else "yes")
        for face in sheet.faces for one in face.panels
    ])  # fmt: skip


def cut_list_csv(project: Project, building_id: str) -> bytes:
    """All pieces in the order they are cut, in the units of the project. Raises DomainError, NotFound."""
    system: UnitSystem = project.basis.schools.units
    length, found = unit_for("length", system), shop_sheet(project, building_id)

    def size(value: float) -> float:
        return round(value * length.per_si, _DIGITS)

    return write_table(PIECES, [
        (one.truck + 1, one.panel, one.name, one.count, one.material, size(one.thick), size(one.deep), size(one.length),
         size(one.width), length.symbol, round(one.ends[0], 2), round(one.ends[1], 2),
         "" if one.bar is None else one.bar + 1, one.state)
        for one in found.pieces
    ])  # fmt: skip


def drawing_dxf(project: Project, building_id: str) -> bytes:
    """All faces of panels as one DXF drawing in mm. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    return faces_dxf(paper_faces(building, set_out_building(project, building)))
