"""Published and analytic references: what they say, what we compute, and how far apart."""

from collections.abc import Callable, Iterable

from nimble_shell.references import conduction, damp, elements, fixings, joints, manufactured, moisture
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
}


def run() -> list[Row]:
    """All references so far."""
    return [row for rows in GROUPS.values() for row in rows()]
