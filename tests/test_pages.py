"""Pages in a real browser: they render, filter, switch, work by keys and without scripts, and ask nobody for anything."""

from __future__ import annotations

import html
import re
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING

import pytest

from helpers import csv_file, nomarium

if TYPE_CHECKING:
    from selenium.webdriver import Chrome

LIST = """
    Date,Start,End,Event,Where,Teacher,Category,Notes,Link
    2020-11-02,9:00,10:30,Rigging,Sail loft,R. Finch,Rope,Bring a fid,https://saltmarsh.example/rig
    2020-11-02,10:00,11:00,Lofting <script>document.title='x'</script>,Mould loft,A. Plover,Hull,,javascript:alert(1)
    2020-11-04,,,Staff day,,,Office,,
    2020-11-05,,,Harbour fair & feast,,,Office,,
    2020-12-01,9:00,9:50,Steam bending,Steam shed,R. Finch,Hull,,
"""


@pytest.fixture(scope="module")
def browser() -> Iterator[Chrome]:
    from selenium import webdriver

    options = webdriver.ChromeOptions()
    for argument in (
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--window-size=1280,800",
        "--disable-dev-shm-usage",
    ):
        options.add_argument(argument)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL", "performance": "ALL"})
    options.binary_location = shutil.which("chromium") or ""
    driver = webdriver.Chrome(options=options, service=webdriver.ChromeService(shutil.which("chromedriver")))
    yield driver
    driver.quit()


@pytest.fixture
def page(tmp_path: Path) -> Path:
    out = tmp_path / "list.html"
    outcome = nomarium(
        "view", csv_file(tmp_path, LIST), "-o", out, "--as", "month", "--timezone", "America/Halifax"
    )
    assert outcome.status == 0, outcome.text
    return out


def seen(browser: Chrome, css: str) -> list[str]:
    return browser.execute_script(
        "return [...document.querySelectorAll(arguments[0])].filter(e => e.checkVisibility()).map(e => e.textContent.trim())", css
    )  # fmt: skip


def set_to(browser: Chrome, css: str, value: str) -> None:
    browser.execute_script(
        "const e = document.querySelector(arguments[0]); e.value = arguments[1];"
        "e.dispatchEvent(new Event(e.tagName === 'SELECT' ? 'change' : 'input', {bubbles: true}))", css, value,
    )  # fmt: skip


def choose(browser: Chrome, view: str) -> None:
    browser.execute_script("document.querySelector(`input[value=${arguments[0]}]`).click()", view)


def test_a_page_draws_filters_and_switches(browser: Chrome, page: Path) -> None:
    browser.get(page.as_uri())
    assert browser.title == "events", "a script in a title is text"
    assert seen(browser, "#when") == ["November 2020"]
    assert seen(browser, "#drawn td a") == [
        "9:00Rigging", "10:00Lofting <script>document.title='x'</script>", "Staff day", "Harbour fair & feast",
    ]  # fmt: skip
    assert seen(browser, "#list li") == []
    set_to(browser, "select[data-field=t]", "t1")
    assert [text.partition("Steam")[0] for text in seen(browser, "#drawn td a")] == ["9:00Rigging"]
    assert seen(browser, "#told") == ["2 of 5 events"]
    choose(browser, "list")
    assert [line.split("\n")[-1].strip()[:13] for line in seen(browser, "#list li b")] == [
        "Rigging",
        "Steam bending",
    ]
    set_to(browser, "select[data-field=t]", "")
    set_to(browser, "#find", "mould")
    assert len(seen(browser, "#list li")) == 1
    set_to(browser, "#find", "")
    choose(browser, "week")
    assert seen(browser, "#drawn .c a b")[:2] == ["Rigging", "Lofting <script>document.title='x'</script>"]
    boxes = browser.execute_script(
        "return [...document.querySelectorAll('#drawn .c a')].map(e => { const r = e.getBoundingClientRect(); return [r.left, r.right, r.top, r.bottom] })"
    )
    assert boxes[0][1] <= boxes[1][0] + 1, "overlaps stand side by side"


