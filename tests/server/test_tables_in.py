"""Batches out of a table: what goes out comes in elsewhere and goes out the same; what will not do says why, row by row."""

from datetime import UTC, datetime

import pytest
import time_machine

from kemble.core.formats.csv_tables import read_csv
from kemble.server.accounts.owner import kitchen_of, local_owner
from kemble.server.demo.load import load
from kemble.server.models import Batch, KitchenRecord, Run

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
HEAD = "made,title,verdict,softness -2 to 2,liked 1 to 9,pieces,grams,faults,note"


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as travelled:
        yield travelled


def send(owner, *rows, head=HEAD, keep=True, **more):
    return owner.ask("POST", "/tables", {"text": "\n".join([head, *rows]), "keep": keep, **more})


def test_what_goes_out_comes_in_elsewhere_and_goes_out_the_same(owner, stranger):
    demo = load(NOW)
    text = owner.get("/api/tables/batches.csv").content.decode("utf-8-sig")
    theirs = KitchenRecord.objects.exclude(pk=demo.pk).get()
    theirs.document = demo.document
    theirs.save()
    for row in reversed(demo.sheets.all()):
        theirs.sheets.create(title=row.title, way=row.way, document=row.document)
    told = stranger.ask("POST", "/tables", {"text": text, "keep": True}).body
    assert told["added"] == Batch.objects.filter(kitchen=demo).count() > 20
    assert [row["problem"] for row in told["rows"] if row["problem"]] == []
    back = stranger.get("/api/tables/batches.csv").content.decode("utf-8-sig")
    of_the_sheet = ("water %", "sugar %")  # a batch of the demo was a trial, a little off its sheet
    ours, again = (
        sorted([[r.cells[h] for h in r.cells if h not in of_the_sheet] for r in read_csv(t)]) for t in (text, back)
    )
    assert again == ours


class TestARow:
    def test_one_of_a_notebook(self, owner, sheet):
        row = "2026-11-20 15:30,steamed set cake,,1,7,22,910,specks,'=good with tea"
        told = send(owner, row)
        assert (told.status_code, told.body["added"]) == (200, 1), told.body
        batch = Batch.objects.get()
        assert (batch.verdict, batch.pieces, batch.grams, batch.note) == ("too soft", 22, 910, "=good with tea")
        assert batch.tastings.get().liking == 7
        assert batch.run.finished > batch.made
        opened = owner.ask("GET", f"/log/{batch.pk}").body
        assert opened["sheet"] == sheet["id"]

    def test_looked_at_nothing_is_kept(self, owner, sheet):
        told = send(owner, "2026-11-20 15:30,Steamed set cake,just right", keep=False).body
        assert (told["added"], told["rows"][0]["problem"]) == (0, "")
        assert not Batch.objects.exists()
        assert not Run.objects.exists()

    def test_twice_it_is_here_already(self, owner, sheet):
        row = "2026-11-20 15:30,Steamed set cake,just right"
        assert send(owner, row, row).body["added"] == 1
        told = send(owner, row).body
        assert (told["added"], told["rows"][0]["here"]) == (0, True)

    def test_sent_twice_it_is_done_once(self, owner, sheet):
        row = "2026-11-20 15:30,Steamed set cake,just right"
        assert [send(owner, row, uid="a-table-1").body["added"] for _ in range(2)] == [1, 1]
        assert Batch.objects.count() == 1

    @pytest.mark.parametrize(
        ("row", "says"),
        [
            ("2026-11-20,Moon cake", "no sheet is called"),
            ("2026-11-20,", "title is empty"),
            ("yesterday,Steamed set cake", "made: “yesterday” is no time"),
            ("2026-12-01,Steamed set cake", "still to come"),
            ("0001-01-01,Steamed set cake", "too long ago"),
            ("2026-11-20,Steamed set cake,,5", "softness -2 to 2: 5 is not from -2 to 2"),
            ("2026-11-20,Steamed set cake,,soft", "is no number"),
            ("2026-11-20,Steamed set cake,,0,11", "liked 1 to 9: 11"),
            ("2026-11-20,Steamed set cake,,0,,-1", "pieces: -1"),
            ("2026-11-20,Steamed set cake,,0,,nan", "pieces: nan"),
            ("2026-11-20,Steamed set cake,,0,,,,haunted", "faults: “haunted”"),
        ],
    )
    def test_one_that_will_not_do_says_why_and_the_others_come_in(self, owner, sheet, row, says):
        told = send(owner, row, "2026-11-20 15:30,Steamed set cake,just right").body
        assert says in told["rows"][0]["problem"]
        assert told["added"] == 1

    def test_with_semicolons_and_a_comma_for_the_point(self, owner, sheet):
        head = HEAD.replace(",", ";")
        send(owner, "2026-11-20 15:30;Steamed set cake;;-0,6;;;910,5", head=head)
        batch = Batch.objects.get()
        assert (batch.verdict, batch.grams) == ("too firm", 910.5)

    @pytest.mark.parametrize("text", ["", "one word", 'a,b\n"half', "x" * 300])
    def test_what_is_no_table(self, owner, text):
        refused = owner.ask("POST", "/tables", {"text": text, "keep": True})
        assert (refused.status_code, refused.body["problems"][0]["path"]) == (422, "text")

    def test_it_is_of_the_kitchen_that_asks(self, owner, stranger, sheet):
        told = send(stranger, "2026-11-20 15:30,Steamed set cake,just right").body
        assert "no sheet is called" in told["rows"][0]["problem"]
        assert kitchen_of(local_owner()).batches.count() == 0


