"""The foam study, comparison, day, standards, materials and the layer's further properties in a real browser."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect
from web.board import Board, evaluated, leading, number, visit

from tools.window import Server


@pytest.fixture
def board(page: Page, server: Server, campus: str) -> Board:
    return Board(page, server.address, campus).open()


def sheet(board: Board, name: str) -> None:
    board.page.get_by_role("navigation", name="Sheets of this build-up").get_by_role("button", name=name).click()


# --- foam study ---------------------------------------------------------------------------------------------------


def test_a_variant_of_the_foam_study_is_adopted_and_undone_in_one(board: Board, server: Server) -> None:
    page = board.page
    sheet(board, "Foam study")
    study = page.get_by_test_id("foam-study")
    expect(study).to_contain_text("Cheapest within the limits")
    expect(page.get_by_test_id("next-step")).to_contain_text("235 mm, saves")
    first = page.get_by_test_id("variants").locator("tbody tr").first
    expect(first).to_contain_text("cheapest within the limits")
    expect(page.get_by_test_id("pick-moisture")).to_contain_text("passes by the months", timeout=60_000)
    expect(page.locator("tr.present")).to_contain_text("as it is")
    page.get_by_role("button", name="Adopt PIR, panel core 200 mm").click()
    expect(board.last_edit()).to_have_text("Core: PIR, panel core 200 mm")
    wall = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]
    assert [(one["material"], one["d"]) for one in wall["layers"] if one["studied"]] == [("pir-core", 0.2)]
    page.locator("h1").focus()
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    expect(page.locator("tr.present")).to_contain_text("EPS with graphite")


def test_the_studys_figures_open_to_their_working(board: Board) -> None:
    page = board.page
    sheet(board, "Foam study")
    button = page.get_by_role("button", name=re.compile(r", life cost, EPS with graphite 235, working$"))
    shown = number(button.inner_text())
    button.click()
    drawer = page.get_by_test_id("working")
    expect(drawer).to_contain_text("money over the life")
    expect(drawer).to_contain_text("heating degree hours")
    assert float(drawer.locator(".result").get_attribute("data-value") or "nan") == pytest.approx(shown, abs=0.51)


def test_payback_and_floor_open_to_their_working(board: Board) -> None:
    page = board.page
    sheet(board, "Foam study")
    for column, words in (("pays in", "energy saved a year"), ("floor", "wall thickness, as it is")):
        button = page.get_by_role("button", name=re.compile(rf", {column}.*, EPS with graphite 235, working$"))
        shown = leading(button.inner_text())
        button.click()
        drawer = page.get_by_test_id("working")
        expect(drawer).to_contain_text(words)
        value = float(drawer.locator(".result").get_attribute("data-value") or "nan")
        assert abs(value) == pytest.approx(abs(shown), rel=0.02, abs=0.51)
        page.keyboard.press("Escape")


def test_limits_of_the_basis_stop_variants_in_words(board: Board) -> None:
    page = board.page
    board.open("main-laboratory/1")
    field = page.get_by_label("thickest", exact=True)
    field.fill("330")
    field.press("Enter")
    expect(board.last_edit()).to_have_text("Thickest build-up")
    board.open()
    sheet(board, "Foam study")
    row = page.locator("tr", has_text="EPS with graphite").filter(has_text="235").first
    expect(row).to_contain_text("thicker than wanted")
    expect(page.get_by_test_id("foam-study")).to_contain_text("wall 330 mm")


def test_cores_are_added_and_left_out(board: Board) -> None:
    page = board.page
    sheet(board, "Foam study")
    page.get_by_label("Add a core").select_option("wood-fibre-board")
    expect(page.get_by_role("button", name="Wood fibre board", exact=True)).to_be_visible()
    expect(page.get_by_test_id("variants")).to_contain_text("Wood fibre board")
    page.get_by_role("button", name="Leave out Wood fibre board").click()
    expect(page.get_by_test_id("variants")).not_to_contain_text("Wood fibre board")


def test_variants_are_sorted_filtered_and_adopted_with_a_reason(board: Board) -> None:
    page = board.page
    sheet(board, "Foam study")
    table = page.get_by_test_id("variants")
    rows = table.locator("tbody tr")
    expect(table.locator("tbody tr")).not_to_have_count(0)
    expect(table.locator("td[title='being judged']")).to_have_count(0, timeout=90_000)
    expect(table.locator("tr", has_text="Mineral wool").first).to_contain_text("moisture fails: the most that a plane")
    before = rows.count()
    page.get_by_label("what passes only").check()
    expect(table).not_to_contain_text("R below what is asked")
    expect(table).not_to_contain_text("moisture fails")
    assert 0 < rows.count() < before
    heading = table.locator("thead th", has_text="weight")
    for way in ("ascending", "descending"):
        heading.get_by_role("button").click()
        expect(heading).to_have_attribute("aria-sort", way)
        weights = [leading(one) for one in table.locator("button[aria-label*=', weight, ']").all_inner_texts()]
        assert weights == sorted(weights, reverse=way == "descending")
    page.get_by_label("because").fill("the crane lifts no more")
    last = rows.last
    last.scroll_into_view_if_needed()
    expect(table.locator("thead th", has_text="core")).to_be_in_viewport()  # the head stays
    adopt = last.get_by_role("button", name="Adopt")
    expect(adopt).to_be_in_viewport(ratio=1)
    adopt.click()
    expect(board.last_edit()).to_contain_text("the crane lifts no more")


def test_both_panels_of_a_form_are_one_core(board: Board, server: Server) -> None:
    page = board.page
    board.open("boat-workshop/D2?view=study")
    expect(page.get_by_text("changes with it, in material and in proportion")).to_be_visible()
    page.get_by_test_id("variants").get_by_role("button", name=re.compile("^Adopt PIR")).first.click()
    expect(board.last_edit()).to_contain_text("Core: PIR")
    stored = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"]
    form = next(one for one in stored if one["id"] == "wall-w-b")
    panels = [layer for layer in form["layers"] if layer["studied"] or layer["goes_with_core"]]
    assert [layer["material"] for layer in panels] == ["pir-board-open"] * 2
    assert panels[0]["d"] == panels[1]["d"]
    board.open("boat-workshop/D2")
    board.choose(next(at for at, layer in enumerate(form["layers"]) if layer["goes_with_core"]) + 1)
    page.get_by_label("goes with the core").uncheck()
    expect(board.last_edit()).to_contain_text("stands by itself")
    page.get_by_role("navigation", name="Sheets of this build-up").get_by_role("button", name="Foam study").click()
    expect(page.get_by_test_id("variants").locator("tbody tr")).not_to_have_count(0)
    expect(page.get_by_text("changes with it")).to_have_count(0)


def test_the_building_is_summed_up_with_each_variants_joints_solved(board: Board, jointed: str) -> None:
    page = board.page
    Board(page, board.address, jointed).open("main-laboratory/D2?view=study")
    page.get_by_test_id("foam-cores").get_by_role("button", name="PIR, panel core", exact=True).click()
    page.get_by_role("button", name=re.compile("^Solve the joints")).click()
    expect(page.get_by_text("joints solved", exact=True)).to_be_visible(timeout=120_000)
    cells = page.get_by_test_id("variants").locator("td[title='with every joint and fixing of the building solved']")
    values = [float(one) for one in cells.all_inner_texts()]
    assert len(values) >= 4
    assert all(value > 0 for value in values[::2])
    page.get_by_role("button", name="Without joints").click()
    expect(cells).to_have_count(0)


def opened(board: Board, where: Locator) -> int:
    """Open every figure there to its working: each gives the figure that is shown. How many there were."""
    figures = where.locator("button[aria-label$='show working']")
    expect(figures.first).to_be_visible()
    for at in range(figures.count()):
        button = figures.nth(at)
        with board.page.expect_response("**/study-working") as reply:
            button.evaluate("(one) => one.click()")
        steps = reply.value.json()["steps"]
        assert evaluated(steps) == pytest.approx(steps[-1]["value"], rel=1e-9, abs=1e-12)
        result = board.page.get_by_test_id("working").locator(".result")
        expect(result).to_be_visible()
        shown, worked = leading(button.inner_text()), leading(result.inner_text())
        assert worked == pytest.approx(shown, rel=0.02, abs=0.06), button.get_attribute("aria-label")
        board.page.keyboard.press("Escape")
    return figures.count()


# --- compare, claim, day --------------------------------------------------------------------------------------------


def test_build_ups_stand_side_by_side_at_equal_R(board: Board) -> None:
    page = board.page
    sheet(board, "Compare")
    drawn = page.get_by_test_id("comparison")
    expect(drawn.locator("figure")).to_have_count(2)
    page.get_by_label("Add a build-up to compare").select_option("wall-w-b")
    expect(drawn.locator("figure")).to_have_count(3)
    page.get_by_label("at", exact=True).select_option("equal R")
    row = page.locator("tbody tr", has_text="R clear wall")
    expect(row.locator("td").nth(1)).to_contain_text("±0")
    expect(row.locator("td").nth(2)).to_contain_text("±0")


def test_an_alternative_takes_the_place_and_gives_it_back(board: Board) -> None:
    page = board.page
    sheet(board, "Compare")
    whole = page.get_by_test_id("on-the-whole")
    row = whole.locator("tr", has_text="heat loss of the building")
    expect(row.locator("td").nth(1)).to_contain_text(re.compile(r"\d"))
    assert leading(row.locator("td").nth(1).inner_text()) > leading(row.locator("td").nth(0).inner_text())
    expect(row.locator("td").nth(1).locator("em.worse")).to_have_count(1)
    page.get_by_role("button", name="Duplicate as alternative").click()
    expect(page.get_by_role("heading", name="Wall W-A, alternative")).to_be_visible()
    same = page.locator("tbody tr", has_text="R clear wall").locator("td").nth(1)
    expect(same).to_contain_text("±0")
    expect(same.locator("em.worse")).to_have_count(0)  # what is equal is no loss
    page.get_by_role("button", name="Use here: Wall W-A", exact=True).click()
    expect(page.get_by_role("heading", name="Wall W-A, rename")).to_be_visible()
    expect(page.get_by_role("button", name="Use here: Wall W-A, alternative")).to_be_visible()


def test_what_is_solved_for_a_comparison_stops_and_stays_stopped(board: Board, jointed: str) -> None:
    page = board.page
    Board(page, board.address, jointed).open("main-laboratory/D2?view=compare")
    page.get_by_label("Add a build-up to compare").select_option("wall-w-c")  # what no other test has had solved
    whole = page.get_by_test_id("on-the-whole")
    row = whole.locator("tr", has_text="heat loss of the building").locator("td").nth(2)
    expect(row).to_contain_text("…")
    whole.get_by_role("button", name="Stop solving").click()
    again = whole.get_by_role("button", name="Solve the rest")
    expect(again).to_be_visible()
    page.wait_for_timeout(2500)  # answers that others wait for must not begin it again
    expect(again).to_be_visible()
    expect(row).to_contain_text("…")
    again.click()
    expect(row).to_contain_text(re.compile(r"\d"), timeout=120_000)


def test_a_suppliers_claim_is_worked_through(board: Board) -> None:
    page = board.page
    sheet(board, "Compare")
    field = page.get_by_test_id("claim").get_by_label("claimed R")
    field.fill("7.2")
    field.press("Enter")
    page.get_by_role("button", name="Work it through").click()
    expect(page.get_by_test_id("claim-answer")).to_contain_text("% of the claim is the clear wall's R")
    assert opened(board, page.get_by_test_id("claim-answer")) == 9
    assert opened(board, page.locator("tbody")) >= 26


def test_a_day_says_what_mass_does(board: Board) -> None:
    page = board.page
    sheet(board, "Day")
    expect(page.get_by_test_id("day-verdict")).to_contain_text("Hardly any mass")
    assert opened(board, page.get_by_test_id("day")) == 8
    page.get_by_label("Building", exact=True).select_option("boat-workshop")
    visit(board.page, board.address, f"{board.project}/boat-workshop/D2?element=e3&view=day")
    expect(page.get_by_test_id("day-verdict")).to_contain_text("Evens out both ways")
    page.get_by_label("Mean day of").select_option("0")
    expect(page.get_by_test_id("day-verdict")).to_contain_text("Swing too small to matter")
    rise = page.get_by_label("sun adds at most")
    rise.fill("20")
    rise.press("Enter")
    expect(page.get_by_test_id("day-verdict")).to_contain_text("Delays, does not save")


# --- layers ---------------------------------------------------------------------------------------------------------


def test_control_lines_fitting_and_services_belong_to_the_layer(board: Board) -> None:
    page = board.page
    more = page.get_by_test_id("layer-more")
    board.choose(3)
    more.get_by_role("button", name="air", exact=True).click()
    board.done("OSB: air line off")
    strip = page.get_by_role("img", name=re.compile("^Control lines"))
    expect(strip).to_have_attribute("aria-label", re.compile("air undecided"))
    expect(page.locator(".notice", has_text="No layer carries the air line")).to_have_count(1)
    more.get_by_label("fitted").select_option("late")
    board.done("OSB fitted: late")


def test_a_declared_class_is_kept_with_its_source(board: Board, server: Server) -> None:
    more = board.page.get_by_test_id("layer-more")
    more.get_by_label("Declared value", exact=True).fill("B-s1,d0")
    more.get_by_label("Source of the declared value").fill("report 12")
    more.get_by_role("button", name="add", exact=True).click()
    board.done("fire of EPS with graphite declared")
    wall = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]
    assert wall["layers"][3]["declared"] == [{"kind": "fire", "value": "B-s1,d0", "source": "report 12"}]


def test_a_substitution_is_recomputed_approved_and_taken_back(board: Board) -> None:
    page = board.page
    more = page.get_by_test_id("layer-more")
    before = board.R()
    more.get_by_label("another was delivered").select_option("eps-038")
    board.done("EPS with graphite: EPS, white, light delivered")
    expect(page.locator(".notice.decision", has_text="stands where EPS with graphite was asked")).to_have_count(1)
    expect(more).to_contain_text(f"{before:.2f} asked")
    approved = more.get_by_label("approved by")
    approved.fill("checker")
    approved.press("Tab")
    board.done("Substitution of EPS, white, light approved")
    expect(page.locator(".notice.decision", has_text="was asked")).to_have_count(0)
    more.get_by_role("button", name="Put the asked one back").click()
    board.done("EPS, white, light back to what was asked")
    assert board.R() == before


def test_a_depth_and_a_chase_are_probed(board: Board) -> None:
    probe = board.page.get_by_test_id("probe")
    depth = probe.get_by_label("temperature at depth")
    depth.fill("200")
    depth.press("Enter")
    expect(probe).to_contain_text("a pipe there freezes")
    chase = probe.get_by_label("chase")
    chase.fill("30")
    chase.press("Enter")
    expect(probe).to_contain_text("nominal there")
    assert opened(board, probe) == 5
    depth.fill("2000")
    depth.press("Enter")
    expect(probe.get_by_role("alert")).to_contain_text("2 000 mm")


# --- standards ------------------------------------------------------------------------------------------------------


def test_a_build_up_is_kept_as_a_standard_and_used_where_nothing_is_drawn(board: Board) -> None:
    page = board.page
    sheet(board, "Standard")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("alert").first).to_contain_text("reason")
    page.get_by_label("why the practice trusts it").fill("nine dry winters <b>")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_test_id("standards")).to_contain_text("nine dry winters <b>")
    expect(page.get_by_test_id("standards")).to_contain_text("Heron Flats Field Laboratory, Wall W-A (version 1)")
    visit(page, board.address, f"{board.project}/pump-house/D2?element=e3")
    page.get_by_role("button", name="Use the standard Wall W-A").first.click()
    board.settled()
    assert board.layers()[0] == "Larch boards"
    board.type_dimension("EPS with graphite", "140")
    expect(board.last_edit()).to_contain_text("to 140 mm")
    board.settled()
    sheet(board, "Standard")
    expect(page.get_by_test_id("offer")).to_contain_text("thickness of EPS with graphite")
    page.get_by_role("button", name="Take it").click()
    expect(page.get_by_test_id("offer")).to_have_count(0)
    sheet(board, "Section")
    expect(board.dimension("EPS with graphite")).to_have_text("185")


# --- Basis ----------------------------------------------------------------------------------------------------------


def test_a_climate_is_shipped_or_read_from_a_file(board: Board, server: Server) -> None:
    page = board.page
    board.open("main-laboratory/1")
    page.get_by_label("take a shipped climate").select_option("hot-humid")
    expect(board.last_edit()).to_have_text("Climate: Ibis Delta, hot-humid (invented)")
    rows = "\n".join(f"{theta};{80}" for theta in range(-3, 9))
    file = {"name": "lake.csv", "mimeType": "text/csv", "buffer": f"temperature;humidity\n{rows}".encode()}
    page.get_by_label("Climate file to read").set_input_files(file)  # type: ignore[arg-type]
    page.get_by_role("button", name="Take it").click()
    expect(board.last_edit()).to_have_text("Climate: lake")
    basis = server.call("GET", f"/projects/{board.project}")["project"]["basis"]
    assert basis["climate"]["theta_e"][0] == -3
    wrong = {**file, "buffer": b"temperature;humidity\n1;2;3\n"}
    page.get_by_label("Climate file to read").set_input_files(wrong)  # type: ignore[arg-type]
    expect(page.get_by_role("alert").first).to_contain_text("line 2 has 3 columns")


def test_the_register_says_where_an_engineer_is_needed(board: Board) -> None:
    page = board.page
    board.open("main-laboratory/1")
    row = page.get_by_test_id("criteria").locator("tr", has_text="ground snow load")
    expect(row).to_contain_text("needs an engineer")
    site = row.get_by_label("ground snow load, this site")
    site.fill("2.0")
    site.press("Enter")
    expect(row).to_contain_text("inside")
    site.fill("heavy")
    site.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("“heavy” is no number")


def test_own_materials_are_added_changed_and_come_from_csv(board: Board, server: Server, tmp_path: Path) -> None:
    page = board.page
    board.open("main-laboratory/1?view=materials")
    page.get_by_role("button", name="Add a material").click()
    field = page.get_by_label("λ of Own material", exact=True)
    field.fill("0.029")
    field.press("Enter")
    expect(board.last_edit()).to_contain_text("changed")
    file = tmp_path / "own.csv"
    file.write_text("key,name,family,lambda,rho,c\nown-b,Own B,foam,0.04,15,1450\nosb,Mine,panel,0.1,600,1700\n")
    page.get_by_label("Materials file to import").set_input_files(file)
    expect(page.get_by_role("alert").first).to_contain_text("“osb” is a shipped material")
    file.write_text("key,name,family,lambda,rho,c\nown-b,Own B,foam,0.04,15,1450\n")
    page.get_by_label("Materials file to import").set_input_files(file)
    expect(page.get_by_label("Name of own-b", exact=True)).to_have_value("Own B")
    page.get_by_label("Find a material").fill("graphite")
    cost = page.get_by_label("Cost of EPS with graphite", exact=True)
    cost.fill("200")
    cost.press("Enter")
    expect(board.last_edit()).to_have_text("Rates of EPS with graphite")
    page.get_by_label("Add a material like").select_option("osb")
    expect(board.last_edit()).to_have_text("Own material like OSB")
    materials = server.call("GET", f"/projects/{board.project}")["project"]["materials"]
    assert {one["name"]: one["lambda"] for one in materials} == {"Own material": 0.029, "Own B": 0.04, "OSB, own": 0.13}
    assert {key: materials[2][key] for key in ("wood", "w80", "surface")} == {
        "wood": "board",
        "w80": 95,
        "surface": "wood",
    }
    board.open()
    board.bar.get_by_label("Material of layer 4").select_option("own-b")
    board.done("EPS with graphite to Own B")


def test_a_roof_is_stood_upright_with_a_plumb_mark(board: Board) -> None:
    board.open("main-laboratory/B2")
    expect(board.page.locator(".plumb")).to_be_visible()
    assert board.R("combined") > 7
