"""What a cook does is not lost: without the network, with two at one sheet, signed out, thrown away, gone back."""

import re

import pytest
from playwright.sync_api import expect
from serving import Hand, until
from test_journeys import key_number, open_sheet

pytestmark = pytest.mark.browser


@pytest.fixture
def browser_context_args(browser_context_args):
    return {**browser_context_args, "service_workers": "allow"}


PASSWORD = "mending circle tea"


def now(page):
    return page.locator("[data-now]")


# What the counter reads: until all of it is kept, a page that is opened anew without the kitchen cannot show it.
COUNTER_READS = (
    "session", "kitchen", "runs", "runs/", "occasions", "to-eat", "feasts", "dropped", "sheets", "ways",
)  # fmt: skip


KEPT = """async (reads) => {
    const kept = (await (await caches.open("kemble-answers")).keys()).map((one) => new URL(one.url).pathname);
    return reads.every((read) =>
        kept.some((path) => (read.endsWith("/") ? path.startsWith(`/api/${read}`) : path === `/api/${read}`)),
    );
}"""


def kept_ready(page):
    """The worker keeps the shell, and all that the counter reads has been read through it."""
    page.evaluate(
        """async () => {
            const worker = navigator.serviceWorker;
            if (!worker.controller) await new Promise((go) => worker.addEventListener("controllerchange", go));
        }"""
    )
    # Asked again and again from here: a promise that has not come round yet counts as true where the page is let wait.
    until(lambda: page.evaluate(KEPT, list(COUNTER_READS)))
    page.wait_for_load_state("networkidle")


class TestTwoAtOneSheet:
    def test_a_second_tab_follows_the_first(self, watched, kitchen):
        first = watched
        open_sheet(first, kitchen.url, "Quince cake")
        second = first.context.new_page()
        second.goto(first.url)
        expect(second.get_by_role("slider")).to_be_visible()
        first.get_by_label("Apple juice, amount").fill("380")
        expect(second.get_by_label("Apple juice, amount")).to_have_value("380")
        expect(key_number(second, "Mix")).to_have_text(key_number(first, "Mix").inner_text())
        second.get_by_label("White sugar, amount").fill("150")
        expect(first.get_by_label("White sugar, amount")).to_have_value("150")
        for tab in (first, second):
            expect(tab.locator("[data-saving=saved]")).to_be_visible()
            expect(tab.get_by_role("alertdialog")).to_have_count(0)

    @pytest.fixture
    def two(self, watched, kitchen, browser):
        """The same sheet on two devices, which hear nothing of each other."""
        other = browser.new_context()
        other.add_cookies([kitchen.cookie])
        pages = (watched, other.new_page())
        for page in pages:
            open_sheet(page, kitchen.url, "Quince cake")
        yield pages
        other.close()

    def test_what_each_changed_alone_is_put_together(self, two):
        first, second = two
        first.get_by_label("Apple juice, amount").fill("380")
        expect(first.locator("[data-saving=saved]")).to_be_visible()
        second.get_by_label("White sugar, amount").fill("150")
        expect(second.get_by_label("Apple juice, amount")).to_have_value("380")
        expect(second.locator("[data-saving=saved]")).to_be_visible()
        first.reload()
        expect(first.get_by_label("White sugar, amount")).to_have_value("150")
        expect(first.get_by_label("Apple juice, amount")).to_have_value("380")

    def test_what_both_changed_is_asked_about(self, two):
        first, second = two
        first.get_by_label("Apple juice, amount").fill("380")
        expect(first.locator("[data-saving=saved]")).to_be_visible()
        second.get_by_label("Apple juice, amount").fill("400")
        dialog = second.get_by_role("alertdialog")
        expect(dialog).to_contain_text("Changed elsewhere, too")
        expect(dialog.get_by_role("row", name="Apple juice: amount 400 380")).to_be_visible()
        dialog.get_by_role("button", name="Take mine").click()
        expect(second.locator("[data-saving=saved]")).to_be_visible()
        first.reload()
        expect(first.get_by_label("Apple juice, amount")).to_have_value("400")
        second.get_by_role("button", name="Undo").click()
        expect(second.get_by_label("Apple juice, amount")).to_have_value("380")
        expect(second.locator("[data-saving=saved]")).to_be_visible()
        first.get_by_label("Apple juice, amount").fill("410")
        expect(first.get_by_role("alertdialog")).to_be_visible()
        first.get_by_role("button", name="Keep both").click()
        expect(first.get_by_label("Title of the sheet")).to_have_value("Quince cake (my copy)")
        expect(first.get_by_label("Apple juice, amount")).to_have_value("410")


