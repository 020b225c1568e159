"""Published and analytic references: what they say, what we compute, and how far apart."""

from nimble_shell.references import conduction, damp, elements, fixings, manufactured, moisture
from nimble_shell.references.rows import Row, markdown, table

__all__ = ["Row", "markdown", "run", "table"]


def run() -> list[Row]:
    """All references so far."""
    return [*elements.rows(), *conduction.rows(), *manufactured.rows(), *fixings.rows(), *moisture.rows(), *damp.rows()]
