"""Sheets: every answer comes apart by through cuts, holds all parts, and is no cheaper than its bound."""

from __future__ import annotations

import random
from collections import Counter

import pytest
from core.shop.comes_apart import comes_apart

from nimble_shell.core.shop.sheets.bound import least_cost
from nimble_shell.core.shop.sheets.cut import cut
from nimble_shell.core.shop.sheets.stock import Cut, NoSheets, Part, Saw, Sheet

BOARD = Sheet(name="board", w=2500.0, h=1250.0, cost=3.125)


def holds(found: Cut, parts: list[Part], sheets: list[Sheet], saw: Saw, fillers: list[Part]) -> None:
    """Referee by the definition."""
    every, placed = [*parts, *fillers], Counter[int]()
    for one in found.cuttings:
        sheet, boxes = sheets[one.sheet], []
        for lies in one.placed:
            part = every[lies.part]
            assert part.turn or not lies.turned
            assert (lies.w, lies.h) == ((part.h, part.w) if lies.turned else (part.w, part.h))
            boxes.append((lies.x, lies.y, lies.x + lies.w, lies.y + lies.h))
            placed[lies.part] += 1
        boxes += [(x, y, x + w, y + h) for x, y, w, h in one.offcuts]
        for x0, y0, x1, y1 in boxes:
            assert x0 >= saw.edge_trim - 1e-6
            assert y0 >= saw.edge_trim - 1e-6
            assert x1 <= sheet.w - saw.edge_trim + 1e-6
            assert y1 <= sheet.h - saw.edge_trim + 1e-6
        assert comes_apart(boxes, saw.kerf)
        assert any(lies.part < len(parts) for lies in one.placed), "a sheet for fillers alone"
    for at, part in enumerate(every):
        assert placed[at] == part.count if at < len(parts) else placed[at] <= part.count
    used = Counter(one.sheet for one in found.cuttings)
    assert all(one.count is None or used[at] <= one.count for at, one in enumerate(sheets))
    assert found.cost == pytest.approx(sum(sheets[at].cost * n for at, n in used.items()))
    assert found.bound <= found.cost + 1e-9
    assert found.fillers == sum(placed[at] for at in placed if at >= len(parts))


@pytest.mark.parametrize("seed", range(6))
def test_parts_come_apart(seed: int) -> None:
    given = random.Random(seed)
    kinds = given.randint(1, 7)
    parts = [
        Part(name=str(n), w=float(given.randint(150, 1200)), h=float(given.randint(150, 1200)), count=given.randint(1, 4),
             turn=given.random() < 0.5)
        for n in range(kinds)
    ]  # fmt: skip
    fillers = [Part(name="filler", w=70.0, h=600.0, count=6, turn=True)] if seed % 2 else []
    sheets = [BOARD, Sheet(name="half", w=1250.0, h=1250.0, cost=1.7, count=given.choice([None, 2]))]
    saw = Saw(kerf=given.choice([0.0, 4.0]), edge_trim=given.choice([0.0, 8.0]))
    found = cut(parts, sheets, saw, fillers)
    assert isinstance(found, Cut)
    holds(found, parts, sheets, saw, fillers)


@pytest.mark.parametrize("seed", range(3))
def test_whole_sheets_cut_up_go_back_into_one_more_at_most(seed: int) -> None:
    given, saw, parts = random.Random(seed), Saw(kerf=4.0), list[Part]()

    def halve(w: float, h: float, times: int) -> None:
        if times == 0:
            parts.append(Part(name=str(len(parts)), w=w, h=h, count=1, turn=False))
            return
        share = given.uniform(0.3, 0.7)
        if w > h:
            a = round((w - 4) * share)
            halve(a, h, times - 1)
            halve(w - 4 - a, h, times - 1)
        else:
            a = round((h - 4) * share)
            halve(w, a, times - 1)
            halve(w, h - 4 - a, times - 1)

    for _ in range(4):
        halve(2500.0, 1250.0, 3)
    found = cut(parts, [BOARD], saw)
    assert isinstance(found, Cut)
    holds(found, parts, [BOARD], saw, [])
    assert found.bound == pytest.approx(4 * 3.125)
    assert found.cost <= 5 * 3.125 + 1e-9


def test_the_bound_sees_that_large_parts_do_not_share_a_sheet() -> None:
    parts = [Part(name="large", w=1300.0, h=700.0, count=5, turn=False)]
    assert least_cost(parts, [BOARD], Saw(kerf=4.0)) == pytest.approx(5 * 3.125)
    plain = 5 * 1304.0 * 704.0 / (2504.0 * 1254.0)
    assert plain < 2, "areas alone would say two sheets"


def test_as_many_as_fit_a_row_and_a_column() -> None:
    found = cut([Part(name="tile", w=300.0, h=300.0, count=32, turn=True)], [BOARD], Saw(kerf=4.0))
    assert isinstance(found, Cut)
    assert found.cost == pytest.approx(3.125), "8 × 4 with kerfs are 2428 × 1212"


@pytest.mark.parametrize(
    ("part", "sheet", "said"),
    [
        (Part(name="long", w=2600.0, h=100.0, count=1, turn=True), BOARD, "“long” of 2 600 mm × 100 mm is larger"),
        (Part(name="grain", w=100.0, h=1300.0, count=1, turn=False), BOARD, "“grain”"),
        (Part(name="many", w=2500.0, h=1250.0, count=3, turn=False),
         Sheet(name="few", w=2500.0, h=1250.0, cost=1.0, count=2), "too few"),
    ],
)  # fmt: skip
def test_what_cannot_be_cut_is_said(part: Part, sheet: Sheet, said: str) -> None:
    found = cut([part], [sheet], Saw(kerf=0.0))
    assert isinstance(found, NoSheets)
    assert said in found.reason.replace("\N{THIN SPACE}", " ")