class TestWithoutTheNetwork:
    def test_an_edit_is_kept_worked_and_saved_later(self, watched, kitchen):
        page = watched
        open_sheet(page, kitchen.url, "Quince cake")
        before = key_number(page, "Mix").inner_text()
        kitchen.stop()
        page.get_by_label("Apple juice, amount").fill("365")
        expect(page.locator("[data-saving=unreachable]")).to_be_visible()
        expect(page.get_by_text("The figures below are those of the sheet before your last change.")).to_be_visible()
        expect(page.get_by_text("The kitchen cannot be reached.")).to_be_visible()
        kitchen.start("--demo", "--keep")
        expect(page.locator("[data-saving=saved]")).to_be_visible(timeout=40_000)
        expect(key_number(page, "Mix")).not_to_have_text(before)
        expect(page.locator("[data-stale]")).to_have_count(0)
        page.reload()
        expect(page.get_by_label("Apple juice, amount")).to_have_value("365")
        page.get_by_role("button", name="Undo").click()  # outlives the reload
        expect(page.get_by_label("Apple juice, amount")).to_have_value("390")
        page.get_by_role("button", name="Redo").click()
        expect(page.get_by_label("Apple juice, amount")).to_have_value("365")

    def test_a_run_goes_on_through_a_cut_and_a_reload(self, watched, kitchen):
        """The server is gone, not only the network: every press is seen at once, and stands when all is back."""
        page = watched
        page.goto(kitchen.url)
        kept_ready(page)
        page.get_by_role("link", name=re.compile("Barley-malt and pumpkin seed cake.*table at")).click()
        expect(now(page)).to_have_attribute("data-now", "steam running")
        kitchen.kill()
        page.get_by_role("button", name="Note").click()
        page.get_by_label(re.compile("A note on")).fill("Lid in a blue cloth.")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("Lid in a blue cloth.").last).to_be_visible()
        page.get_by_role("button", name="Done").click()
        expect(now(page)).to_have_attribute("data-now", "cool running")
        expect(page.get_by_text("2 kept here, to be sent")).to_be_visible()
        page.reload()
        expect(now(page)).to_have_attribute("data-now", "cool running")
        expect(page.get_by_text("The kitchen cannot be reached.")).to_be_visible()
        expect(page.get_by_text("Lid in a blue cloth.").last).to_be_visible()
        page.keyboard.press("u")
        expect(now(page)).to_have_attribute("data-now", "steam running")
        page.keyboard.press("r")
        expect(now(page)).to_have_attribute("data-now", "cool running")
        kitchen.start("--demo", "--keep")
        expect(page.get_by_text("kept here, to be sent")).to_have_count(0, timeout=40_000)
        expect(page.get_by_text("The kitchen cannot be reached.")).to_have_count(0)
        hand, address = kitchen.hand(), f"/runs/{page.url.rpartition('/')[2]}"
        until(lambda: hand.ask("GET", address)["events"][-1]["kind"] == "redone")  # they go out one after another
        run = hand.ask("GET", address)
        assert [event["kind"] for event in run["events"][-4:]] == ["noted", "done", "undone", "redone"]
        assert next(step for step in run["state"]["steps"] if step["id"] == "steam")["status"] == "done"

    def test_the_counter_says_what_is_known_and_since_when(self, watched, kitchen):
        page = watched
        page.goto(kitchen.url)
        kept_ready(page)
        expect(page.get_by_role("region", name="On the stove").get_by_role("link")).to_have_count(1)
        kitchen.kill()
        page.reload()
        expect(
            page.get_by_text(re.compile(r"cannot be reached. What you see is as it was at \d\d:\d\d"))
        ).to_be_visible()
        expect(page.get_by_role("region", name="On the stove").get_by_role("link")).to_have_count(1)
        page.evaluate("caches.open('kemble-answers').then((kept) => kept.delete('/api/runs'))")
        page.reload()
        stove = page.get_by_role("region", name="On the stove")
        expect(stove.get_by_text(re.compile("What is cooking is not known since"))).to_be_visible()
        expect(page.get_by_text("Nothing is cooking.")).to_have_count(0)
        page.goto(f"{kitchen.url}/sheets/3/mix")
        expect(page.get_by_role("alert")).to_contain_text("this has not been opened here before")
        kitchen.start("--demo", "--keep")
        expect(page.get_by_role("slider")).to_be_visible(timeout=30_000)

    def test_a_file_that_was_looked_at_is_no_page(self, watched, kitchen):
        """What a browser shows of its own (paper, a list of licences) never takes the place of the page that is kept."""
        page = watched
        page.goto(kitchen.url)
        kept_ready(page)
        page.goto(f"{kitchen.url}/licences.txt")
        expect(page.get_by_text(re.compile("What ships with Kemble"))).to_be_visible()
        kitchen.kill()
        page.goto(kitchen.url)
        expect(page.get_by_text(re.compile("cannot be reached"))).to_be_visible()
        expect(page.get_by_role("region", name="On the stove")).to_be_visible()
        kitchen.start("--demo", "--keep")