WEIGHED = "bench,at,sheet,of,drill,kind,grams,total g,pieces,within %"


class TestWeighings:
    def test_what_goes_out_comes_in_elsewhere_and_goes_out_the_same(self, owner, stranger):
        demo = load(NOW)
        text = owner.get("/api/tables/weighings.csv").content.decode("utf-8-sig")
        theirs = KitchenRecord.objects.exclude(pk=demo.pk).get()
        for row in demo.sheets.all():
            theirs.sheets.create(title=row.title, way=row.way, document=row.document)
        told = stranger.ask("POST", "/tables", {"text": text, "keep": True}).body
        assert (told["of"], told["added"]) == ("weighings", sum(bool(bench.log) for bench in demo.benches.all()))
        assert [row["problem"] for row in told["rows"] if row["problem"]] == []
        assert stranger.get("/api/tables/weighings.csv").content.decode("utf-8-sig") == text
        again = stranger.ask("POST", "/tables", {"text": text, "keep": True}).body
        assert again["added"] == 0
        assert all(row["here"] for row in again["rows"])

    def test_a_notebook_that_says_only_what_each_weighed(self, owner, sheet):
        rows = [f"2026-11-20 15:3{i},dough,{grams}" for i, grams in enumerate((20, 21.5, 19))]
        told = send(owner, *rows, head="at,of,grams").body
        assert told["added"] == 1
        bench = kitchen_of(local_owner()).benches.get()
        assert (bench.settings.total_g, bench.settings.pieces) == (60.5, 3)
        assert [mark.grams for mark in bench.log] == [20, 21.5, 19]

    @pytest.mark.parametrize(
        ("row", "says"),
        [
            ("2,2026-11-20 15:30,no such sheet,dough,no,piece,20,60,3,5", "no sheet is called “no such sheet”"),
            ("2,soon,,dough,no,piece,20,60,3,5", "at: “soon” is no time such as 2026-11-25 15:30"),
            (
                "2,2026-11-20 15:30,,dough,no,throw,20,60,3,5",
                "kind: “throw” is none of piece, guess, whole, undone, closed",
            ),
            ("2,2026-11-20 15:30,,dough,no,piece,heavy,60,3,5", "grams: “heavy” is no number"),
            ("2,2026-11-20 15:30,,dough,no,piece,,60,3,5", "grams is empty: what the piece weighs"),
            ("2,2026-11-20 15:30,,dough,no,piece,80,60,3,5", None),  # more than there was to share out
            ("2,2026-11-20 15:30,,dough,no,piece,20,60,900,5", None),  # 900 pieces of nothing
        ],
    )
    def test_what_will_not_do_leaves_its_bench_out_and_no_other(self, owner, row, says):
        good = "1,2026-11-20 14:00,,paste,no,piece,20,60,3,5"
        after = "2,2026-11-20 15:40,,dough,no,piece,20,60,3,5"
        told = send(owner, good, row, after, head=WEIGHED).body
        assert told["added"] == 1
        first, bad, with_it = told["rows"]
        assert first["problem"] == ""
        assert bad["problem"] == says if says else bad["problem"]
        assert with_it["problem"] == "left out with row 3"
        assert kitchen_of(local_owner()).benches.get().settings.what == "paste"

    def test_a_cell_is_words_and_no_formula(self, owner):
        send(owner, "1,2026-11-20 14:00,,'=1+1,no,piece,20,60,3,5", head=WEIGHED)
        assert kitchen_of(local_owner()).benches.get().settings.what == "=1+1"
        assert "'=1+1" in owner.get("/api/tables/weighings.csv").content.decode()
