"""The fixings bench in a real browser: a start, typed parts, a spacing, what is left of the wall, undo."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import leading, number, visit

from tools.window import Server

FINAL = 60_000  # a loaded machine solves slowly [ms]
ROOF = "main-laboratory/B4"


def opened(page: Page, server: Server, project: str, place: str) -> Page:
    visit(page, server.address, f"{project}/{place}")
    page.wait_for_selector(".frame")
    return page


@pytest.fixture
def bench(page: Page, server: Server, fastened: str) -> Page:
    opened(page, server, fastened, ROOF)
    settled(page)
    return page


def settled(page: Page) -> None:
    expect(page.locator(".conditions")).to_contain_text("unknowns, final", timeout=FINAL)
    expect(page.locator("[data-stale=true]")).to_have_count(0, timeout=FINAL)


def chi(page: Page) -> float:
    return leading(page.get_by_test_id("chi").inner_text())


def remains(page: Page) -> float:
    return leading(page.get_by_role("button", name=re.compile("^R that remains")).inner_text())


def typed(page: Page, label: str, text: str) -> None:
    field = page.get_by_test_id("fixing-bench").get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_a_group_is_solved_beside_the_formula(bench: Page) -> None:
    bench.get_by_test_id("chi").get_by_role("button").click()
    drawer = bench.get_by_test_id("working")
    expect(drawer).to_contain_text("coupling of the model")
    assert leading(drawer.locator(".result").inner_text()) == pytest.approx(chi(bench), rel=0.01)
    bench.keyboard.press("Escape")
    assert 0.2 < chi(bench) / leading(bench.get_by_test_id("chi-approximate").inner_text()) < 0.8
    expect(bench.get_by_test_id("fixing-bench")).to_contain_text("set by the engineer")
    expect(bench.get_by_test_id("psi-curve").locator("path.line")).to_have_count(1, timeout=FINAL)


def test_a_typed_diameter_is_solved_counted_and_undone(bench: Page) -> None:
    before, R = chi(bench), remains(bench)
    typed(bench, "diameter", "12")
    expect(bench.locator(".ledger .last")).to_contain_text("diameter")
    settled(bench)
    assert chi(bench) > 2 * before
    assert remains(bench) < R
    bench.keyboard.press("Control+z")
    expect(bench.get_by_label("diameter", exact=True)).to_have_value("6")
    settled(bench)
    assert chi(bench) == before


def test_the_build_up_counts_the_solved_group(bench: Page) -> None:
    R = remains(bench)
    bench.keyboard.press("2")
    expect(bench.get_by_test_id("three-r")).to_be_visible()
    expect(bench.locator("[data-stale=true]")).to_have_count(0)
    assert number(bench.get_by_test_id("R-combined").inner_text()) == pytest.approx(R, abs=0.006)


def test_a_start_is_chosen_from_what_is_drawn(page: Page, server: Server, fastened: str) -> None:
    opened(page, server, fastened, "bunkhouse/D4")
    page.get_by_role("button", name=re.compile("^plate dowel, sunk")).click()
    expect(page.locator(".ledger .last")).to_contain_text("Plate dowel, sunk added")
    settled(page)
    flush_in = chi(page)
    typed(page, "depth in the layer", "")
    expect(page.locator(".ledger .last")).to_contain_text("through the whole layer")
    settled(page)
    assert chi(page) > flush_in
    page.get_by_role("button", name="Remove this group").click()
    expect(page.get_by_role("heading", name=re.compile("^Add fixings to"))).to_be_visible()


def test_a_spacing_is_drawn_along_the_curve(bench: Page) -> None:
    R = remains(bench)
    slider = bench.get_by_role("slider", name=re.compile("^spacing across"))
    expect(slider).to_be_visible(timeout=FINAL)
    slider.focus()
    slider.press("Home")
    expect(bench.locator(".ledger .last")).to_contain_text("spacing")
    settled(bench)
    assert remains(bench) < R - 0.2
    expect(bench.get_by_label("spacing along", exact=True)).to_be_visible()


def test_what_cannot_be_is_said_and_nothing_is_lost(bench: Page) -> None:
    before = chi(bench)
    typed(bench, "diameter", "500")
    expect(bench.get_by_role("alert").first).to_contain_text(re.compile("up to 100 mm|500"))
    assert chi(bench) == before


def test_a_station_without_a_build_up_says_so(page: Page, server: Server, fastened: str) -> None:
    opened(page, server, fastened, "main-laboratory/E4")
    expect(page.locator("main")).to_contain_text("no build-up is drawn at this station")