class TestUndoOnTheRun:
    def test_whatever_came_last_is_taken_back(self, watched, kitchen):
        page = watched
        page.goto(kitchen.url)
        page.get_by_role("link", name=re.compile("Barley-malt and pumpkin seed cake.*table at")).click()
        expect(now(page)).to_be_visible()
        page.keyboard.press("n")
        expect(page.get_by_text(re.compile("[67] min late"))).to_be_visible()
        page.get_by_role("button", name="Something is wrong").click()
        page.get_by_role("dialog").get_by_role("button").first.click()
        page.get_by_role("button", name=re.compile("^Undo: seen")).click()
        page.get_by_role("button", name=re.compile("^Undo: 5 minutes more")).click()
        expect(page.get_by_text("2 min late")).to_be_visible()
        page.keyboard.press("u")  # what the thermometer read is taken back too
        expect(page.get_by_text("on time")).to_be_visible()
        page.reload()
        expect(now(page)).to_be_visible()
        page.keyboard.press("r")
        expect(page.get_by_text("2 min late")).to_be_visible()


class TestTheDoor:
    def test_the_printed_key_lets_one_browser_in(self, kitchen, browser):
        made = kitchen.manage("key").stdout
        key = re.search(r"#key=\S+", made)[0]
        context = browser.new_context()
        page = context.new_page()
        page.goto(kitchen.url)
        expect(page.get_by_role("button", name="Come in")).to_be_visible()
        page.goto("about:blank")
        page.goto(f"{kitchen.url}/log{key}")
        expect(page.get_by_role("heading", name="Log", exact=True)).to_be_visible()
        assert "key" not in page.url
        context.close()
        second = browser.new_context()
        page = second.new_page()
        page.goto(f"{kitchen.url}/{key}")
        expect(page.get_by_role("alert")).to_contain_text("has been used, or is too old")
        second.close()

    def test_a_password_set_here_opens_it_elsewhere(self, watched, kitchen, browser):
        page = watched
        page.goto(f"{kitchen.url}/household")
        page.get_by_label("New password").fill(PASSWORD)
        page.get_by_role("button", name="Set password").click()
        expect(page.get_by_text("with a password; one is set")).to_be_visible()
        away = browser.new_context().new_page()
        away.goto(kitchen.url)
        away.get_by_label("Password").fill(PASSWORD)
        away.get_by_role("button", name="Come in").click()
        expect(away.get_by_role("heading", name="Weir House")).to_be_visible()
        away.context.close()

    def test_asked_in_as_a_taster_who_says_how_it_is(self, watched, kitchen, browser):
        page = watched
        page.goto(f"{kitchen.url}/household")
        page.wait_for_load_state("networkidle")  # nothing moves any more under what is pressed
        page.get_by_label("For whom").fill("Sorrel")
        page.get_by_role("radio", name="taster").click()
        expect(page.get_by_role("radio", name="taster")).to_be_checked()
        page.get_by_role("button", name="Write the invitation").click()
        address = page.get_by_role("region", name="The invitation").locator("code").inner_text()
        phone = browser.new_context().new_page()
        phone.goto(address)
        expect(phone.get_by_text("Sorrel, you are asked into Weir House as a taster.")).to_be_visible()
        phone.get_by_label("A name for yourself").fill("sorrel")
        phone.get_by_label("A password").fill(PASSWORD)
        phone.get_by_role("button", name="Come in").click()
        phone.get_by_role("link", name="Walnut and date balls").first.click()
        phone.get_by_role("radio", name="8").click()
        phone.get_by_role("button", name="That is how it is").click()
        expect(phone.get_by_role("link", name="Walnut and date balls").first).to_contain_text("you have said")
        phone.goto(f"{kitchen.url}/kitchen")
        expect(phone.get_by_role("heading", name="Nothing here")).to_be_visible()
        page.reload()
        sorrel = page.get_by_role("listitem").filter(has_text="sorrel").first
        sorrel.get_by_role("radio", name="helper").click()
        expect(sorrel.get_by_text("sees what is being made")).to_be_visible()
        phone.goto(kitchen.url)
        expect(phone.get_by_role("heading", name="On the stove")).to_be_visible()
        page.get_by_role("button", name="Send away").click()
        page.get_by_role("button", name="Send sorrel away").click()
        expect(page.get_by_text("sees what is being made")).to_have_count(1)  # of whoever is asked in next
        phone.goto(kitchen.url)
        expect(phone.get_by_role("button", name="Come in")).to_be_visible()
        phone.context.close()

    def test_a_helper_does_a_step_and_asks_for_nothing_that_is_not_theirs(self, watched, kitchen, browser):
        made = kitchen.hand().ask("POST", "/household/invitations", {"name": "Teasel", "role": "helper"})
        tablet = browser.new_context(service_workers="block").new_page()
        refused = []
        tablet.on("response", lambda answer: refused.append(answer.url) if answer.status >= 400 else None)
        tablet.goto(made["address"])
        tablet.get_by_label("A name for yourself").fill("teasel")
        tablet.get_by_label("A password").fill(PASSWORD)
        tablet.get_by_role("button", name="Come in").click()
        tablet.get_by_role("link", name="what Wren does").click()
        expect(tablet.get_by_text("To set out")).to_be_visible()
        tablet.go_back()
        tablet.get_by_role("region", name="On the stove").get_by_role("link").first.click()
        expect(now(tablet)).to_have_attribute("data-now", "steam running")
        expect(tablet.get_by_role("link", name="Finish and log")).to_have_count(0)
        tablet.keyboard.press(" ")
        expect(now(tablet)).to_have_attribute("data-now", "cool running")
        until(lambda: kitchen.hand().ask("GET", "/runs/31")["events"][-1]["kind"] == "done")
        tablet.goto(f"{kitchen.url}/household")
        expect(tablet.get_by_role("heading", name="Alarms on this device")).to_be_visible()
        expect(tablet.get_by_role("heading", name="Who is in")).to_have_count(0)
        assert refused == []
        tablet.context.close()

    def test_signed_out_in_the_middle_the_page_stays_and_everything_is_sent(self, watched, kitchen):
        page = watched
        kitchen.hand().ask("PUT", "/session/password", {"password": PASSWORD})
        other = Hand(kitchen.port)
        other.try_to("GET", "/")
        other.ask("POST", "/session", {"username": "owner", "password": PASSWORD})
        page.context.clear_cookies()
        page.context.add_cookies([{**kitchen.cookie, "value": other.cookies["sessionid"]}])
        page.goto(f"{kitchen.url}/make/31")
        expect(now(page)).to_have_attribute("data-now", "steam running")
        other.ask("DELETE", "/session")
        page.keyboard.press(" ")
        expect(now(page)).to_have_attribute("data-now", "cool running")
        dialog = page.get_by_role("alertdialog")
        expect(dialog).to_contain_text("Signed out meanwhile")
        dialog.get_by_label("Password").fill(PASSWORD)
        dialog.get_by_role("button", name="Come in").click()
        expect(dialog).to_have_count(0)
        expect(page.get_by_text("kept here, to be sent")).to_have_count(0)
        expect(now(page)).to_have_attribute("data-now", "cool running")
        again = Hand(kitchen.port)
        again.try_to("GET", "/")
        again.ask("POST", "/session", {"username": "owner", "password": PASSWORD})
        assert again.ask("GET", "/runs/31")["events"][-1]["kind"] == "done"


