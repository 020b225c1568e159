"""Drawings and models of others, read in a process of their own."""

from __future__ import annotations

from collections.abc import Mapping
from typing import get_args

from nimble_shell.formats.reading.reading import FileUnit, LayerHolds, Reading, refuse
from nimble_shell.services.reading import read_apart

LARGEST = 16 * 1024**2  #: file [bytes]


def read_drawing(
    content: bytes, name: str, unit: str | None = None, layers: Mapping[str, LayerHolds] | None = None
) -> Reading:
    """What a DXF or IFC file holds.

    Parameters
    ----------
    content : bytes
    name : str
        Its ending tells the kind where the content does not.
    unit : {"mm", "cm", "m", "in", "ft"}, optional
    layers : mapping of layer to {"walls", "openings", "nothing"}, optional
        Of a drawing, what somebody has said that they hold.

    Raises
    ------
    DomainError
        With every fault and its entity; with code "unit_unknown" where nobody says the unit.
    """
    if unit is not None and unit not in get_args(FileUnit):
        raise refuse("unknown_unit", f"“{unit}” is no unit of a drawing", f"one of {', '.join(get_args(FileUnit))}")
    if len(content) > LARGEST:
        raise refuse("file_too_large", f"the file has {len(content) / 1024**2:.0f} MB",
                     f"at most {LARGEST // 1024**2} MB are read: leave out what is no wall or opening")  # fmt: skip
    return read_apart(read_bytes, content, name, unit, layers)


def read_bytes(
    content: bytes, name: str, unit: FileUnit | None, layers: Mapping[str, LayerHolds] | None = None
) -> Reading:
    """The same, in this process."""
    if _is_ifc(content, name):
        from nimble_shell.formats.reading.ifc import read_ifc

        return read_ifc(content, unit)
    from nimble_shell.formats.reading.dxf import read_dxf

    return read_dxf(content, unit, layers)


def _is_ifc(content: bytes, name: str) -> bool:
    head = content[:64].lstrip(b"\xef\xbb\xbf \r\n\t")
    if head.startswith(b"ISO-10303-21"):
        return True
    if head.startswith((b"AC10", b"AutoCAD Binary DXF", b"0", b"999")):
        return False
    ending = name.lower().rpartition(".")[2]
    if ending not in ("dxf", "ifc"):
        raise refuse("unknown_file", f"“{name}” is neither DXF nor IFC", "send a DXF drawing or an IFC model")
    return ending == "ifc"
