"""The real interface: one server for all of them, headless Chromium, and a fresh copy of the campus per test."""

from __future__ import annotations

import inspect
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Error, Page, expect, sync_playwright
from web.copies import brought_in, campus_file, copied, file_of
from web.sharing import shared_server

from tools.window import SMALLEST, Server, context, launch, let_in

expect.set_options(timeout=30_000)

# Playwright asks for the stack with everything it does. Its outermost frame in a process of xdist has no file, and
# inspect would go through all modules for it, again and again: a tenth of the time that these tests take.
inspect.modulesbyfile["<string>"] = "__main__"  # type: ignore[attr-defined]  # it has no underscore


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    with shared_server(tmp_path_factory) as server:
        yield server


@pytest.fixture
def own_server(tmp_path: Path, warm: BrowserContext) -> Iterator[Server]:
    """A server that may be killed."""
    server = Server(tmp_path)
    let_in(warm, server)
    yield server
    server.stop()


@pytest.fixture(name="campus")
def unsolved_campus(server: Server) -> str:
    """The id of a copy of the demo campus that no other test touches; nothing in it is to be solved."""
    return copied(server)


@pytest.fixture
def shaped(server: Server) -> str:
    """A copy with its shapes; joints and fixings are not to be solved."""
    file = campus_file(server)
    for building in file["project"]["buildings"]:
        building["joints"] = []
    for assembly in file["project"]["assemblies"]:
        assembly["fixings"] = []
    return brought_in(server, file)


@pytest.fixture
def fastened(server: Server) -> str:
    """A copy with its fixings; no joint is to be solved with each of their changes."""
    return brought_in(server, file_of(server, fixings=True))


@pytest.fixture
def jointed(server: Server) -> str:
    """The same with its joints and fixings."""
    return brought_in(server, campus_file(server))


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = launch(playwright)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def warm(browser: Browser, server: Server) -> Iterator[BrowserContext]:
    """Windows that share a cache, so that only the first one reads the application's scripts anew."""
    made = context(browser, server)
    made.new_page()
    yield made
    made.close()


@pytest.fixture(name="context")
def _context(warm: BrowserContext, server: Server) -> Iterator[BrowserContext]:
    """The same, left by each test as it was found: one window, nothing kept in the browser, nothing intercepted."""
    yield warm
    warm.unroute_all(behavior="ignoreErrors")
    first, *opened = warm.pages
    kept = {"origin": server.address, "storageTypes": "local_storage"}
    warm.new_cdp_session(first).send("Storage.clearDataForOrigin", kept)
    for page in opened:
        page.close()


#: Nothing is kept in the browser, and nothing lies over the sheet.
_AS_FOUND = (
    "() => location.protocol === 'http:' && !localStorage.length && !document.querySelector('dialog, [role=dialog]')"
)


@pytest.fixture
def page(context: BrowserContext) -> Iterator[Page]:
    """The first window; one that throws, or logs an error of its own, fails its test.

    Every test has the same one, at what the test before it looked at, as a designer goes from project to project: to
    read the application for each cost as much as what most of them do. One that a test leaves otherwise is emptied.
    """
    page = context.pages[0]
    faults: list[str] = []

    def thrown(error: Error) -> None:
        faults.append(str(error))

    def logged(message: ConsoleMessage) -> None:
        if message.type == "error" and "Failed to load resource" not in message.text:
            faults.append(message.text)

    page.on("pageerror", thrown)
    page.on("console", logged)
    yield page
    page.remove_listener("pageerror", thrown)
    page.remove_listener("console", logged)
    page.unroute_all(behavior="ignoreErrors")
    if faults or not page.evaluate(_AS_FOUND):
        page.goto("about:blank")
    page.set_viewport_size(SMALLEST)
    page.mouse.move(0, 0)
    assert faults == []
