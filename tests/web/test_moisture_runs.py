"""Moisture beyond the months in a real browser: control plane, joint lines, hours and the fan."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import axe, leading, number, visit

from tools.window import Server

RUN = 90_000  # a loaded machine runs slowly [ms]


@pytest.fixture
def store(page: Page, server: Server, campus: str) -> Page:
    """The cold store's wall: three layers, run in seconds."""
    visit(page, server.address, f"{campus}/sample-cold-store/D5")
    expect(page.get_by_test_id("verdict")).to_be_visible()
    return page


def look(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Ways to look at its moisture").get_by_role("button", name=name).click()


def test_the_margin_hangs_in_the_ledger_and_opens_to_both_sides_of_it(page: Page, server: Server, campus: str) -> None:
    visit(page, server.address, f"{campus}/bunkhouse/D5")
    judged = page.get_by_test_id("judged")
    expect(judged).to_contain_text(re.compile(r"margin of\s*\d+\s*points"), timeout=RUN)
    expect(page.get_by_test_id("moisture_margin")).to_contain_text("points", timeout=RUN)
    judged.get_by_role("button", name="Margin of room humidity").click()
    expect(page.get_by_role("dialog", name=re.compile("Margin"))).to_contain_text("passes", timeout=RUN)


def test_a_cold_room_is_judged_from_its_warm_side(store: Page) -> None:
    expect(store.get_by_test_id("verdict")).to_contain_text("Gathers slowly")
    expect(store.get_by_test_id("inwards")).to_contain_text("the outer surface is the critical one")
    store.keyboard.press("1")
    own = store.get_by_test_id("own-room")
    expect(own.get_by_label("Heated temperature")).to_have_value(re.compile("5.0"))
    own.get_by_label("Heated humidity").fill("180")
    own.get_by_label("Heated humidity").press("Enter")
    expect(own).to_contain_text("relative humidity is 180 %")
    expect(store.locator(".side").first).not_to_contain_text("180 %")  # the room of the Basis is not what was wrong
    own.get_by_label(re.compile("room of")).select_option("basis")
    expect(own.get_by_label("Heated temperature")).to_have_count(0)
    expect(store.locator(".last")).to_contain_text("Room as the Basis has it")
    store.keyboard.press("Control+z")
    expect(own.get_by_label("Heated temperature")).to_have_value(re.compile("5.0"))


def test_what_keeps_the_surface_of_a_joint_is_searched_when_asked(page: Page, server: Server, jointed: str) -> None:
    visit(page, server.address, f"{jointed}/bunkhouse/D5?view=joints")
    page.get_by_role("button", name="Ventilation pipe").click()
    surface = page.get_by_test_id("joint-surface")
    expect(surface).to_contain_text("Its inner surface fails", timeout=RUN)
    surface.get_by_role("button", name="Search what would keep it").click()
    expect(surface.get_by_role("listitem").first).to_contain_text("variant", timeout=RUN)
    expect(surface).to_contain_text("Not enough alone")
    page.get_by_test_id("open-count").click()
    item = page.get_by_test_id("register").locator("li", has_text="Ventilation pipe: surface factor")
    item.get_by_role("button", name=re.compile("^The variant")).click()
    expect(item).to_have_count(0, timeout=RUN)
    expect(page.locator(".ledger .last")).to_contain_text("variant")


def test_the_control_plane_is_moved_by_keys_and_read_where_it_stands(page: Page, server: Server, campus: str) -> None:
    visit(page, server.address, f"{campus}/bunkhouse/D5?view=plane")
    here = page.get_by_test_id("plane-here")
    share = here.locator("div", has_text="share of R inside").locator("dd")
    before = number(share.inner_text().removesuffix("%"))
    plane = page.get_by_test_id("plane")
    plane.focus()
    for _ in range(6):
        plane.press("PageUp")
    assert number(share.inner_text().removesuffix("%")) > before
    page.get_by_role("button", name="Back to where it is").click()
    assert number(share.inner_text().removesuffix("%")) == before
    rows = page.get_by_test_id("sections").locator("tbody tr")
    rows.filter(has_text="stud").get_by_role("button").click()
    assert number(share.inner_text().removesuffix("%")) > before
    assert axe(page) == []


def test_a_build_up_is_run_by_the_hour_and_read_at_any_moment(store: Page) -> None:
    look(store, "By the hour")
    expect(store.get_by_test_id("hours-verdict")).to_contain_text("Accepted by the hour", timeout=RUN)
    expect(store.get_by_test_id("balance")).to_contain_text(re.compile(r"less water that came in\s+−?\de−\d+"))
    figures = store.locator("[data-testid=hours-verdict] button, [data-testid=balance] button")
    for figure in figures.all():
        figure.click()
        drawer = store.get_by_test_id("working")
        expect(drawer).to_contain_text("EN 15026:2007, run by the hour")
        assert leading(drawer.locator(".result").inner_text()) == pytest.approx(leading(figure.inner_text()), rel=0.06)
        store.keyboard.press("Escape")
    assert figures.count() >= 2
    chart = store.get_by_role("slider", name=re.compile("through the years"))
    heading = store.get_by_role("heading", name=re.compile("The section on"))
    before = heading.inner_text()
    chart.focus()
    chart.press("PageUp")
    expect(heading).not_to_have_text(before)
    expect(store.get_by_test_id("faces").locator("tbody tr")).to_have_count(2)
    assert axe(store) == []
    store.get_by_role("textbox", name="years at most").fill("0")
    store.get_by_role("textbox", name="years at most").press("Enter")
    expect(store.get_by_test_id("life")).to_contain_text("0 years")
    store.get_by_role("textbox", name="years at most").fill("1")
    store.get_by_role("textbox", name="years at most").press("Enter")
    expect(store.get_by_test_id("life")).not_to_contain_text("0 years")


def test_eight_cases_say_what_is_not_forgiven(store: Page) -> None:
    look(store, "Harder life")
    expect(store.get_by_test_id("fan-verdict")).to_contain_text("of 8 cases are accepted", timeout=RUN)
    rows = store.get_by_test_id("cases").locator("tbody tr")
    expect(rows).to_have_count(8)
    expect(rows.first).to_contain_text("accepted")
    expect(rows.filter(has_text="without any")).to_contain_text("kg/m²")


def test_a_ridge_without_a_seal_wets_its_skin_and_a_tighter_one_is_tried(
    page: Page, server: Server, jointed: str
) -> None:
    visit(page, server.address, f"{jointed}/main-laboratory/A5")
    verdict = page.get_by_test_id("leak-verdict")
    expect(verdict).to_contain_text("Room air wets the outer skin", timeout=RUN)
    expect(page.get_by_test_id("safe")).to_contain_text(re.compile("three lines of seal"))
    months = page.get_by_role("group", name="Water in the outer skin along the joint").get_by_role("button")
    months.nth(0).click()
    months.nth(0).press("ArrowRight")
    expect(months.nth(1)).to_be_focused()
    page.get_by_role("button", name="three lines").click()
    expect(verdict).not_to_contain_text("Room air wets", timeout=RUN)
    assert axe(page) == []


def test_what_is_accepted_of_water_is_the_practice_s_own(page: Page, server: Server, campus: str) -> None:
    visit(page, server.address, f"{campus}/sample-cold-store/D1")
    field = page.get_by_test_id("damp").get_by_role("textbox", name="water in wood, by mass")
    field.fill("18")
    field.press("Enter")
    expect(page.locator(".last")).to_contain_text("water in wood")
    field.fill("180")
    field.press("Enter")
    expect(page.get_by_test_id("damp")).to_contain_text("180")
