"""Lists to choose from, as a finger uses them."""

from playwright.sync_api import Locator, Page

MOST_SCROLLS = 30


def choose(within: Page | Locator, name: str, word: str) -> None:
    """Open the list of that name, scroll it from its top, and take the entry that says `word`."""
    page = within if isinstance(within, Page) else within.page
    _choose(within, name, page.get_by_role("option", name=word, exact=True))


def choose_containing(page: Page, name: str, words: str) -> None:
    """The same with an entry of which only some words are known."""
    _choose(page, name, page.get_by_role("option").filter(has_text=words))


def _choose(within: Page | Locator, name: str, wanted: Locator) -> None:
    page = wanted.page
    within.get_by_label(name, exact=True).first.click(force=True)
    entries = page.get_by_role("listbox").last
    entries.wait_for()
    page.wait_for_timeout(300)  # it opens where the chosen one is
    entries.evaluate("list => (list.scrollTop = 0)")
    for _ in range(MOST_SCROLLS):  # entries out of sight are not drawn
        page.wait_for_timeout(60)
        if wanted.count() > 0:
            break
        entries.evaluate("list => (list.scrollTop += 180)")
    wanted.first.click()
