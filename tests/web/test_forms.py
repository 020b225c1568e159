"""Forms, wet trades, lifts and order on the screen: moved, measured, filled, cast, and what stays open until mended."""

from __future__ import annotations

import re

from playwright.sync_api import Page, Route, expect
from web.board import Board

from tools.window import Server

LONG = 90_000  # a loaded machine lays walls slowly [ms]
BOATS, BARN = "boat-workshop/D6", "seed-barn/D8"


def test_a_window_goes_with_keys_onto_the_webs_and_the_cuts_that_change_are_told(
    page: Page, server: Server, shaped: str
) -> None:
    board = Board(page, server.address, shaped).open(f"{BOATS}?view=courses&element=b1.1.p1")
    expect(page.get_by_role("group", name="Wall B in courses")).to_be_visible(timeout=LONG)
    expect(page.get_by_text("2 pieces held by fewer than two webs.")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Buck of W1")).press("Shift+ArrowRight")
    expect(page.get_by_text(re.compile("^Not applied yet: W1 moved 200 mm right"))).to_be_visible()
    expect(page.get_by_test_id("wall-change")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_text("Not applied yet")).to_have_count(0)
    offer = page.get_by_role("button", name=re.compile(r"^Move W1 .* right$"))
    expect(page.get_by_test_id("buck-saves")).to_contain_text("3 cuts less")
    offer.click()
    expect(board.last_edit()).to_contain_text("W1 moved 217 mm right")
    expect(page.get_by_text("held by fewer than two webs.")).to_have_count(0)


def test_blocks_are_measured_one_after_another_and_the_trims_are_taken(page: Page, server: Server, shaped: str) -> None:
    board = Board(page, server.address, shaped).open(f"{BOATS}?view=drift")
    expect(page.get_by_role("heading", name="Block 1 of course 3, wall G")).to_be_visible()
    expect(page.get_by_test_id("trims")).to_contain_text("11 mm off")
    field = page.get_by_label("measured", exact=True)
    field.fill("1300")
    field.press("Enter")
    expect(page.get_by_text("1 300 mm, 100 mm off a block of 1 200 mm")).to_be_visible()
    expect(field).to_have_value("1300")
    field.fill("1197.5")
    field.press("Enter")
    expect(page.get_by_role("heading", name="Block 2 of course 3, wall G")).to_be_visible()
    page.get_by_role("button", name="Read the tape (simulated)").click()
    expect(page.get_by_role("heading", name="Block 3 of course 3, wall G")).to_be_visible()
    page.get_by_role("button", name="They are trimmed").click()
    expect(page.get_by_test_id("trims")).to_contain_text("Nothing to trim")
    expect(board.last_edit()).to_contain_text("2 sheets of wall G trimmed")
    first, second = (page.get_by_label(f"Sheet {n}", exact=True) for n in (1, 2))

    def slowly(route: Route) -> None:  # the next sheet is typed before this one is answered
        second.fill("1190")
        second.press("Enter")
        route.continue_()

    page.route("**/api/v1/projects/*/edit*", slowly, times=1)
    first.fill("1185")
    first.press("Enter")
    expect(board.last_edit()).to_contain_text("Sheet 2 of wall G")
    expect(second).to_have_value(re.compile(r"^1\s190"))
    expect(first).to_have_value(re.compile(r"^1\s185"))


def test_a_pour_without_a_rated_value_has_no_verdict_and_a_slower_one_is_taken(
    page: Page, server: Server, shaped: str
) -> None:
    board = Board(page, server.address, shaped).open(f"{BOATS}?view=pour&element=b2.1")
    expect(page.get_by_text(re.compile("^Filled like that, the form would have 50.5"))).to_be_visible()
    page.get_by_role("button", name="Fill in 2 lifts").click()
    expect(board.last_edit()).to_contain_text("filled in lifts")
    expect(page.get_by_text("Filled like that")).to_have_count(0)
    field = page.get_by_label("rated by the form supplier")
    field.fill("")
    field.press("Enter")
    expect(page.get_by_text("No verdict: nobody has entered what the forms are rated for.")).to_be_visible()
    rate = page.get_by_label("rate of rise")
    rate.fill("0")
    rate.press("Enter")
    expect(rate).to_have_value("0")
    expect(page.get_by_text(re.compile("above nought, up to 20"))).to_be_visible()


def test_a_panel_lifted_early_is_told_and_a_gate_is_opened(page: Page, server: Server, shaped: str) -> None:
    board = Board(page, server.address, shaped).open(f"{BARN}?view=wet")
    expect(page.get_by_text("A-02 was lifted on day 11: its clock had 4 warm days.")).to_be_visible()
    page.get_by_label("A-02 lifted on").select_option("13")
    expect(page.get_by_text("A-02 was lifted on day 11")).to_have_count(0)
    board.go(f"{BARN}?view=work")
    gate = page.get_by_role("button", name=re.compile("^Bales weighed and their moisture read: not through"))
    gate.click()
    expect(page.get_by_role("button", name=re.compile("^Bales weighed .*: through"))).to_be_visible()
    page.get_by_role("button", name="Panels plastered face down, turned, plastered, up").click()
    expect(page.get_by_text(re.compile("^The proposed order cannot be kept: Panels plastered"))).to_be_visible()
    page.get_by_role("button", name="As it follows").click()
    expect(page.get_by_text("The proposed order cannot be kept")).to_have_count(0)
    hours = page.get_by_label("Hours of Linings", exact=True)
    hours.fill("-3")
    hours.press("Enter")
    expect(page.get_by_text("0 to 5000 h")).to_be_visible()
    expect(hours).to_have_value("-3")
    board.go(f"{BARN}?view=bill")
    price = page.get_by_label("Price of straw rolls", exact=True)
    price.fill("-5")
    price.press("Enter")
    expect(page.get_by_text("nought or above")).to_be_visible()
    expect(price).to_have_value("-5")
    board.go(f"{BARN}?view=lifts")
    expect(page.get_by_test_id("lift")).to_contain_text("E-02 weighs")
    page.get_by_role("button", name="A-01, show it").click()
    expect(page.get_by_test_id("lift")).to_contain_text("A-01 weighs")