class TestThrownAway:
    def test_a_sheet_only_when_meant_and_back(self, watched, kitchen):
        page = watched
        page.goto(kitchen.url)
        sheets = page.get_by_role("region", name="Sheets")
        sheets.get_by_role("button", name="Throw away Quince cake").click()
        page.get_by_role("button", name="Keep it").click()
        expect(sheets.get_by_role("link", name="Quince cake")).to_be_visible()
        sheets.get_by_role("button", name="Throw away Quince cake").click()
        page.get_by_role("button", name="Throw it away").click()
        expect(sheets.get_by_role("link", name="Quince cake")).to_have_count(0)
        sheets.get_by_role("button", name="Bring it back").click()
        expect(sheets.get_by_role("link", name="Quince cake")).to_be_visible()

    def test_a_plan_kept_twice_is_one_and_a_dropped_one_comes_back(self, watched, kitchen):
        page = watched
        open_sheet(page, kitchen.url, "Walnut and date balls")
        page.keyboard.press("6")
        page.get_by_label("For", exact=True).fill("A trial")
        expect(page.locator("[data-saving=saved]")).to_be_visible()
        for _ in range(2):
            page.get_by_role("button", name="Keep this plan").click()
            expect(page.get_by_role("button", name="Keep this plan")).to_be_enabled()
        page.get_by_role("link", name="Counter").click()
        trial = page.get_by_role("listitem").filter(has_text="A trial")
        expect(trial).to_have_count(1)
        trial.get_by_role("button", name="Drop").click()
        expect(trial).to_have_count(0)
        page.get_by_role("link", name="What was thrown away").click()
        page.get_by_role("button", name=re.compile("^Bring it back.*A trial")).click()
        expect(page.get_by_text("Nothing lies here.")).to_be_visible()
        page.get_by_role("link", name="Counter").click()
        expect(trial).to_have_count(1)

    def test_a_sheet_open_elsewhere_keeps_what_was_typed(self, watched, kitchen):
        page = watched
        open_sheet(page, kitchen.url, "Quince cake")
        kitchen.hand().ask("DELETE", f"/sheets/{re.search(r'sheets/([0-9]+)', page.url)[1]}")
        page.get_by_label("Apple juice, amount").fill("365")
        dialog = page.get_by_role("alertdialog")
        expect(dialog).to_contain_text("was thrown away")
        dialog.get_by_role("button", name="Bring it back").click()
        expect(page.locator("[data-saving=saved]")).to_be_visible()
        expect(page.get_by_label("Apple juice, amount")).to_have_value("365")


