"""Published and analytic references: what they say, what we compute, and how far apart."""

from collections.abc import Callable, Collection, Iterable

from nimble_shell.references import (
    conduction,
    damp,
    elements,
    fixings,
    geometry,
    joints,
    manufactured,
    moisture,
    setout,
    shell,
    shop,
    site,
    windows,
)
from nimble_shell.references.rows import Row, markdown, table

__all__ = ["GROUPS", "Row", "markdown", "run", "table"]
#: What computes the references of each subject.
GROUPS: dict[str, Callable[[], Iterable[Row]]] = {
    "elements": elements.rows,
    "conduction": conduction.rows,
    "manufactured": manufactured.rows,
    "fixings": fixings.rows,
    "joints": joints.rows,
    "moisture": moisture.rows,
    "damp": damp.rows,
    "geometry": geometry.rows,
    "windows": windows.rows,
    "shell": shell.rows,
    "setout": setout.rows,
    "shop": shop.rows,
    "site": site.rows,
}


def run(subjects: Collection[str] = ()) -> list[Row]:
    """All references, or those of some subjects."""
    return [row for subject, rows in GROUPS.items() if not subjects or subject in subjects for row in rows()]
