"""Every word that a page says is in the catalogue: in a made-up language, in which each of those wears accents, none goes bare."""

import json
import re

import pytest
from test_screens import SCREENS
from visiting import Visitor

# What the page shows: its text, and what it tells those who do not see it.
SHOWN = """() => {
  const found = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const { parentElement: of, textContent: text } = walk.currentNode;
    if (of && !['SCRIPT', 'STYLE'].includes(of.tagName) && of.getClientRects().length) found.push(text);
  }
  for (const one of document.querySelectorAll('*'))
    for (const name of ['aria-label', 'aria-valuetext', 'placeholder', 'title', 'alt'])
      if (one.getAttribute(name)) found.push(one.getAttribute(name));
  return found;
}"""
# What cooks have written, as it is kept: nobody translates that.
THEIRS = """async () => {
  const read = async path => (await fetch(path)).json();
  const found = new Set();
  const walk = value => {
    if (typeof value === 'string') found.add(value);
    else if (value && typeof value === 'object') Object.values(value).forEach(walk);
  };
  const { kitchen } = await read('/api/kitchen');
  walk([kitchen.name, kitchen.tins, kitchen.steamers, kitchen.pots, kitchen.pans, kitchen.scoops, kitchen.ingredients, kitchen.own_days]);
  for (const { id } of (await read('/api/sheets?size=50')).sheets) {
    const { sheet } = await read(`/api/sheets/${id}`);
    walk([sheet.title, sheet.parts.map(part => [part.name, part.kept_for, part.made_on, part.pan]), sheet.method.map(entry => [entry.by, entry.title, entry.words, entry.text]), sheet.vessel, sheet.parts.flatMap(part => part.lines.map(line => [line.reserve_for, line.splits]))]);
  }
  for (const { id } of await read('/api/occasions')) walk((await read(`/api/occasions/${id}`)).occasion);
  for (const way of await read('/api/ways')) {
    walk([way.kin, (await read('/api/larder')).map(one => one.aliases)]);
    for (const batch of (await read(`/api/log?way=${way.id}`)).batches) walk([batch.title, batch.note]);
  }
  return [...found];
}"""
# Signs and names that are the same everywhere: of units, of days (they come from the browser), of cooks by their number.
EVERYWHERE = re.compile(
    r"\b(Kemble|min|mm|cm|ml|kg|oz|lb|cook \d|Mon|Tue|Wed|Thu|Fri|Sat|Sun|Jan|Feb|Mar|Apr|May|June?|July?|Aug|"
    r"Sept?|Oct|Nov|Dec|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Chrome|Linux|HeadlessChrome|owner)\b"
)
BARE = re.compile(r"[A-Za-zà-ÿ]*[aceinouy][A-Za-zà-ÿ]*")
# Sentences that the demo kitchen kept while it spoke English: of clocks, and of batches made then.
KEPT = re.compile(
    r"a clock that was forgotten$|^(it sours|it turns hard|smooth, a little wet|smooth, matt|Put topping|a browser)$"
)
TELLING = 4  # letters of a word from which on it is one: "am", "pm", "of" stand in names too


def bare(text, theirs):
    """The words without accents in it, but for what cooks have written themselves."""
    return [word for word in BARE.findall(EVERYWHERE.sub(" ", theirs.sub(" ", text))) if len(word) >= TELLING]


@pytest.mark.parametrize("half", range(2))
def test_every_word_of_a_page_is_in_the_catalogue(watched, kitchen, half):
    """In two, so that no worker is left alone with it."""
    page, visitor = watched, Visitor(watched)
    page.goto(kitchen.url)
    page.get_by_role("link", name="Kitchen").click()
    asked = page.evaluate(
        """async () => {
          const { kitchen, revision } = await (await fetch('/api/kitchen')).json();
          const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
          const body = JSON.stringify({ kitchen: { ...kitchen, locale: 'en-XA' }, revision, uid: crypto.randomUUID() });
          const headers = { 'Content-Type': 'application/json', 'X-CSRFToken': token };
          return (await fetch('/api/kitchen', { method: 'PUT', headers, body })).status;
        }"""
    )
    assert asked == 200
    page.goto(kitchen.url)
    written = sorted((item for item in page.evaluate(THEIRS) if len(item) > 2), key=len, reverse=True)
    theirs = re.compile("|".join(map(re.escape, written)), re.IGNORECASE)
    result, before = {}, None
    for name in list(SCREENS)[half::2]:
        path, _ = SCREENS[name]
        visitor.go(path)
        shown = page.evaluate(SHOWN)
        assert any("é" in text for text in shown), name
        assert shown != before, f"{name}: still the screen before it"
        before = shown
        if said := sorted({text.strip() for text in shown if bare(text, theirs) and not KEPT.search(text.strip())}):
            result[name] = said
    assert result == {}, json.dumps(result, indent=1, ensure_ascii=False)
