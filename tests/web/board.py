"""What a designer does on the screen, in words, for the tests of the interface."""

from __future__ import annotations

import math
import re
from typing import Any

from playwright.sync_api import Locator, Page, expect

from tools.window import ROOT

WALL = "main-laboratory/D2"
AXE = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"


_GO = "(to) => { history.pushState(null, '', to); window.dispatchEvent(new PopStateEvent('popstate')); }"


def visit(page: Page, address: str, place: str, *, anew: bool = False) -> None:
    """To a place of the application; it is read only where the window does not show it yet, or where that is asked."""
    if anew or not page.url.startswith(address):
        page.goto(f"{address}/{place}")
    else:  # as a step back in the window goes
        page.evaluate(_GO, f"/{place}")


class Board:
    """One window on a project."""

    def __init__(self, page: Page, address: str, project: str) -> None:
        self.page, self.address, self.project = page, address, project

    def open(self, place: str = WALL, *, anew: bool = False) -> Board:
        """To a place of the project, and wait until it is shown."""
        visit(self.page, self.address, f"{self.project}/{place}", anew=anew)
        self.page.wait_for_selector(".frame")
        if place.endswith(("D2", "B2")):
            self.settled()
        return self

    def go(self, place: str) -> Board:
        """To another place of the project, whatever is shown of it yet."""
        visit(self.page, self.address, f"{self.project}/{place}")
        return self

    def settled(self) -> None:
        """Every figure on the bench belongs to the newest input, and every save has landed."""
        self.page.wait_for_function(
            """() => document.querySelector('[data-testid=three-r]')
                && !document.querySelector('[data-stale=true]')
                && !document.querySelector('.ledger')?.textContent?.includes('Saving')
                && !document.querySelector('.ledger')?.textContent?.includes('Preview')""",
            timeout=90_000,  # as long as `quiet` waits: a loaded machine solves slowly
            polling=50,  # at every frame, as is usual, would draw sixty of them a second for nothing
        )

    def text(self, testid: str) -> str:
        return self.page.get_by_test_id(testid).inner_text().strip()

    def R(self, kind: str = "combined") -> float:
        return number(self.text(f"R-{kind}"))

    def fact(self, key: str) -> float:
        return number(self.page.get_by_test_id(f"fact-{key}").locator("b").inner_text())

    def ledger(self, key: str) -> float:
        return number(self.page.get_by_test_id(key).locator(".value b").inner_text())

    def dimension(self, name: str) -> Locator:
        """The dimension text of a layer on the drawing."""
        return self.page.get_by_role("button", name=re.compile(f"^{re.escape(name)}: .*type a thickness"))

    def type_dimension(self, name: str, typed: str, material: str | None = None) -> None:
        self.dimension(name).first.click()
        field = self.page.get_by_role("textbox", name=f"Thickness of {material or name}")
        field.fill(typed)
        field.press("Enter")

    @property
    def stop(self) -> Locator:
        """The drawing's one tab stop."""
        return self.page.get_by_role("button", name=re.compile("^Section: layer"))

    @property
    def bar(self) -> Locator:
        return self.page.get_by_test_id("layer-bar")

    def choose(self, layer: int) -> None:
        """Choose a layer by its number from inside."""
        self.stop.focus()
        for _ in range(20):
            current = int(re.findall(r"layer (\d+) of", self.stop.get_attribute("aria-label") or "")[0])
            if current == layer:
                return
            self.page.keyboard.press("ArrowLeft" if current < layer else "ArrowRight")
        raise AssertionError(f"no layer {layer}")

    def layers(self) -> list[str]:
        """Names of the layers, outside to inside, from the drawing's table twin."""
        return [row.inner_text() for row in self.page.locator(".section table tbody th").all()]

    def last_edit(self) -> Locator:
        return self.page.locator(".ledger .last p")

    def done(self, edit: str) -> None:
        """The newest edit is the one named, and everything follows it."""
        expect(self.last_edit()).to_have_text(edit)
        self.settled()


def number(text: str) -> float:
    """A printed number: thin spaces and a true minus."""
    return float(re.sub(r"[\u2009\u202f ]", "", text).replace("−", "-"))


def leading(text: str) -> float:
    """The first printed number of a text with units."""
    found = re.search(r"[−-]?[\d\u2009\u202f]+(\.\d+)?(e[+−-]?\d+)?", text)
    assert found, text
    return number(found[0].replace("−", "-"))


def evaluated(steps: list[dict[str, Any]]) -> float:
    """The working's own formulas, evaluated again from its inputs."""
    known: dict[str, float] = {}
    for step in steps:
        names = {**vars(math), **known}
        known[step["symbol"]] = eval(step["formula"], {"__builtins__": {}}, names) if step["formula"] else step["value"]
    return known[steps[-1]["symbol"]]


#: Rows of a long table are alike: its first twenty are looked at.
_ALIKE = "tbody tr:nth-child(n + 21)"


def axe(page: Page) -> list[tuple[str, list[str]]]:
    """What axe finds by WCAG 2.2 AA, and besides: names that lack what is read, empty headers, what lies nowhere."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    more = ("label-content-name-mismatch", "empty-table-header", "empty-heading", "region")
    options = {
        "runOnly": ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"],
        "rules": {rule: {"enabled": True} for rule in more},
        "resultTypes": ["violations"],
    }
    ran = page.evaluate("([where, how]) => axe.run(where, how)", [{"exclude": [_ALIKE]}, options])
    found = ran["violations"]
    told = {one["id"] for kind in ("violations", "passes", "incomplete", "inapplicable") for one in ran[kind]}
    assert told >= {*more, "color-contrast"}
    return [(one["id"], [node["html"][:120] for node in one["nodes"]]) for one in found]
