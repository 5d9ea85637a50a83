"""A page that goes from screen to screen as a press on a link goes there: loading it anew costs four times as much."""

from serving import until

# The page has drawn what it knows, and has asked for what it lacks.
DRAWN = "() => new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn, 20)))"


def go(page, path):
    """To another screen without a reload."""
    page.evaluate("path => { history.pushState({}, '', path); dispatchEvent(new PopStateEvent('popstate')); }", path)


class Visitor:
    """Goes to a screen and waits until all that it asked for has come, and is drawn."""

    def __init__(self, page):
        self.page = page
        self._asked = set()
        page.on("request", lambda request: self._asked.add(request))
        for end in ("requestfinished", "requestfailed"):
            page.on(end, lambda request: self._asked.discard(request))

    def go(self, path):
        go(self.page, path)
        until(lambda: self._quiet() and self._quiet())

    def _quiet(self):
        self.page.evaluate(DRAWN)
        return not self._asked
