"""Lists to choose from, as a finger uses them."""

from playwright.sync_api import Locator, Page


def choose(within: Page | Locator, name: str, word: str) -> None:
    """Open the list of that name and take the entry that says `word`."""
    page = within if isinstance(within, Page) else within.page
    within.get_by_label(name, exact=True).first.click(force=True)
    page.get_by_role("option", name=word, exact=True).click()
