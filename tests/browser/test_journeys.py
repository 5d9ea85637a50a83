"""Whole journeys through the real interface, against a real server."""

import re

import pytest
from playwright.sync_api import expect
from serving import until
from thorough import times

pytestmark = pytest.mark.browser
SIZES = [(1280, 800), (390, 844)]


def open_sheet(page, url, title):
    page.goto(url)
    page.get_by_role("region", name="Sheets").get_by_role("link", name=title).click()
    expect(page.get_by_role("slider")).to_be_visible()


def key_number(page, station):
    return (
        page.get_by_role("navigation", name="Stations")
        .get_by_role("link", name=re.compile(f"^{station}"))
        .locator("b")
        .first
    )


@pytest.mark.parametrize(("width", "height"), times(SIZES, SIZES[1:]))
def test_from_a_sheet_to_the_log(watched, kitchen, width, height):
    """Open a sheet, change its water, see heat and plan move, plan, rehearse, log, find it again after a restart."""
    page = watched
    page.set_viewport_size({"width": width, "height": height})
    open_sheet(page, kitchen.url, "Black tea and orange cake")

    heat, begin = key_number(page, "Heat").inner_text(), key_number(page, "Plan").inner_text()
    water = page.get_by_label("Black tea, strong, amount")
    water.fill("520")
    expect(key_number(page, "Mix")).to_have_text("177")  # (520 x 0.996 + 255 x 0.03 + 8 x 0.725) / 300
    expect(key_number(page, "Heat")).not_to_have_text(heat)
    expect(key_number(page, "Plan")).not_to_have_text(begin)
    expect(page.locator("[data-old]").first).to_be_visible()
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    page.reload()
    expect(water).to_have_value("520")

    page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Plan")).click()
    before = key_number(page, "Plan").inner_text()
    page.get_by_role("button", name="15 min later").click()
    expect(key_number(page, "Plan")).not_to_have_text(before)
    page.get_by_label("For", exact=True).fill("A trial")
    page.get_by_label("People").fill("12")
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_text("is on the counter")).to_be_visible()

    page.get_by_role("button", name=re.compile("Rehearse")).click()
    forward = page.get_by_role("button", name=re.compile("^(Start|Done|Clear, it is done|That will do)$"))
    finish = page.get_by_role("link", name="How did it come out?")
    seen = []
    expect(forward).to_be_visible()
    while not finish.is_visible():
        now = page.locator("[data-now]").get_attribute("data-now")
        seen.append(now)
        assert len(seen) < 60, seen
        forward.click()  # at sixty times the pace what waits for hands may have changed since it was read
        expect(forward.or_(finish)).to_be_visible()
    assert {"mix running", "steam running", "cut running"} <= set(seen)

    page.get_by_role("link", name="How did it come out?").click()
    page.get_by_role("radio", name="a little too soft").click()
    page.get_by_role("radio", name="just right").nth(1).click()
    page.get_by_label("A note").fill("Softer than I like.")
    page.get_by_role("button", name="Put it in the log").click()
    expect(page.get_by_role("heading", name="Too soft")).to_be_visible()
    expect(page.get_by_text("Softer than I like.")).to_be_visible()

    batch = page.url
    kitchen.stop()
    kitchen.start("--demo", "--keep")
    page.goto(batch)
    expect(page.get_by_text("Softer than I like.")).to_be_visible()
    page.goto(f"{kitchen.url}/log")
    page.get_by_role("radio", name="Steamed set cake").click()
    expect(page.get_by_role("region", name="Batches").get_by_role("listitem").first).to_be_visible()
    expect(page.get_by_text("Softer than I like.")).to_have_count(0)  # a rehearsal is never there
    page.goto(kitchen.url)
    trial = page.get_by_role("listitem").filter(has_text="A trial")
    expect(trial).to_contain_text("12 people")


