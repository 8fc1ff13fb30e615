"""axe-core on a page of the real browser: what breaks WCAG 2.2 AA there, each fault in one line."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from selenium.common.exceptions import JavascriptException

from tests.web.conftest import Browser

_SCRIPT = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"
_TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
_RUN = """
const done = arguments[arguments.length - 1];
const still = Promise.all(document.getAnimations().map((a) => a.finished.catch(() => undefined)));
const isLayer = (target) => document.querySelector(target)?.closest('body > div:not(#app)');
still
  .then(() => axe.run(document, { runOnly: arguments[0], resultTypes: ['violations'] }))
  .then(
    (found) =>
      done(
        found.violations.flatMap((v) =>
          v.nodes
            .filter((n) => v.id !== 'region' || !isLayer(n.target[0]))
            .map((n) => `${v.id} (${v.impact}): ${n.target} ${n.html.slice(0, 140)}`),
        ),
      ),
    (error) => done(String(error)),
  );
"""
"""Waits for what moves, since a window that is fading in has other colours. Layers at the end of the body (lists,
windows) are none of the page's regions."""


def faults(browser: Browser) -> list[str]:
    """What axe finds on the page as it is, serious and lesser alike; empty where there is nothing."""
    try:
        browser.driver.execute_script("axe.version")
    except JavascriptException:
        browser.driver.execute_script(_SCRIPT.read_text(encoding="utf-8"))
    found: Any = browser.driver.execute_async_script(_RUN, _TAGS)
    assert isinstance(found, list), found
    return found
