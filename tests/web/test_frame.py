"""Basis, mast, ledger, working, palette and keys; and what axe has to say of each view."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import Board, axe, evaluated, number, visit

from tools.window import Server, quiet


@pytest.fixture
def board(page: Page, server: Server, campus: str) -> Board:
    return Board(page, server.address, campus).open()


def enter(board: Board, label: str, typed: str) -> None:
    field = board.page.get_by_label(label, exact=True)
    field.fill(typed)
    field.press("Enter")


# --- Basis ------------------------------------------------------------------------------------------------------


def test_every_screen_follows_the_basis(board: Board) -> None:
    page = board.page
    before = board.R(), board.fact("q")
    board.open("main-laboratory/1")
    expect(page.get_by_role("img", name=re.compile("Monthly mean outdoor temperature"))).to_be_visible()
    enter(board, "Temperature, Jan", "-20")
    expect(board.last_edit()).to_have_text("Monthly temperature")
    page.get_by_label("bridged R").select_option("isothermal")
    expect(board.last_edit()).to_have_text("Bridged R by isothermal")
    enter(board, "clear-wall R of walls", "7")
    expect(board.last_edit()).to_have_text("Asked of walls: R 7.00")
    page.locator("nav a", has_text="Build-ups").click()
    board.settled()
    assert board.R("isothermal") < before[0]
    assert board.fact("q") > before[1]
    expect(page.locator(".notice.decision")).to_contain_text("short of the asked 7.00")
    expect(page.locator(".mast li.on .value")).to_have_text(re.compile(f"R {board.R('isothermal'):.2f}"))


def test_what_cannot_be_is_refused_in_the_basis(board: Board, server: Server) -> None:
    board.open("main-laboratory/1")
    before = server.call("GET", f"/projects/{board.project}")
    for label, typed in (
        ("Heated humidity", "130"),
        ("winter design", "-300"),
        ("Relative humidity, Jan", "101"),
        ("latitude °", "95"),
    ):
        enter(board, label, typed)
        said = board.page.locator(".entry", has=board.page.get_by_label(label, exact=True)).get_by_role("alert")
        expect(said).to_contain_text(typed.replace("-", "−") if "design" not in label else "")
        assert server.call("GET", f"/projects/{board.project}") == before


def test_areas_of_the_basis_carry_the_ledger(board: Board, server: Server) -> None:
    board.open("main-laboratory/1")
    board.page.wait_for_selector("[data-testid=H_shell] b")
    before = board.ledger("H_shell")
    enter(board, "Area of Windows", "40")
    expect(board.last_edit()).to_have_text("Area of Windows")
    board.page.wait_for_function(
        "(old) => !document.querySelector('[data-testid=H_shell] b').textContent.includes(old)", arg=f"{before:.1f}"
    )
    ledger = server.call("GET", f"/projects/{board.project}/buildings/main-laboratory/ledger")["now"]
    assert board.ledger("H_shell") == pytest.approx(ledger["H"], abs=0.0501)
    assert board.ledger("H_shell") > before


def test_what_is_not_counted_is_named_and_never_zero(board: Board) -> None:
    expect(board.page.get_by_test_id("moisture_margin")).to_contain_text("points", timeout=60_000)
    cells = board.page.locator(".ledger .pending")
    expect(cells).to_have_count(2)
    for cell in cells.all():
        expect(cell).to_contain_text(re.compile("not counted|no joint has a length: step 3"))
        expect(cell.locator(".none")).to_have_text("–")


def test_each_building_has_its_own_mast(board: Board) -> None:
    page = board.page
    page.get_by_label("Building", exact=True).select_option("bunkhouse")
    expect(page.locator(".mast")).to_contain_text("Wall W-C")
    expect(page.get_by_label("Building", exact=True)).to_have_value("bunkhouse")
    page.get_by_role("button", name="Next building").click()
    expect(page.get_by_label("Building", exact=True)).to_have_value("sample-cold-store")
    expect(page).to_have_url(re.compile("sample-cold-store"))


def test_a_wall_without_layers_starts_from_a_drawn_system(board: Board) -> None:
    visit(board.page, board.address, f"{board.project}/pump-house/D2?element=e3")
    expect(board.page.locator(".conditions")).to_contain_text("the shell does not count it")
    board.page.get_by_role("button", name="Start with Insulated concrete form, two-sided").click()
    board.settled()
    assert "Concrete, reinforced" in board.layers()
    assert board.R() > 2


def test_a_systems_parameters_are_turned_before_it_starts(board: Board, server: Server) -> None:
    page = board.page
    visit(page, board.address, f"{board.project}/pump-house/D2?element=e3")
    page.get_by_role("button", name="Parameters of Masonry or concrete with insulation").click()
    form = page.get_by_test_id("parameters")
    card = page.get_by_role("listitem").filter(has=form)
    before = card.locator(".numbers").inner_text()
    form.get_by_label("insulation", exact=True).first.select_option("cavity")
    expect(card.locator(".numbers")).not_to_have_text(before)  # its drawing and its R follow
    leaf = form.get_by_label("leaf thickness")
    leaf.fill("9000")
    leaf.press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("leaf thickness is 9.0")
    expect(form.get_by_role("button", name="Start with these")).to_be_disabled()
    leaf.fill("240")
    leaf.press("Enter")
    form.get_by_role("button", name="Start with these").click()
    board.settled()
    assert board.layers() == ["Brick, facing", "EPS with graphite", "Concrete block", "Gypsum plaster"]
    assert board.dimension("Concrete block").inner_text() == "240"


# --- working ----------------------------------------------------------------------------------------------------


def test_every_figure_on_the_bench_opens_to_working_that_gives_it(board: Board) -> None:
    page = board.page
    figures = page.locator("button[aria-label$='show working']")
    assert figures.count() >= 20
    for at in range(figures.count()):
        button = figures.nth(at)
        label = button.get_attribute("aria-label") or ""
        with page.expect_response("**/working") as reply:
            button.evaluate("(one) => one.click()")
        steps = reply.value.json()["steps"]
        assert evaluated(steps) == pytest.approx(steps[-1]["value"], rel=1e-9, abs=1e-12), label
        drawer = page.get_by_test_id("working")
        expect(drawer.locator(".result")).to_be_visible()
        assert float(drawer.locator(".result").get_attribute("data-value") or "nan") == steps[-1]["value"]
        shown = drawer.locator(".result b").inner_text()
        found = re.search(r": ([−\d\u2009.]+)", label)
        assert found, label
        assert number(shown.split(" ")[0]) == pytest.approx(number(found[1]), rel=0.03, abs=0.0051), label
        page.keyboard.press("Escape")
    expect(page.get_by_test_id("working")).to_have_count(0)


def test_the_working_shows_origin_and_clause_and_gives_the_focus_back(board: Board) -> None:
    page = board.page
    button = page.get_by_test_id("R-combined")
    button.focus()
    page.keyboard.press("w")
    drawer = page.get_by_test_id("working")
    expect(drawer).to_contain_text("ISO 6946:2017, 6.7.2.2")
    expect(drawer).to_contain_text("entered")
    expect(drawer).to_contain_text("catalogue")
    page.keyboard.press("Escape")
    expect(button).to_be_focused()


# --- keys -------------------------------------------------------------------------------------------------------


def test_the_main_task_is_done_without_a_mouse(board: Board, server: Server) -> None:
    page = board.page
    page.keyboard.press("Control+k")
    page.keyboard.type("layer core")
    page.keyboard.press("Enter")
    board.stop.focus()
    page.keyboard.press("Enter")
    page.keyboard.type("235")
    page.keyboard.press("Enter")
    board.done("Core 185 mm to 235 mm")
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    page.keyboard.press("b")
    page.keyboard.press("2")
    expect(page).to_have_url(re.compile("/B2"))
    page.keyboard.press("PageDown")
    expect(page).to_have_url(re.compile("/D2"))
    page.keyboard.press("[")
    expect(page).to_have_url(re.compile("/1$"))


def test_letter_keys_sleep_in_a_field_and_can_be_turned_off(board: Board) -> None:
    page = board.page
    field = board.bar.get_by_label("λ", exact=True)
    field.focus()
    page.keyboard.type("u")
    expect(page.get_by_role("button", name="SI", exact=True)).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+k")
    page.keyboard.type("letter keys off")
    page.keyboard.press("Enter")
    board.stop.focus()
    page.keyboard.press("u")
    expect(page.get_by_role("button", name="SI", exact=True)).to_have_attribute("aria-pressed", "true")


def test_the_keys_are_listed(board: Board) -> None:
    board.stop.focus()
    board.page.keyboard.press("?")
    expect(board.page.get_by_role("dialog", name="Keys")).to_contain_text("climb the mast")
    board.page.keyboard.press("Escape")
    expect(board.page.get_by_role("dialog", name="Keys")).to_have_count(0)


# --- for everybody ----------------------------------------------------------------------------------------------


def test_axe_finds_nothing_in_the_list_of_projects(page: Page, server: Server) -> None:
    page.goto(server.address)
    quiet(page)
    assert axe(page) == []


def test_the_drawing_has_a_table_twin(board: Board) -> None:
    twin = board.page.locator(".section table")
    expect(twin.locator("caption")).to_have_text("Layers, outside to inside")
    assert board.layers()[0] == "Larch boards"
    assert board.layers()[-1] == "Gypsum-fibre board"


def test_a_thickness_is_typed_where_one_types_what_one_wants(board: Board) -> None:
    page = board.page
    page.keyboard.press("Control+k")
    page.keyboard.type("core 235")
    expect(page.locator("#palette-list li").first).to_have_text("Core: 185 mm to 235 mm")
    page.keyboard.press("Enter")
    board.done("Core 185 mm to 235 mm")
    for typed, place in (("epw", "Site and climate"), ("targets", "Asked: targets"), ("help", "Keys?")):
        page.keyboard.press("Control+k")
        page.keyboard.type(typed)
        expect(page.locator("#palette-list li").first).to_have_text(place)
        page.keyboard.press("Escape")


def test_a_page_at_rest_asks_nothing(page: Page, server: Server, campus: str) -> None:
    Board(page, server.address, campus).open()
    judged = f"/projects/{campus}/buildings/main-laboratory/verdicts"
    while not all(one["verdict"] or one["why_not"] for one in server.call("GET", judged)["places"]):
        page.wait_for_timeout(200)
    quiet(page)
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    page.wait_for_timeout(1500)
    assert asked == []
