"""What is typed into a field: read as people write it, refused where it stands, kept until it is mended."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Locator, Page, Route, expect
from web.board import Board

from tools.window import Server, quiet


@pytest.fixture
def basis(page: Page, server: Server, campus: str) -> Page:
    Board(page, server.address, campus).open("main-laboratory/1")
    quiet(page)
    return page


def typed(page: Page, label: str, text: str) -> Locator:
    field = page.get_by_label(label, exact=True).first
    field.fill(text)
    field.press("Enter")
    return field


def test_what_is_refused_stays_with_the_reason_until_it_is_mended(basis: Page) -> None:
    for label, wrong, reason, right in (
        ("latitude °", "95", "from −90 to 90°", "46"),
        ("Heated humidity", "120", "120 %", "50"),
        ("asked heat loss", "1,200", "1200 or 1.200", "1200"),
        ("asked heat loss", "12 apples", "not a number", "120"),
    ):
        _refused_and_mended(basis, label, wrong, reason, right)


def _refused_and_mended(basis: Page, label: str, wrong: str, reason: str, right: str) -> None:
    field = typed(basis, label, wrong)
    why = basis.locator(".entry", has=field).locator(".why")
    expect(why).to_contain_text(reason)
    expect(field).to_have_value(wrong)
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(basis.locator(".trouble")).to_have_count(0)  # once, where it happened
    typed(basis, label, right)
    expect(why).to_have_count(0)
    expect(field).not_to_have_attribute("aria-invalid", "true")


@pytest.mark.parametrize(
    ("label", "text", "shown"), [("asked heat loss", "1200", r"1\s200"), ("latitude °", "47.5", "47.5")]
)
def test_what_is_selected_when_an_answer_comes_stays_selected(basis: Page, label: str, text: str, shown: str) -> None:
    def select_first(route: Route) -> None:
        field.select_text()
        route.continue_()

    field = basis.get_by_label(label, exact=True)
    basis.route("**/api/v1/projects/*/edit*", select_first, times=1)
    typed(basis, label, text)
    expect(field).to_have_value(re.compile(shown))
    basis.keyboard.insert_text("12 apples")
    expect(field).to_have_value("12 apples")


def test_two_fields_typed_before_the_first_is_answered_are_both_written(basis: Page) -> None:
    def slowly(route: Route) -> None:
        typed(basis, "altitude", "612")
        route.continue_()

    basis.route("**/api/v1/projects/*/edit*", slowly, times=1)
    typed(basis, "latitude °", "47.5")
    expect(basis.locator(".ledger .last p")).to_have_text("Altitude")
    quiet(basis)
    expect(basis.get_by_label("altitude", exact=True)).to_have_value("612")
    expect(basis.get_by_label("latitude °", exact=True)).to_have_value("47.5")


def test_a_refusal_stays_at_its_field_whatever_is_saved_of_others(basis: Page) -> None:
    latitude, altitude = (basis.get_by_label(one, exact=True) for one in ("latitude °", "altitude"))

    def slowly(route: Route) -> None:  # the next field is typed before this one is refused
        typed(basis, "altitude", "612")
        route.continue_()

    basis.route("**/api/v1/projects/*/edit*", slowly, times=1)
    typed(basis, "latitude °", "95")
    expect(basis.locator(".ledger .last p")).to_have_text("Altitude")
    expect(altitude).to_have_value("612")
    expect(altitude).not_to_have_attribute("aria-invalid", "true")
    expect(latitude).to_have_value("95")
    expect(basis.locator(".entry", has=latitude).locator(".why")).to_contain_text("from −90 to 90°")
    latitude.press("Enter")  # asked again, as something was saved since, and refused again
    quiet(basis)
    expect(latitude).to_have_value("95")
    typed(basis, "latitude °", "46")
    expect(latitude).not_to_have_attribute("aria-invalid", "true")


def test_a_choice_and_a_button_say_what_is_refused_of_them(page: Page, server: Server, shaped: str) -> None:
    reason = {"pointer": "#/x", "code": "x", "detail": "a school without a teacher", "hint": "name one"}
    problem = {"title": "The input cannot be calculated", "status": 422, "detail": "", "hint": "", "errors": [reason]}
    said = "a school without a teacher: name one. The old value stands."
    Board(page, server.address, shaped).open("boat-workshop/D6?view=pour&element=b2.1")
    page.route("**/api/v1/projects/*/edit*", lambda route: route.fulfill(status=422, json=problem), times=2)
    school = page.get_by_label("school", exact=True)
    stood = school.input_value()
    school.select_option("B" if stood == "A" else "A")
    why = page.locator(".choice", has=school).locator(".why")
    expect(why).to_have_text(said)
    expect(school).to_have_value(stood)
    expect(page.locator(".trouble")).to_have_count(0)  # once, where it happened
    page.get_by_role("button", name="Fill in 2 lifts").click()
    expect(page.locator(".trouble")).to_contain_text(said)
    page.get_by_role("button", name="Leave it as it was").click()
    expect(page.locator(".trouble")).to_have_count(0)
    page.get_by_role("button", name="Fill in 2 lifts").click()
    expect(page.locator(".ledger .last")).to_contain_text("filled in lifts")
    expect(why).to_have_count(0)


def test_a_refusal_goes_when_its_field_goes_back_to_what_stood(basis: Page) -> None:
    field = typed(basis, "latitude °", "95")
    expect(basis.get_by_role("alert")).not_to_have_count(0)
    typed(basis, "latitude °", "46.2")
    expect(basis.get_by_role("alert")).to_have_count(0)
    typed(basis, "latitude °", "95")
    expect(basis.get_by_role("alert")).not_to_have_count(0)
    field.press("Escape")
    expect(basis.get_by_role("alert")).to_have_count(0)


def test_sums_and_other_units_are_read(basis: Page) -> None:
    for text, shown in (("8*2.7", "21.6"), ("100 ft²", "9.3"), ("(10+2)/5", "2.4"), ("20,5", "20.5")):
        field = typed(basis, "Area of Windows", text)
        quiet(basis)
        assert field.input_value().replace("\u2009", " ") == shown


def test_an_R_may_be_asked_as_the_trade_says_it(basis: Page) -> None:
    field = basis.get_by_label("clear-wall R of walls", exact=True)
    field.fill("R-28")
    expect(basis.locator(".entry", has=field)).to_contain_text("is 4.93 m²·K/W")
    field.press("Enter")
    quiet(basis)
    expect(field).to_have_value("4.93")
    typed(basis, "clear-wall R of walls", "U 0.2")
    quiet(basis)
    expect(field).to_have_value("5.00")


def test_units_are_a_view_and_take_no_edit(basis: Page) -> None:
    revision = basis.locator(".job span").inner_text()
    basis.get_by_role("button", name="IP", exact=True).click()
    quiet(basis)
    expect(basis.get_by_label("altitude", exact=True)).to_have_value("702")
    assert basis.locator(".job span").inner_text() == revision
    basis.get_by_role("button", name="Use North American films").click()
    quiet(basis)
    expect(basis.get_by_role("button", name="Use North American films")).to_have_count(0)
    basis.reload()
    quiet(basis)
    expect(basis.get_by_label("altitude", exact=True)).to_have_value("702")  # kept for the person
