"""Every place in windows from small to very large: nothing lies over anything in the bar, nothing leaves its
compartment, no page is wider than its window, and no sentence shows the signs that mark its names."""

from __future__ import annotations

import pytest

from tests.web.conftest import Browser

SIZES = [(640, 800), (1024, 700), (1280, 800), (1920, 1080), (2560, 1440)]
PLACES = {
    "spec": ".cm-content",
    "intake": ".drop",
    "results": "[data-cluster]",
    "review": "tr.chosen",
    "feedback": ".letter",
}
FAULTS = """
const faults = [];
const seen = (e) => { const r = e.getBoundingClientRect(); return r.width > 2 && r.height > 2 ? r : null; };
const told = (e) => `${e.tagName} ${e.className} "${(e.textContent || e.value || '').trim().slice(0, 30)}"`;
const page = document.scrollingElement;
if (page.scrollWidth > innerWidth + 1) faults.push(`the page is ${page.scrollWidth} wide in a window of ${innerWidth}`);
if (innerWidth > 860 && document.querySelector('.shell') && page.scrollHeight > innerHeight + 1)
  faults.push(`the page is ${page.scrollHeight} high in a window of ${innerHeight}`);
const copy = document.body.innerText;
const quote = copy.indexOf('`');
if (quote >= 0 && !document.querySelector('.cm-content')?.textContent.includes('`'))
  faults.push(`a raw sign in "${copy.slice(Math.max(0, quote - 30), quote + 30)}"`);
const bar = [...document.querySelectorAll('header.bar a, header.bar button, header.bar .ant-select')]
  .map((e) => [e, seen(e)])
  .filter(([e, r]) => r && r.left >= 0);
bar.forEach(([e, r], i) => {
  if (r.right > innerWidth + 1 && !e.closest('nav')) faults.push(`${told(e)} leaves the bar`);
  for (const [f, q] of bar.slice(0, i))
    if (
      !e.contains(f) && !f.contains(e) &&
      r.left < q.right - 1 && q.left < r.right - 1 && r.top < q.bottom - 1 && q.top < r.bottom - 1
    )
      faults.push(`${told(e)} lies over ${told(f)}`);
});
for (const box of document.querySelectorAll('.compartment')) {
  const b = box.getBoundingClientRect();
  for (const e of box.querySelectorAll('button, a, input, textarea, h1, h2, p, .tag, .caption')) {
    const r = seen(e);
    if (!r || (r.left >= b.left - 1 && r.right <= b.right + 1)) continue;
    let scrolls = false;
    for (let up = e.parentElement; up && up !== box.parentElement; up = up.parentElement)
      scrolls ||= ['auto', 'scroll', 'hidden'].includes(getComputedStyle(up).overflowX);
    if (!scrolls && !e.closest('.unseen')) faults.push(`${told(e)} leaves ${told(box)}`);
  }
}
return [...new Set(faults)];
"""


@pytest.fixture(scope="module")
def evening(browser: Browser) -> Browser:
    browser.sign_in()
    return browser


def resize(browser: Browser, size: tuple[int, int]) -> None:
    metrics = {"width": size[0], "height": size[1], "deviceScaleFactor": 1, "mobile": False}
    browser.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


@pytest.mark.parametrize("lab", ["Lab 1", "Lab 2", "Lab 3", "Lab 4"])
@pytest.mark.parametrize("size", SIZES, ids=lambda size: f"{size[0]}x{size[1]}")
def test_places_at_any_size(evening: Browser, size: tuple[int, int], lab: str) -> None:
    resize(evening, size)
    evening.open("/")
    evening.see(".lab")
    found = [f"home: {fault}" for fault in evening.driver.execute_script(FAULTS)]
    evening.click(".lab", lab)
    evening.see("[data-cluster]")
    for place, ready in PLACES.items():
        evening.driver.execute_script(f"document.querySelector('[data-place={place}]').click()")
        evening.see(ready)
        found += [f"{place}: {fault}" for fault in evening.driver.execute_script(FAULTS)]
    assert found == []
