import io
import json
from pathlib import Path
from types import SimpleNamespace

import pytest

from kemble.cli import main
from kemble.core.cards.ways import WAYS
from kemble.core.sheet.document import default_sheet


@pytest.fixture
def sheet(tmp_path):
    path = tmp_path / "sheet.json"
    path.write_text(default_sheet("boiled-balls").model_dump_json())
    return path


def test_ways_lists_schools(capsys):
    assert main(["ways"]) == 0
    result = {way["id"]: way for way in json.loads(capsys.readouterr().out)}
    assert set(result) == set(WAYS)
    assert result["set-cake"]["schools"]["syrup"] == ["melted", "burnt"]


@pytest.mark.parametrize("way", sorted(WAYS))
def test_a_printed_sheet_can_be_worked_from_standard_input(way, capsys, monkeypatch):
    assert main(["sheet", way]) == 0
    text = capsys.readouterr().out
    monkeypatch.setattr("sys.stdin", SimpleNamespace(buffer=io.BytesIO(text.encode())))
    assert main(["work", "-"]) == 0
    worked = json.loads(capsys.readouterr().out)
    assert set(worked) >= {"facts", "advice", "cautions"}
    assert worked["facts"]["mix.hydration_pct"]["unit"] == "%"


def test_a_plan_in_words_and_as_json(sheet, capsys):
    arguments = ["plan", str(sheet), "--serve", "2026-12-05T15:30", "--now", "2026-12-01T08:00"]
    assert main(arguments) == 0
    out = capsys.readouterr().out
    assert out.rstrip().endswith("Sat 05 Dec 15:30  on the table")
    assert "Flatten, fill and close" in out
    assert main([*arguments, "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["serve"].startswith("2026-12-05T15:30")


@pytest.mark.parametrize("how", ["kemble", "recipe"])
def test_written_and_read_again_through_a_pipe_it_is_the_same(sheet, how, capsys, monkeypatch):
    assert main(["export", "--as", how, str(sheet)]) == 0
    text = capsys.readouterr().out
    monkeypatch.setattr("sys.stdin", SimpleNamespace(buffer=io.BytesIO(text.encode())))
    assert main(["import", "-"]) == 0
    assert json.loads(capsys.readouterr().out) == json.loads(sheet.read_text())


def test_a_recipe_in_words_becomes_a_sheet_and_what_is_not_clear_an_error(tmp_path, capsys):
    path = tmp_path / "cake.txt"
    path.write_text(
        "Ingredients\n300 g sweet rice flour\n380 ml water\n\nMethod\nSteam for 50 minutes in a 18 cm round tin.\n"
    )
    assert main(["import", str(path)]) == 0
    told = capsys.readouterr()
    result = json.loads(told.out)
    assert (result["way"], result["method"][0]["minutes"]) == ("set-cake", 50)
    assert "a round tin 180 mm across" in told.err
    path.write_text("300 g sweet rice flour\n1 tsp snark\n")
    assert main(["import", str(path)]) == 2
    assert "snark" in capsys.readouterr().err


def test_a_kitchen_of_ones_own(sheet, tmp_path, capsys):
    kitchen = tmp_path / "kitchen.json"
    kitchen.write_text('{"altitude_m": 2000}')
    assert main(["work", str(sheet), "--kitchen", str(kitchen)]) == 0
    assert json.loads(capsys.readouterr().out)["facts"]["heat.boil_c"]["value"] == pytest.approx(93.3, abs=0.3)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (
            lambda d: d["parts"][0]["lines"][1]["amount"].update(value=-5),
            "parts.0.lines.1.amount.value: -5 is too little",
        ),
        (lambda d: d.update(way="toast"), 'way: "toast" is not a known way'),
        (lambda d: d["pieces"].update(dough_g=450), "pieces.dough_g"),
    ],
)
def test_bad_sheets_are_one_line_and_exit_2(change, says, tmp_path, capsys):
    document = json.loads(default_sheet("boiled-balls").model_dump_json())
    change(document)
    path = tmp_path / "bad.json"
    path.write_text(json.dumps(document))
    assert main(["work", str(path)]) == 2
    error = capsys.readouterr().err
    assert says in error
    assert error.count("\n") == 1


@pytest.mark.parametrize(
    "arguments",
    [
        ["sheet", "toast"],
        ["work", "no-such-file.json"],
        ["plan", "SHEET"],
        ["plan", "SHEET", "--serve", "2020-01-01T10:00"],
        ["plan", "SHEET", "--serve", "soon"],
        ["work", "SHEET", "--kitchen", "SHEET"],
    ],
)
def test_other_bad_input(arguments, sheet, capsys):
    assert main([str(sheet) if word == "SHEET" else word for word in arguments]) == 2
    assert capsys.readouterr().err.startswith("kemble: ")


def test_a_file_of_five_megabytes(tmp_path, capsys):
    path = tmp_path / "big.json"
    path.write_bytes(b"x" * 5_000_000)
    assert main(["work", str(path)]) == 2
    assert "200,000 bytes" in capsys.readouterr().err


def test_a_card_into_a_file_and_templates_through_a_pipe(sheet, tmp_path, capsysbinary):
    file = tmp_path / "card.pdf"
    assert main(["print", str(sheet), "--out", str(file)]) == 0
    assert file.read_bytes().startswith(b"%PDF-")
    assert main(["print", "--what", "templates", str(sheet)]) == 0
    assert capsysbinary.readouterr().out.startswith(b"%PDF-")
    assert main(["print", str(sheet), "--out", str(tmp_path / "nowhere" / "card.pdf")]) == 2
    assert b"cannot be written" in capsysbinary.readouterr().err


def test_a_plan_and_a_shopping_list_of_several_sheets(sheet, tmp_path, capsys):
    file = tmp_path / "plan.pdf"
    when = ["--serve", "2026-12-05T15:30", "--now", "2026-12-01T10:00"]
    assert main(["print", "--what", "plan", *when, "--out", str(file), str(sheet), str(sheet)]) == 0
    assert file.read_bytes().startswith(b"%PDF-")
    assert main(["print", "--what", "shopping", "--out", str(file), str(sheet), str(sheet)]) == 0
    assert main(["print", "--what", "plan", *when, "--helper", "Wren", "--out", str(file), str(sheet)]) == 2
    assert "Wren has nothing to do in it" in capsys.readouterr().err
    assert main(["print", "--out", str(file), str(sheet), str(sheet)]) == 2
    assert "one sheet for card" in capsys.readouterr().err


def test_the_schema_is_the_one_in_the_docs(capsys):
    assert main(["schema"]) == 0
    assert capsys.readouterr().out == Path("docs/sheet.schema.json").read_text(encoding="utf-8")


def test_the_tests_keep_to_a_folder_of_their_own(settings):
    assert Path(__file__).parents[1] not in settings.DATA.parents
