"""Comparisons, and how they are shown."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """One comparison."""

    name: str
    source: str
    reference: float
    ours: float
    tolerance: float  #: absolute, in the unit of the reference

    @property
    def good(self) -> bool:
        return abs(self.ours - self.reference) <= self.tolerance


def table(rows: list[Row]) -> str:
    """The comparisons as text."""
    lines = [f"{'case':58} {'reference':>12} {'ours':>14} {'difference':>11} {'tolerance':>10}"]
    for row in rows:
        mark = "" if row.good else "  OUTSIDE"
        lines.append(f"{row.name:58} {row.reference:12.6g} {row.ours:14.8g} {row.ours - row.reference:11.2e} "
                     f"{row.tolerance:10.1e}{mark}  [{row.source}]")  # fmt: skip
    outside = sum(not row.good for row in rows)
    return "\n".join([*lines, f"{len(rows)} comparisons, {outside} outside their tolerance"])


def markdown(rows: list[Row]) -> str:
    """The comparisons as a report."""
    lines = [
        "# Verification report",
        "",
        "Made by `./nimble verify --report docs/verification.md`.",
        "",
        "| case | reference | ours | difference | tolerance | source |",
        "|---|---:|---:|---:|---:|---|",
    ]
    for row in rows:
        mark = "" if row.good else " **outside**"
        lines.append(f"| {row.name} | {row.reference:.6g} | {row.ours:.8g} | {row.ours - row.reference:.2e} | "
                     f"{row.tolerance:.1e}{mark} | {row.source} |")  # fmt: skip
    outside = sum(not row.good for row in rows)
    return "\n".join([*lines, "", f"{len(rows)} comparisons, {outside} outside their tolerance.", ""])