def test_a_page_works_by_keys_alone(browser: Chrome, page: Path) -> None:
    from selenium.webdriver import ActionChains, Keys

    browser.get(page.as_uri())
    browser.execute_script("document.getElementById('drawn').focus()")
    ActionChains(browser).send_keys(Keys.ARROW_RIGHT).perform()
    assert seen(browser, "#when") == ["December 2020"]
    ActionChains(browser).send_keys(Keys.ARROW_RIGHT).perform()
    assert seen(browser, "#when") == ["December 2020"], "there is nothing after the last event"
    ActionChains(browser).send_keys(Keys.ARROW_LEFT).send_keys(Keys.TAB).send_keys(Keys.TAB).send_keys(
        Keys.ENTER
    ).perform()
    focused = browser.execute_script("return document.activeElement.textContent")
    assert "Rigging" in focused or seen(browser, "#list li"), "a link leads into the list"
    reached = set()
    browser.get(page.as_uri())
    for _ in range(14):
        ActionChains(browser).send_keys(Keys.TAB).perform()
        reached.add(
            browser.execute_script(
                "const e = document.activeElement; return e.id || e.name || e.dataset.turn || e.tagName"
            )
        )
    assert {"view", "find", "drawn"} <= reached


def test_nothing_is_fetched_and_nothing_complained_of(browser: Chrome, page: Path) -> None:
    browser.get_log("browser")
    browser.get_log("performance")
    browser.get(page.as_uri())
    for view in ("week", "list", "month"):
        choose(browser, view)
    assert [one["message"] for one in browser.get_log("browser")] == []
    asked = re.findall(
        r'"url":"((?:https?|wss?|ftp):[^"]*)"',
        "".join(one["message"] for one in browser.get_log("performance")),
    )
    assert asked == []
    assert browser.execute_script("return document.querySelectorAll('[href^=javascript]').length") == 0
    assert seen_links(page) == ["https://saltmarsh.example/rig"]


def seen_links(page: Path) -> list[str]:
    return re.findall(r'<a href="([^"#]*)"', page.read_text("utf-8"))


def test_a_phone_a_dark_screen_and_no_scripts(browser: Chrome, page: Path) -> None:
    browser.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride",
        {"width": 380, "height": 800, "deviceScaleFactor": 1, "mobile": True},
    )
    browser.execute_cdp_cmd(
        "Emulation.setEmulatedMedia", {"features": [{"name": "prefers-color-scheme", "value": "dark"}]}
    )
    try:
        for view in ("list", "month", "week"):
            browser.get(f"{page.as_uri()}#{view}")
            width = browser.execute_script("return document.documentElement.scrollWidth")
            assert width <= 380, (view, width)
        assert contrast(browser, "body") >= 7
        assert contrast(browser, ".span") >= 4.5
        for _ in range(3):  # a busy browser may load the page before it has heard that scripts are off
            browser.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
            browser.get(page.as_uri())
            browser.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})
            if not seen(browser, "form *"):
                break
        assert len(seen(browser, "#list li")) == 5
        assert seen(browser, "form *") == []
    finally:
        browser.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})
        browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})


def contrast(browser: Chrome, css: str) -> float:
    """The contrast of a text with the page, as WCAG 2.2 (1.4.3) has it."""
    colors = browser.execute_script(
        "return [getComputedStyle(document.querySelector(arguments[0])).color, getComputedStyle(document.body).backgroundColor]",
        css,
    )
    lights = sorted(_light([int(n) for n in re.findall(r"\d+", color)[:3]]) for color in colors)
    return (lights[1] + 0.05) / (lights[0] + 0.05)


