"""Why a storey cannot be cut into panels: which rule alone stands in the way, and how far it would have to give."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from nimble_shell.core.quantities.sentence import Sentence, joined, sentence
from nimble_shell.core.setout.elevation import Band
from nimble_shell.core.setout.rules import Blank, Rules
from nimble_shell.core.setout.strips import M2, BandStrips

_FINE = 0.01  #: halved until it is known so well
_LENGTH = 1e5  #: nor longer [mm]


@dataclass(frozen=True, slots=True)
class _Rule:
    """A limit that can give: by how much is told by `at`, which makes the rules with another value of it."""

    words: str  #: with {now} and {then}
    now: float
    free: float  #: the value that asks nothing
    at: Callable[[float], Rules]
    dimension: str
    per_si: float = 1.0


@lru_cache(maxsize=512)
def ways_out(band: Band, rules: Rules, pins: tuple[float, ...]) -> Sentence | None:
    """Each rule that alone stands in the way, with the nearest value that would do; None where no single one does."""
    found = []
    for one in _rules(band, rules):
        if not _possible(band, one.at(one.free), pins):
            continue
        bad, good = one.now, one.free
        while abs(good - bad) > _FINE:
            middle = (bad + good) / 2
            if _possible(band, one.at(middle), pins):
                good = middle
            else:
                bad = middle
        found.append(sentence(one.words, now=(one.now / one.per_si, one.dimension),
                              then=(_short(good, one.free > one.now) / one.per_si, one.dimension)))  # fmt: skip
    return joined("; or ", found) if found else None


def _short(value: float, up: bool) -> float:
    """In whole ones, on the side that does."""
    return math.ceil(value - _FINE) if up else math.floor(value + _FINE)


def _rules(band: Band, rules: Rules) -> Iterator[_Rule]:
    if rules.max_mass is not None:
        all_of_it = sum(one.area for one in band.slices) * M2 * rules.mass_per_m2
        all_of_it += sum(one.mass for one in band.openings)
        yield _Rule("the heaviest panel may have {now}, {then} would do", rules.max_mass, all_of_it + rules.max_mass,
                    lambda value: replace(rules, max_mass=value), "mass")  # fmt: skip
    high = max(max(one.top0, one.top1) - min(one.base0, one.base1) for one in band.slices)
    longest = rules.max_length if rules.blanks is None else max((one.length or _LENGTH) for one in rules.blanks)
    if longest is not None and longest < high:
        yield _Rule("no panel is longer than {now}, {then} would do, or a joint between storeys", longest, high,
                    lambda value: _longer(rules, value), "length", 1000.0)  # fmt: skip
    yield _Rule("the narrowest panel has {now}, {then} would do", rules.min_strip, 0.0,
                lambda value: replace(rules, min_strip=value), "length", 1000.0)  # fmt: skip
    yield _Rule("a joint keeps {now} from openings and posts, {then} would do", rules.edge_clear, 0.0,
                lambda value: replace(rules, edge_clear=value), "length", 1000.0)  # fmt: skip
    if rules.min_piece:
        yield _Rule("the lowest piece has {now}, {then} would do", rules.min_piece, 0.0,
                    lambda value: replace(rules, min_piece=value), "length", 1000.0)  # fmt: skip
    widest = rules.widest
    if rules.layout == "free":
        yield _Rule("no panel is wider than {now}, {then} would do, or an opening moved", widest, 4 * widest,
                    lambda value: _wider(rules, value), "length", 1000.0)  # fmt: skip


def _longer(rules: Rules, length: float) -> Rules:
    if rules.blanks is None:
        return replace(rules, max_length=length)
    return replace(rules, blanks=(*rules.blanks, Blank(width=rules.widest, length=length)))


def _wider(rules: Rules, width: float) -> Rules:
    if rules.blanks is None:
        return replace(rules, max_width=width)
    longest = max((one.length or _LENGTH) for one in rules.blanks)
    return replace(rules, blanks=(*rules.blanks, Blank(width=width, length=longest)))


def _possible(band: Band, rules: Rules, pins: Sequence[float]) -> bool:
    """Whether joints lead from end to end; of two layers, one alone."""
    strips = BandStrips(band, rules, pins)
    reached = np.zeros(len(strips.x), dtype=np.bool_)
    reached[0] = True
    for j in range(1, len(strips.x)):
        found = strips.to(j)
        reached[j] = (found.legal & reached[found.first : found.first + len(found.legal)]).any()
    return bool(reached[-1])
