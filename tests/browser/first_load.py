"""How much a first visit loads, and how soon a batch can be read. Part of ``./spissus bench``.

What is measured is a page that nobody has open: nothing is in the browser's caches, and no service worker is there
yet.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from playwright.sync_api import Browser, CDPSession, Page, Response
from running import Site

from .site import another_of, chromium, enter_demo

#: The network of a phone in a cellar: 1.6 Mbit/s, 150 ms there and back.
SLOW_BYTES_S = 1.6e6 / 8
SLOW_MS = 150
#: A tablet of some years: a quarter of this machine's speed.
SLOW_PROCESSOR = 4

#: Notes, from the first moment on, when something was painted and what has moved.
WATCH = """
window.shifted = 0
window.read = null
new PerformanceObserver((list) => { for (const one of list.getEntries()) window.shifted += one.value })
  .observe({ type: 'layout-shift', buffered: true })
new MutationObserver(() => {
  if (window.read === null && document.querySelector('[data-said]')?.textContent) {
    requestAnimationFrame(() => { window.read ??= performance.now() })
  }
}).observe(document, { subtree: true, childList: true, characterData: true })
"""

MEASURED = """
() => [
  performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
  window.read,
  window.shifted,
  performance.getEntriesByType('resource')
    .filter((one) => one.name.endsWith('.js') && one.startTime < window.read)
    .reduce((sum, one) => sum + one.encodedBodySize, 0),
]
"""


@dataclass
class FirstLoad:
    """A first visit: kB of script as they travelled, ms until something and until the sentence was painted, and the
    layout shift of the whole of it; ``asked`` are the calls of the API in order."""

    script_kb: float
    painted_ms: float
    read_ms: float
    shifted: float
    asked: list[str]


@contextmanager
def _visitor(browser: Browser, site: Site) -> Iterator[tuple[Page, CDPSession, str]]:
    """Somebody who is signed in and has never loaded the page; and the address of a batch of theirs on the heat."""
    first = browser.new_context(viewport={"width": 1280, "height": 800})
    page = first.new_page()
    enter_demo(page, site)
    path = page.get_by_role("main").get_by_role("link").first.get_attribute("href")
    assert path is not None
    newcomer = another_of(page, browser, viewport={"width": 1280, "height": 800})
    first.close()
    newcomer.add_init_script(WATCH)
    yield newcomer, newcomer.context.new_cdp_session(newcomer), path
    newcomer.context.close()


def first_load(browser: Browser, site: Site, *, slow: bool) -> FirstLoad:
    """The first visit to a batch, as fast as it goes or by a slow device on a slow network."""
    with _visitor(browser, site) as (page, devtools, path):
        devtools.send("Network.enable")
        if slow:
            devtools.send("Emulation.setCPUThrottlingRate", {"rate": SLOW_PROCESSOR})
            devtools.send(
                "Network.emulateNetworkConditions",
                dict(offline=False, latency=SLOW_MS, downloadThroughput=SLOW_BYTES_S, uploadThroughput=SLOW_BYTES_S),  # noqa: C408
            )
        asked: list[str] = []

        def came(response: Response) -> None:
            if "/api/v1/" in response.url:
                asked.append(response.url.split("/api/v1/")[1])

        page.on("response", came)
        page.goto(site.url + path)
        page.locator("[data-said]").wait_for()
        # What is read is the sentence; all that comes with it before the page is still counts as loaded.
        page.wait_for_timeout(2500 if slow else 1000)
        painted, read, shifted, script = page.evaluate(MEASURED)
        return FirstLoad(script / 1000, painted, read, shifted, asked)


def measure(site: Site) -> None:
    """Print it, for a batch on the heat."""
    with chromium() as browser:
        for slow in (False, True):
            runs = [first_load(browser, site, slow=slow) for _ in range(3)]
            one = sorted(runs, key=lambda run: run.read_ms)[1]
            print(
                f"first load{', slow' if slow else '':6}  {one.script_kb:5.0f} kB of script, something after "
                f"{one.painted_ms:.0f} ms, the sentence after {one.read_ms:.0f} ms, shifted {one.shifted:.4f}, "
                f"{len(one.asked)} calls"
            )