def _light(parts: list[int]) -> float:
    shares = [part / 255 for part in parts]
    red, green, blue = (
        (share / 12.92 if share <= 0.03928 else ((share + 0.055) / 1.055) ** 2.4) for share in shares
    )
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def test_headings_labels_and_languages_are_there(browser: Chrome, page: Path, tmp_path: Path) -> None:
    browser.get(page.as_uri())
    assert contrast(browser, "body") >= 7 and contrast(browser, ".field") >= 4.5
    assert browser.execute_script("return document.querySelectorAll('h1').length") == 1
    unnamed = browser.execute_script(
        "return [...document.querySelectorAll('input, select, button')].filter(e => !(e.labels && e.labels.length) && !e.textContent.trim() && !e.ariaLabel).length"
    )
    assert unnamed == 0
    text = page.read_text("utf-8")
    assert '<html lang="en-CA">' in text
    assert '<time datetime="2020-11-02T09:00-04:00">9:00</time>' in text
    out = tmp_path / "f.html"
    assert nomarium("build", csv_file(tmp_path, LIST), "-o", out, "--language", "fr").status == 0
    french = out.read_text("utf-8")
    assert '<html lang="fr">' in french and "lun. 2 novembre 2020" in french and "toute la journée" in french


def test_a_year_of_events_stays_small_and_the_same(tmp_path: Path) -> None:
    from nomarium.cli.demo import write_samples

    write_samples(tmp_path)
    first, again = tmp_path / "a.html", tmp_path / "b.html"
    assert nomarium("build", tmp_path / "year", "-o", first).status == 0
    assert nomarium("build", tmp_path / "year", "-o", again).status == 0
    assert first.read_bytes() == again.read_bytes()
    text = first.read_text("utf-8")
    assert len(text.encode()) < 1_000_000
    count = text.count("<li id=")
    assert count > 1_000
    assert f"{count:,} events" in text and "179 days with a label" in text


def test_a_folder_has_a_page_for_each_calendar_and_one_that_leads_to_them(tmp_path: Path) -> None:
    source, site = csv_file(tmp_path, LIST.replace("A. Plover", "Index")), tmp_path / "site"
    base = ["build", source, "-o", site, "--split-by", "teacher", "--with-page"]
    outcome = nomarium(*base)
    assert outcome.status == 0, outcome.text
    assert sorted(path.name for path in site.iterdir()) == [
        "index-calendar.html", "index.html", "index.ics", "no-teacher.html", "no-teacher.ics", "r-finch.html", "r-finch.ics",
    ]  # fmt: skip
    index = (site / "index.html").read_text("utf-8")
    assert re.findall(r'href="([^"]*)"', index)[:2] == ["index-calendar.html", "index.ics"]
    assert "2 events" in index
    assert "webcal" not in index
    assert nomarium(*base, "--base-url", "https://saltmarsh.example/cal").status == 0
    index = html.unescape((site / "index.html").read_text("utf-8"))
    assert "webcal://saltmarsh.example/cal/r-finch.ics" in index
    assert "https://saltmarsh.example/cal/r-finch.ics" in index
    assert "Steam bending" in (site / "r-finch.html").read_text("utf-8")
    assert "Lofting" not in (site / "r-finch.html").read_text("utf-8")


WRONG = {
    "a page without a split": (["-o", "x.ics", "--with-page"], "goes with a folder"),
    "an address without a page": (
        ["-o", "s/", "--split-by", "teacher", "--base-url", "https://x.example/"],
        "Give --with-page",
    ),
    "no address": (
        ["-o", "s/", "--split-by", "teacher", "--with-page", "--base-url", "x.example"],
        "is no address",
    ),
    "rules": (["-o", "x.html", "--repeats", "rule"], "a page holds dated events"),
}


@pytest.mark.parametrize("name", WRONG)
def test_options_of_pages_that_make_no_sense_are_refused(
    name: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    options, message = WRONG[name]
    monkeypatch.chdir(tmp_path)
    outcome = nomarium("build", csv_file(tmp_path, LIST), *options)
    assert outcome.status == 2
    assert message in outcome.err