def test_back_after_logging_opens_no_empty_form(watched, kitchen):
    page = watched
    page.goto(f"{kitchen.url}/make/31")
    expect(now(page)).to_be_visible()
    page.get_by_role("link", name="Finish and log").click()
    page.get_by_label("A note").fill("Kept whole.")
    page.get_by_role("button", name="Put it in the log").click()
    expect(page.get_by_text("Kept whole.")).to_be_visible()
    page.go_back()
    page.wait_for_url("**/make/31")
    page.goto(f"{kitchen.url}/make/31/outcome")
    expect(page.get_by_text("Kept whole.")).to_be_visible()
    assert "/log/" in page.url


def test_rows_keep_their_names_when_a_line_is_taken_out(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Quince cake")
    page.get_by_role("button", name="Take out Sweet rice flour").click()
    expect(page.get_by_role("alert").first).to_contain_text("flour")
    expect(page.locator("[data-saving=refused]")).to_be_visible()
    expect(page.get_by_label("Apple juice, amount")).to_have_value("390")
    expect(page.get_by_label("Sweet rice flour, amount")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Sweet rice flour, amount")).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.locator("[data-saving=saved]")).to_be_visible()


def test_a_long_shelf_is_turned_page_by_page(watched, kitchen):
    page, hand = watched, kitchen.hand()
    for i in range(30):
        hand.ask("POST", "/sheets", {"way": "set-cake", "uid": f"shelf-number-{i}"})
    page.goto(kitchen.url)
    sheets = page.get_by_role("region", name="Sheets")
    expect(sheets.get_by_text(re.compile("page 1 of 3"))).to_be_visible()
    sheets.get_by_role("button", name="older").click()
    expect(sheets.get_by_text(re.compile("page 2 of 3"))).to_be_visible()
    sheets.get_by_label("Find").fill("tangyuan")
    expect(sheets.get_by_role("link", name="Walnut and date balls")).to_be_visible()
    expect(sheets.get_by_role("link", name=re.compile("set cake"))).to_have_count(0)
