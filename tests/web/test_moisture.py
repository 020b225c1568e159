"""Moisture in a real browser: the drawn year, a chosen month, the worst surfaces."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import number, visit

from tools.window import Server


@pytest.fixture
def sheet(page: Page, server: Server, campus: str) -> Page:
    visit(page, server.address, f"{campus}/pump-house/D5")
    expect(page.get_by_test_id("verdict")).to_contain_text("Gets wet and dries")
    return page


def test_a_month_is_chosen_on_the_drawn_year(sheet: Page) -> None:
    months = sheet.get_by_role("group", name="The year in twelve cells").get_by_role("button")
    expect(months).to_have_count(12)
    expect(months.first).to_have_attribute("aria-label", re.compile("g/m² held"))
    months.nth(2).click()
    expect(months.nth(2)).to_have_attribute("aria-pressed", "true")
    months.nth(2).press("ArrowRight")
    expect(months.nth(3)).to_be_focused()
    expect(sheet).to_have_url(re.compile("at=2"))  # the year begins in December
    expect(sheet.get_by_test_id("wet").locator("tbody tr")).to_have_count(1)


def test_a_bad_surface_leads_to_its_place(sheet: Page) -> None:
    rows = sheet.get_by_test_id("ranking").locator("tbody tr")
    margins = [number(text) for text in rows.locator("td.n:nth-child(3)").all_inner_texts()]
    assert margins == sorted(margins)
    mast = sheet.get_by_role("complementary", name="Mast")
    expect(mast.get_by_role("link", name=re.compile("Footing"))).to_contain_text(re.compile(r"f 0\.\d{3}"))
    rows.filter(has_text="roof").get_by_role("button").click()
    expect(sheet).to_have_url(re.compile("/B5"))
    expect(sheet.get_by_role("heading", level=1)).to_contain_text("Roof R-F")


def test_keys_lead_there(sheet: Page) -> None:
    sheet.keyboard.press("2")
    expect(sheet).to_have_url(re.compile("/D2"))
    sheet.keyboard.press("b")
    sheet.keyboard.press("5")
    expect(sheet).to_have_url(re.compile("/B5"))
