"""What can be measured of any view: accessible by axe-core, nothing cut off, no sideways scroll."""

from __future__ import annotations

from typing import Final

from e2e.support.browser import SEEN, Browser
from e2e.support.installation import ROOT

__all__ = ["COLOURS", "EVERYTHING", "cut_off", "faults", "show_theme", "sideways"]

AXE: Final = ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js"
RUN: Final = """
const done = arguments[arguments.length - 1]
axe.run(document, {runOnly: arguments[0]}).then(r => done(r.violations.map(v =>
  v.id + ': ' + v.nodes.map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? '')).slice(0, 3).join(' | '))))
"""
EVERYTHING: Final = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
COLOURS: Final = {"type": "rule", "values": ["color-contrast"]}  # all that a theme changes
CUT_OFF: Final = (
    SEEN
    + """
const found = [], scrolls = (s) => /auto|scroll/.test(s), hides = (s) => /hidden|clip/.test(s)
const about = (e) => (e.innerText ?? e.textContent ?? e.value ?? '').trim().slice(0, 40) || e.tagName
const ownWords = (e) => {
  const range = document.createRange(), all = {left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity}
  for (const n of e.childNodes) {
    if (n.nodeType !== 3 || !n.textContent.trim()) continue
    range.selectNodeContents(n)
    const {left, top, right, bottom} = range.getBoundingClientRect()
    Object.assign(all, {left: Math.min(all.left, left), top: Math.min(all.top, top), right: Math.max(all.right, right), bottom: Math.max(all.bottom, bottom)})
  }
  return {...all, width: all.right - all.left, height: all.bottom - all.top}
}
for (const e of document.querySelectorAll('#view *, nav *, [role=dialog] *')) {
  const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim())
  if (!(own || e.matches('button, input, select, textarea')) || !seen(e)) continue
  if (e.closest('option')) continue
  if (e.matches('input, textarea')) {
    if (e.value && e.scrollWidth > e.clientWidth + 1 && !e.matches('[type=date], [readonly]')) found.push('in its field: ' + e.value)
    continue
  }
  const r = own && !(e instanceof SVGElement) ? ownWords(e) : e.getBoundingClientRect()
  if (r.width < 2 || r.height < 2) continue
  let [x, y] = [true, true]
  for (let a = e; a && a !== document.body && (x || y); a = a.parentElement) {
    const s = getComputedStyle(a), b = a.getBoundingClientRect()
    if (s.clipPath !== 'none' || (b.width <= 1 && b.height <= 1)) { x = y = false; break }  // for readers only
    if (x && hides(s.overflowX) && (r.right > b.right + 1.5 || r.left < b.left - 1.5)) { found.push('beside: ' + about(e)); x = false }
    if (y && hides(s.overflowY) && (r.bottom > b.bottom + 1.5 || r.top < b.top - 1.5)) { found.push('below: ' + about(e)); y = false }
    if (scrolls(s.overflowX)) x = false
    if (scrolls(s.overflowY)) y = false
  }
  if (x && (r.left < -1 || r.right > innerWidth + 1)) found.push('off the page: ' + about(e))
}
return [...new Set(found)].slice(0, 12)
"""
)
"""Words and controls that are in sight by their style, and of which a part can neither be seen nor scrolled to."""


def show_theme(browser: Browser, theme: str) -> None:
    browser.script("document.documentElement.dataset.theme = arguments[0]", theme)


def faults(browser: Browser, of: object = EVERYTHING) -> list[str]:
    """What axe-core finds."""
    browser.script(AXE.read_text(encoding="utf-8"))
    return list(browser.driver.execute_async_script(RUN, of))


def cut_off(browser: Browser) -> list[str]:
    """Words and controls nobody can see whole."""
    return list(browser.script(CUT_OFF))


def sideways(browser: Browser) -> list[str]:
    """Whether the page is wider than its window."""
    wide, window = browser.script("return [document.documentElement.scrollWidth, innerWidth]")
    return [f"{wide} px wide in {window}"] if wide > window else []