def test_first_use(watched, empty_kitchen):
    page = watched
    page.goto(empty_kitchen.url)
    expect(page.get_by_role("heading", name="Your kitchen first")).to_be_visible()
    page.get_by_label("Its name").fill("The annexe")
    page.get_by_label("Height above the sea").fill("9000")
    expect(page.get_by_role("alert")).to_contain_text("From -400 to 5500 m")
    page.get_by_label("Height above the sea").fill("1600")
    page.get_by_role("button", name="On to the first sheet").click()
    page.get_by_role("searchbox").fill("tangyuan")
    page.get_by_role("button", name="Boiled balls").click()
    expect(page.get_by_role("slider")).to_be_visible()
    page.keyboard.press("3")
    expect(page.get_by_text("Water boils here at", exact=True)).to_be_visible()
    expect(page.get_by_text("95 °C")).to_be_visible()


def test_the_bean_by_mouse_and_by_keyboard(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Quince cake")
    bean = page.get_by_role("slider")
    before = key_number(page, "Mix").inner_text()
    box = bean.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 90, y - 20, steps=12)
    page.mouse.up()
    expect(page.locator("[data-saving=unsaved]")).to_be_visible()
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    dragged = key_number(page, "Mix").inner_text()
    assert int(dragged) > int(before)
    bean.focus()
    page.keyboard.press("ArrowLeft")
    expect(key_number(page, "Mix")).to_have_text(str(int(dragged) - 2))
    page.get_by_role("button", name="Undo").click()
    expect(key_number(page, "Mix")).to_have_text(dragged)


