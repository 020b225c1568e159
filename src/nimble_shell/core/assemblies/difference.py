"""What is different between two states of a build-up, in words and values."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import joined, sentence


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """One difference; numbers are SI with the dimension they are shown in, texts have none."""

    what: str
    before: float | str | None
    after: float | str | None
    dimension: str = ""


def differences(before: Assembly, after: Assembly, catalogue: Catalogue) -> list[Difference]:
    """Everything that a person would call different; layers are known by their ids. Lengths in m."""
    return [*_layers(before, after, catalogue), *_fixings(before, after)]


def _name(layer: Layer, catalogue: Catalogue) -> str:
    if not layer.material:
        return "air layer"
    return catalogue[layer.material].name if layer.material in catalogue else layer.material


def _layers(before: Assembly, after: Assembly, catalogue: Catalogue) -> Iterator[Difference]:
    old = {layer.id: layer for layer in before.layers}
    new = {layer.id: layer for layer in after.layers}
    for layer in before.layers:
        if layer.id not in new:
            yield Difference(what=f"{_name(layer, catalogue)} removed", before=layer.d, after=None, dimension="length")
    for layer in after.layers:
        if layer.id not in old:
            yield Difference(what=f"{_name(layer, catalogue)} added", before=None, after=layer.d, dimension="length")
            continue
        yield from _layer(old[layer.id], layer, catalogue)
    kept_before = [layer.id for layer in before.layers if layer.id in new]
    kept_after = [layer.id for layer in after.layers if layer.id in old]
    if kept_before != kept_after:
        yield Difference(what="order of the layers", before="as before", after="changed")


def _layer(old: Layer, new: Layer, catalogue: Catalogue) -> Iterator[Difference]:
    name = _name(new, catalogue)
    if old.material != new.material:
        yield Difference(what="material", before=_name(old, catalogue), after=name)
    if old.d != new.d:
        yield Difference(what=f"thickness of {name}", before=old.d, after=new.d, dimension="length")
    if old.lambda_entered != new.lambda_entered:
        yield Difference(what=f"λ of {name}", before=old.lambda_entered, after=new.lambda_entered,
                         dimension="conductivity")  # fmt: skip
    if old.members != new.members:
        yield Difference(what=f"members in {name}", before=_members(old.members), after=_members(new.members))
    if old.rib != new.rib:
        yield Difference(what=f"profile of {name}", before=old.rib, after=new.rib, dimension="length")
    for field, words in (("control", "control lines of"), ("fitted", "fitting of"), ("air", "ventilation of"),
                         ("goes_with_core", "going with the core of"), ("services", "services in"),
                         ("declared", "declared values of"), ("passes", "rounds of work on"),
                         ("substitution", "substitution in")):  # fmt: skip
        a, b = getattr(old, field), getattr(new, field)
        if a != b:
            yield Difference(what=f"{words} {name}", before=_words(a), after=_words(b))


def _words(value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return ", ".join(_words(one) for one in value) or "none"
    for field in ("value", "ventilation", "asked"):
        if hasattr(value, field):
            return str(getattr(value, field))
    return "none" if value is None else str(value)


def _members(members: tuple[Member, ...]) -> str:
    return joined(", ", [_member(member) for member in members]) or "none"


def _member(member: Member) -> str:
    if member.share is not None:
        return f"{member.name} {100 * member.share:.3g} %"
    words = f"{member.name} {{width}} at {{centres}}"
    return sentence(words, width=(member.width, "length"), centres=(member.centres, "length"))


def _fixings(before: Assembly, after: Assembly) -> Iterator[Difference]:
    def words(fixings: tuple[Fixing, ...]) -> str:
        each = [sentence(f"{f.name} {{n}}", n=(f.per_area, "count_per_area")) for f in fixings]
        return joined(", ", each) or "none"

    if before.fixings != after.fixings:
        yield Difference(what="screws, ties and wires", before=words(before.fixings), after=words(after.fixings))
