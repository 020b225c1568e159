"""`./nimble screenshots`: take the pictures in docs/screenshots again, from fresh demo data, at 1280x800."""

from __future__ import annotations

import base64
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, ViewportSize, sync_playwright

from tools.window import ROOT, SMALLEST, Server, context, launch, quiet

TARGET = ROOT / "docs" / "screenshots"


def bench(page: Page) -> None:
    page.wait_for_selector("[data-testid=study]")


def working(page: Page) -> None:
    page.get_by_role("button", name="U of Laboratory window").click()
    page.wait_for_selector("[data-testid=working] ol")


def register(page: Page) -> None:
    page.get_by_test_id("criteria").scroll_into_view_if_needed()
    page.locator("main.sheet").evaluate("sheet => sheet.scrollTo(0, sheet.scrollHeight)")
    page.get_by_test_id("open-count").click()
    page.get_by_test_id("register").locator("li").first.wait_for()
    page.wait_for_timeout(15_000)  # until joints and verdicts have come in


def joint(page: Page) -> None:
    page.locator("[data-testid^=side-] .state", has_text="final").first.wait_for(timeout=90_000)
    page.wait_for_selector("[data-testid=psi-curve]", timeout=90_000)
    page.wait_for_timeout(2000)


def fixing(page: Page) -> None:
    page.locator(".conditions", has_text="unknowns, final").wait_for(timeout=90_000)
    page.wait_for_selector("[data-testid=psi-curve]", timeout=90_000)
    page.wait_for_timeout(1500)


def hours(page: Page) -> None:
    page.get_by_test_id("faces").wait_for(timeout=90_000)


def shape(page: Page) -> None:
    """A length being typed: the module speaks, mast and ledger show what would change."""
    page.get_by_role("button", name="type the length of side 2").first.click()
    page.get_by_role("textbox", name="Length of side 2").fill("8 700")
    page.locator(".mast ins").first.wait_for()
    page.wait_for_timeout(500)


def begin(page: Page) -> None:
    page.get_by_role("button", name="Begin a project").click()
    page.get_by_label("name").fill("Shore house")


def starts(page: Page) -> None:
    page.wait_for_timeout(2500)


def still(_: Page) -> None:
    """Nothing to do: the view as it opens."""


#: File name, address, and what to do there.
VIEWS: dict[str, tuple[str, Callable[[Page], None]]] = {
    "basis": ("/heron-flats/main-laboratory/1", still),
    "register": ("/heron-flats/main-laboratory/1", register),
    "materials": ("/heron-flats/main-laboratory/1?view=materials", still),
    "bench": ("/heron-flats/main-laboratory/D2", bench),
    "study": ("/heron-flats/main-laboratory/D2?view=study", still),
    "shape": ("/heron-flats/main-laboratory/1?view=shape", shape),
    "units": ("/heron-flats/main-laboratory/1?view=units", working),
    "joint": ("/heron-flats/main-laboratory/D3", joint),
    "fixing": ("/heron-flats/main-laboratory/B4", fixing),
    "moisture": ("/heron-flats/pump-house/D5", starts),
    "moisture-hours": ("/heron-flats/bunkhouse/D5?view=hours", hours),
    "walk": ("/heron-flats/main-laboratory/A3?view=walk", starts),
    "begin": ("/", begin),
    "whole": ("/heron-flats/main-laboratory/D7", still),
}

#: Sheets of one step on one picture.
SHEETS = {
    "whole-sheets": [f"/heron-flats/main-laboratory/D7?view={one}"
                     for one in ("measures", "air", "windows", "fresh", "loads", "year")],
    "moisture-sheets": ["/heron-flats/bunkhouse/D5?view=plane", "/heron-flats/main-laboratory/A5?view=joints"],
    "setout": ["/heron-flats/main-laboratory/D6", "/heron-flats/main-laboratory/D6?view=fittings",
               *(f"/heron-flats/boat-workshop/D6?view={one}"
                 for one in ("courses&element=b1.1.p1", "drift", "pour", "lining"))],
    "shop": ["/heron-flats/main-laboratory/D8",
             *(f"/heron-flats/main-laboratory/D8?view={one}" for one in ("boards", "laydown")),
             *(f"/heron-flats/seed-barn/D8?view={one}" for one in ("wet", "lifts", "work", "bill")),
             "/heron-flats/main-laboratory/D8?view=papers"],
}  # fmt: skip


#: On a small tablet held upright, and with everything at twice its size: one sheet of both.
NARROW = ("basis", "bench", "study", "joint", "moisture")
UPRIGHT: ViewportSize = {"width": 768, "height": 1024}
ZOOMED: ViewportSize = {"width": 640, "height": 400}


def narrow(browser: Browser, server: Server) -> None:
    rows = [[_taken(browser, server, VIEWS[name][0], size, scale) for name in NARROW]
            for size, scale in ((UPRIGHT, 1), (ZOOMED, 2))]  # fmt: skip
    _contact(browser, "narrow", rows, 310)


def sheets(browser: Browser, server: Server, name: str, places: list[str]) -> None:
    taken = [_taken(browser, server, place, SMALLEST, 1) for place in places]
    _contact(browser, name, [taken[at : at + 2] for at in range(0, len(taken), 2)], 784)


def _taken(browser: Browser, server: Server, place: str, size: ViewportSize, scale: float) -> str:
    window = context(browser, server, size, scale)
    page = window.new_page()
    page.goto(server.address + place)
    quiet(page)
    page.wait_for_timeout(1500)
    taken = base64.b64encode(page.screenshot()).decode()
    window.close()
    return taken


def _contact(browser: Browser, name: str, rows: list[list[str]], width: int) -> None:
    sheet = browser.new_page(viewport={"width": 1600, "height": 200})
    style = f"body{{margin:8px;background:#888}}div{{display:flex;gap:8px;margin-bottom:8px}}img{{width:{width}px}}"
    images = ("".join(f'<img src="data:image/png;base64,{one}">' for one in row) for row in rows)
    sheet.set_content(f"<style>{style}</style>" + "".join(f"<div>{row}</div>" for row in images))
    sheet.screenshot(path=TARGET / f"{name}.png", full_page=True)
    print(f"docs/screenshots/{name}.png")


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server, browser = Server(Path(folder)), launch(playwright)
        for name, (place, act) in VIEWS.items():
            window = context(browser, server)
            page = window.new_page()
            page.goto(server.address + place)
            quiet(page)
            page.locator("[data-testid=share_joints]", has_text="being solved").wait_for(
                state="detached", timeout=90_000
            )
            act(page)
            page.screenshot(path=TARGET / f"{name}.png")
            print(f"docs/screenshots/{name}.png")
            window.close()
        narrow(browser, server)
        for name, places in SHEETS.items():
            sheets(browser, server, name, places)
        browser.close()
        server.stop()
    for old in TARGET.glob("*.png"):
        if old.stem not in (*VIEWS, *SHEETS, "narrow"):
            old.unlink()


if __name__ == "__main__":
    main()