def test_a_number_tells_its_because_down_to_the_inputs(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Quince cake")
    page.keyboard.press("3")
    page.get_by_role("button", name=re.compile("^Done means")).click()
    because = page.get_by_role("dialog")
    expect(because).to_contain_text("set through, and its time at heat")
    because.get_by_role("button", name="starch gels at").click()
    expect(because).to_contain_text("65 °C in plain water")
    because.get_by_role("button", name="sugar in the sugar and water").click()
    because.get_by_role("button", name="sugar to flour").click()
    expect(because).to_contain_text("sugar in quince paste")


def test_bad_amounts_are_said_and_nothing_is_lost(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Poppy seed and buckwheat honey balls")
    field = page.get_by_label("Water, amount")
    before = key_number(page, "Mix").inner_text()
    for typed in ("0", "-5", "a lot", "1e12", "NaN", ""):
        field.fill(typed)
        expect(page.get_by_role("alert")).to_contain_text("Water, amount")
        expect(field).to_have_value(typed)
        expect(key_number(page, "Mix")).to_have_text(before)
    field.fill("200")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(key_number(page, "Mix")).to_have_text("83")


def test_a_tin_too_small_is_said_and_kept(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Barley-malt and pumpkin seed cake")
    page.keyboard.press("2")
    page.get_by_label("Height", exact=True).fill("20")
    expect(page.get_by_role("alert")).to_contain_text("Accepted: a height of at least")
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("Accepted: a height of at least")
    page.get_by_label("Height", exact=True).fill("55")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_serve_time_in_the_past(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Pistachio and lemon balls")
    page.keyboard.press("6")
    day, time = (page.get_by_label(f"On the table at: {which}", exact=True) for which in ("day", "time"))
    time.fill("10 am")
    time.press("Enter")
    expect(time).to_have_value("10:00")
    day.fill("2020-01-01")
    day.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("2020-01-01 10:00 is past")
    expect(day).to_have_value("2020-01-01")


def test_what_runs_out_first_is_balanced_by_one_press(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Walnut and date balls")
    page.keyboard.press("2")
    expect(page.get_by_text("the filling, after 24 balls: 36 g of dough left over")).to_be_visible()
    page.get_by_role("button", name="18 g more filling").click()
    expect(key_number(page, "Shape")).to_have_text("26")
    expect(page.get_by_text("nothing left over")).to_be_visible()


def test_the_tin_is_filled_by_dragging_its_surface(watched, demo):
    page = watched
    open_sheet(page, demo.url, "Quince cake")
    page.keyboard.press("2")
    surface = page.get_by_role("slider", name="Depth to fill to")
    expect(surface).to_be_visible()
    before = key_number(page, "Heat").inner_text()
    box = surface.bounding_box()
    x, y = box["x"] + 60, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 30, steps=8)
    page.mouse.up()
    expect(key_number(page, "Heat")).not_to_have_text(before)
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    until(lambda: key_number(page, "Shape").inner_text() == surface.get_attribute("aria-valuenow"))
    deep = int(surface.get_attribute("aria-valuenow"))
    surface.focus()
    page.keyboard.press("ArrowDown")
    expect(key_number(page, "Shape")).to_have_text(str(deep - 1))


def test_the_table_is_dragged_to_another_time(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Walnut and date balls")
    page.keyboard.press("6")
    field = page.get_by_label("On the table at: time", exact=True)
    expect(page.get_by_text("on the table", exact=True)).to_be_visible()
    before = field.input_value()
    table = page.locator("g.cursor-ew-resize")
    box = table.bounding_box()
    x, y = box["x"] + 14, box["y"] + 60
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 120, y, steps=8)
    page.mouse.up()
    expect(field).not_to_have_value(before)
    assert field.input_value() < before


def test_a_method_is_made_by_press_drag_and_keys_and_the_plan_follows(watched, kitchen):
    """Timed, worded, left out, moved and added to; undone; then planned and begun: the clock is the cook's."""
    page = watched
    open_sheet(page, kitchen.url, "Black tea and orange cake")
    page.keyboard.press("5")
    rows = page.locator("li[data-step]")
    expect(rows.first).to_be_visible()
    count = rows.count()
    page.get_by_role("button", name="Rest the batter", exact=True).click()
    page.get_by_label("Minutes for “Rest the batter”").fill("12")
    page.get_by_label("Who says so").fill("my aunt")
    page.get_by_label("Your own words for “Rest the batter”").fill("No more, or it settles.")
    expect(page.locator("li[data-step=rest-batter]")).to_contain_text("my aunt · Kemble")
    page.get_by_role("button", name="Sieve the batter", exact=True).click()
    page.get_by_role("button", name="leave it out").click()
    expect(rows).to_have_count(count - 1)
    page.get_by_label("A step of your own", exact=True).fill("Wipe the rim")
    page.get_by_role("button", name="add it").click()
    expect(rows).to_have_count(count)
    first = rows.nth(0).get_attribute("data-step")
    rows.nth(0).locator("[data-open]").press("Alt+ArrowDown")
    expect(rows.nth(1)).to_have_attribute("data-step", first)
    dots = page.get_by_role("button", name="Move “Wipe the rim”")
    dots.scroll_into_view_if_needed()
    box = dots.bounding_box()
    at = rows.count() - 3
    target = rows.nth(at).bounding_box()
    page.mouse.move(box["x"] + 15, box["y"] + 15)
    page.mouse.down()
    page.mouse.move(box["x"] + 15, box["y"] - 20, steps=4)
    page.mouse.move(box["x"] + 15, target["y"] + 10, steps=8)
    page.mouse.up()
    expect(rows.nth(at)).to_have_attribute("data-step", "own-wipe-the-rim")
    page.get_by_role("button", name="Undo").click()
    expect(rows.nth(at)).not_to_have_attribute("data-step", "own-wipe-the-rim")
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("link", name=re.compile("^Plan")).click()
    page.get_by_role("button", name="Make it now").click()
    expect(page).to_have_url(re.compile(r"/make/\d+$"))
    run = page.url.rsplit("/", 1)[1]
    steps = {
        each["step"]["id"]: each["step"] for each in kitchen.hand().ask("GET", f"/runs/{run}")["plan"]["scheduled"]
    }
    assert (steps["rest-batter"]["minutes"], steps["rest-batter"]["own_words"]) == (12, "No more, or it settles.")
    assert "sieve" not in steps
    assert "own-wipe-the-rim" in steps


def test_a_kitchen_moved_up_a_mountain(watched, kitchen):
    page = watched
    page.goto(f"{kitchen.url}/kitchen")
    page.get_by_label("Height above the sea").fill("2400")
    page.get_by_role("link", name=re.compile("^Measured in")).click()
    page.get_by_label("Temperatures in").select_option("F")
    expect(page.get_by_role("status").get_by_text("saved")).to_be_visible()
    page.get_by_role("link", name="Counter").click()
    page.get_by_role("region", name="Sheets").get_by_role("link", name="Black tea and orange cake").click()
    expect(page.get_by_role("slider")).to_be_visible()
    page.keyboard.press("3")
    expect(page.get_by_role("button", name=re.compile("^198 °F"))).to_be_visible()
    assert int(key_number(page, "Heat").inner_text()) > 25
    page.get_by_label("Goes in at").fill("140")
    expect(key_number(page, "Heat").locator("xpath=preceding-sibling::s")).to_be_visible()


def test_a_pasted_list_is_put_right_and_becomes_a_sheet(watched, kitchen):
    page = watched
    page.goto(kitchen.url)
    page.get_by_role("link", name="paste a list of ingredients").click()
    text = """Ingredients:
    300 g sweet rice flour
    1 tin coconut milk
    ½ cup water
    200 g slab sugar, chopped
    2 tbsp oil
    Salt, to taste
    one snark, sliced
    For the glaze:
    1 tbsp honey"""
    page.get_by_label("one ingredient a line").fill(text)
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_text("Thick or thin? Taken as thick.")).to_be_visible()
    expect(page.get_by_text("How much salt? No amount is written.")).to_be_visible()
    begin = page.get_by_role("button", name="Begin the sheet")
    expect(begin).to_be_disabled()
    page.get_by_label("Ingredient of “1 tin coconut milk”").select_option("coconut-milk-thin")
    page.get_by_label("Amount of “Salt, to taste”").fill("2")
    snark = page.get_by_role("listitem").filter(has_text="one snark")
    snark.get_by_label("leave out").check()
    page.get_by_label("Called").fill("From an old card")
    page.get_by_label("made as").select_option("set-cake")
    begin.click()
    expect(page.get_by_label("Title of the sheet")).to_have_value("From an old card")
    expect(page.get_by_label("Coconut milk, thin, amount")).to_have_value("1")
    expect(page.get_by_label("Salt, amount")).to_have_value("2")
    expect(page.get_by_text("snark")).to_have_count(0)
    expect(page.get_by_label("Honey, mild, amount")).to_have_value("1")
    # 400 g thin milk at 87 %, half an own cup of 231 ml, and what sugar holds, on 300 g.
    expect(key_number(page, "Mix")).to_have_text("157")


def test_short_of_one_ingredient_everything_follows(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Squash rounds with chestnut")
    page.get_by_role("radio", name="short of …").click()
    page.get_by_label("Short of").select_option(label="roast squash purée")
    page.get_by_label("only").fill("97.5")
    expect(page.get_by_label("Sweet rice flour, amount")).to_have_value("165")
    expect(page.get_by_label("Water, amount").first).to_have_value("113")  # 112.5, shown whole
    expect(key_number(page, "Mix")).to_have_text("120")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Sweet rice flour, amount")).to_have_value("220")
    page.get_by_label("hold the ratios").check()
    page.get_by_label("Sweet rice flour, amount").fill("110")
    expect(page.get_by_label("Roast squash purée, amount")).to_have_value("65")


def test_an_exchange_is_made_and_says_what_it_changes(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Quince cake")
    before = key_number(page, "Mix").inner_text()
    page.get_by_role("button", name=re.compile("^White sugar")).click()
    page.get_by_label("Exchange it for").select_option("mild-honey")
    expect(page.get_by_role("dialog")).to_contain_text("browns sooner")
    page.get_by_role("button", name="Exchange", exact=True).click()
    expect(page.get_by_label("Honey, mild, amount")).to_be_visible()
    expect(page.get_by_text(re.compile("To hold water and sugar where they were: .* less apple juice"))).to_be_visible()
    expect(key_number(page, "Mix")).to_have_text(before)


def test_the_soak_and_the_water_that_follows(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Quince tray rice")
    page.get_by_role("radio", name="soak", exact=True).click()
    pour = page.locator("[data-fact='grain.cook_water_g']")
    cooked = page.locator("[data-fact='grain.cooked_g']")
    before, whole = pour.text_content(), cooked.text_content()
    page.get_by_label("Soaked", exact=True).fill("0")
    expect(pour).not_to_have_text(before)
    expect(pour).not_to_have_text(before)
    expect(cooked).to_have_text(whole)
    page.get_by_role("slider").focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_label("Soaked", exact=True)).to_have_value("30")


def test_shopping_for_what_is_planned(watched, kitchen):
    page = watched
    page.goto(f"{kitchen.url}/shopping")
    flour = page.get_by_role("listitem").filter(has_text="Sweet rice flour:")
    expect(flour).to_contain_text("1 bag of 500 g")
    page.get_by_label("Sweet rice flour in the larder").fill("0")
    expect(flour).to_contain_text("2 bags of 500 g")
    page.get_by_label("prices").check()
    page.get_by_label("Sweet rice flour, price of a pack").fill("2.4")
    expect(page.get_by_text("About 4.80")).to_be_visible()


def test_a_cup_weighed_once_is_every_sheets_cup(watched, kitchen):
    page = watched
    page.goto(f"{kitchen.url}/kitchen/cups")
    page.get_by_label("Water in your cup").fill("200")
    expect(page.get_by_role("status").get_by_text("saved")).to_be_visible()
    page.get_by_role("link", name="Counter").click()
    page.get_by_role("region", name="Sheets").get_by_role("link", name="Quince cake").click()
    page.get_by_label("Apple juice, unit").select_option("cup_own")
    expect(page.get_by_label("Apple juice, amount")).to_have_value("1.95")  # 390 ml


def test_a_part_is_made_for_two_sheets_and_given_back(watched, kitchen):
    page = watched
    open_sheet(page, kitchen.url, "Half-crushed balls in white bean")
    page.get_by_role("button", name=re.compile("^white bean paste")).click()
    expect(page.get_by_role("dialog")).to_contain_text("for Squash rounds with chestnut")
    page.get_by_role("button", name="each makes its own again").click()
    expect(page.get_by_label("White beans, dry, amount")).to_have_value("226")


def test_what_is_made_is_carried_elsewhere(watched, kitchen):
    """The syrup that is kept back for the glaze, by pointer and by keys; then some of it into the rice, and undone."""
    page = watched
    open_sheet(page, kitchen.url, "Quince tray rice")
    page.get_by_role("radio", name="where it goes").click()
    oil = page.get_by_role("button", name=re.compile("g of coconut oil: to kept"))
    oil.focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("button", name=re.compile("g of coconut oil: to beside"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(oil).to_be_visible()
    drawn = page.get_by_role("group", name=re.compile("^Where each part goes"))
    expect(drawn).to_have_attribute("aria-label", re.compile("g of curds: over it"))
    curds = page.get_by_role("button", name=re.compile("g of curds: over it"))
    x, y = curds.locator("path").first.evaluate(
        """path => {
            const at = path.getPointAtLength(path.getTotalLength() * 0.25).matrixTransform(path.getScreenCTM());
            return [at.x, at.y + 3];
        }"""
    )
    end = page.locator("[data-target='kept']").bounding_box()
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(end["x"] + 40, end["y"] + end["height"] / 2, steps=8)
    page.mouse.up()
    expect(drawn).to_have_attribute("aria-label", re.compile("g of curds: to kept"))


def test_an_occasion_from_the_counter_to_its_day(watched, kitchen):
    """Three sheets for one table: planned together, a step pinned by the keys, a clash with a way out, its calendar."""
    page = watched
    page.goto(kitchen.url)
    page.get_by_role("button", name="Plan an occasion").click()
    expect(page.get_by_text("and its day is planned")).to_be_visible()
    for title in ("Black tea and orange cake", "Walnut and date balls"):
        page.get_by_label("Put a sheet on the table").click()
        page.get_by_role("menuitem", name=title).click()
        expect(page.get_by_role("link", name=re.compile(title)).first).to_be_visible()
    steam = page.get_by_role("button", name=re.compile(r"^1 Steam,")).first
    expect(steam).to_be_visible()
    was = steam.get_attribute("aria-label")
    steam.press("Enter")
    region = page.get_by_role("region", name="The step")
    expect(region).to_contain_text("after Pour and set the tin on the rack")
    steam.press("ArrowLeft")
    expect(page.get_by_role("button", name=re.compile(r"^1 Steam,")).first).not_to_have_attribute("aria-label", was)
    expect(region.get_by_role("button", name="Let the pin go")).to_be_visible()
    expect(page.get_by_role("heading", name=re.compile("days of a hundred"))).to_be_visible()
    with page.expect_download() as taken:
        page.get_by_role("link", name="For a calendar").click()
    assert taken.value.suggested_filename == "day.ics"
    # Two steps pinned at once where one pair of hands holds both.
    serve = page.get_by_label("On the table: time", exact=True)
    serve.fill("0:30")
    serve.press("Enter")
    clash = page.get_by_role("alert", name="What clashes")
    expect(clash).to_contain_text("cannot be done")
    expect(clash.get_by_role("button", name=re.compile("later$"))).to_be_visible()
    clash.get_by_role("button", name="let the pin go").or_(
        clash.get_by_role("button", name=re.compile("later$"))
    ).first.click()
    expect(clash).to_have_count(0)
    page.get_by_label("What it is").fill("Mending circle")
    page.get_by_label("What it is").blur()
    page.reload()
    expect(page.get_by_label("What it is")).to_have_value("Mending circle")
    page.get_by_role("button", name="Drop it").click()
    expect(page.get_by_role("link", name="Mending circle")).to_have_count(0)


def test_parcels_are_given_three_fillings_and_made(watched, kitchen):
    """One more filling, and one more, from the list of parts; one named; each piece its share; all of them in the making."""
    page = watched
    number = kitchen.hand().ask("POST", "/sheets", {"way": "leaf-parcels"})["id"]
    page.goto(f"{kitchen.url}/sheets/{number}/mix")
    for family in ("Fruit filling", "Bean paste"):
        add = page.get_by_role("button", name="Add a part")
        expect(add).to_be_enabled()  # once the kinds of parts are there
        add.press("Enter")
        page.get_by_role("menuitem", name=f"{family} (one more filling)").click()
        expect(page.get_by_role("button", name=re.compile(f"^{family.lower()} ?: what kind"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^fruit filling ?: what kind")).press("Enter")
    page.get_by_label("Name of the part").fill("dates")
    page.keyboard.press("Escape")
    expect(page.locator("[data-saving=saved]")).to_be_visible()
    page.keyboard.press("2")
    each = page.get_by_role("region", name="In each")
    expect(page.get_by_text("3 fillings").first).to_be_visible()
    for name in ("chestnut and mushroom", "dates", "bean paste"):
        expect(each.get_by_text(f"of it {name}")).to_be_visible()
    page.keyboard.press("5")
    rows = page.locator("li[data-step]")
    expect(rows.first).to_be_visible()
    steps = {rows.nth(i).get_attribute("data-step") for i in range(rows.count())}
    assert {"filling-season", "fold"} < steps
    assert any(step.startswith("filling-2-") for step in steps)
    assert any(step.startswith("filling-3-") for step in steps)
    page.keyboard.press("6")
    page.get_by_role("button", name="Make it now").click()
    expect(page).to_have_url(re.compile(r"/make/\d+$"))
    run = kitchen.hand().ask("GET", f"/runs/{page.url.rsplit('/', 1)[1]}")
    assert {each["step"]["id"] for each in run["plan"]["scheduled"]} == steps
