"""The `kemble` command: a thin shell on the core. Exit 2 with one line on stderr for bad input."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import Path

from pydantic import ValidationError

from kemble import __version__
from kemble.core.cards.ways import WAYS
from kemble.core.change.shopping import shopping
from kemble.core.facts.problems import Problem, Refused, problems_from, refuse
from kemble.core.formats.paper_kinds import PAPERS
from kemble.core.formats.printed_lists import LISTS, day_html, shopping_html
from kemble.core.formats.recipe_reader import read_recipe, sheet_of
from kemble.core.formats.recipe_writer import FORMATS, written
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import explain_clash
from kemble.core.plan.day_solver import Dish, PlanRequest
from kemble.core.plan.schedule import Plan, kitchen_time, plan_for, planned
from kemble.core.sentences import speak
from kemble.core.sheet.document import MOST_BYTES, Sheet, default_sheet, read_sheet
from kemble.core.sheet.schema import schema_text
from kemble.core.stations.work_sheet import WorkResult, work
from kemble.core.text_cleaning import clean_document
from kemble.words import tongue_of


def read_text(path: str) -> str:
    """A file's text, or standard input for "-". Reads no more than a document may hold."""
    try:
        if path == "-":
            data = sys.stdin.buffer.read(MOST_BYTES + 1)
        else:
            with Path(path).open("rb") as file:
                data = file.read(MOST_BYTES + 1)
    except OSError as error:
        refuse(path, f"cannot be read ({error.strerror})", "a file, or - for standard input")
    if len(data) > MOST_BYTES:
        refuse(path, f"is over {MOST_BYTES:,} bytes long", f"at most {MOST_BYTES:,} bytes")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        refuse(path, "is not UTF-8 text", "a kemble-sheet as JSON")


def _kitchen(path: str | None) -> Kitchen:
    if path is None:
        return Kitchen()
    try:
        kitchen = Kitchen.model_validate(clean_document(json.loads(read_text(path))))
    except ValidationError as error:
        raise Refused(problems_from(error, Kitchen)) from None
    except json.JSONDecodeError:
        refuse(path, "is not JSON", "a kitchen's settings as JSON")
    speak(tongue_of(kitchen.locale))
    return kitchen


def work_or_refuse(sheet: Sheet, kitchen: Kitchen) -> WorkResult:
    worked = work(sheet, kitchen)
    if worked.problems:
        raise Refused(worked.problems)
    return worked


def list_ways(_: argparse.Namespace) -> None:
    result = [
        {
            "id": way.id,
            "name": way.name,
            "says": way.says,
            "kin": list(way.kin),
            "schools": {choice.id: [school.id for school in choice.schools] for choice in way.choices},
        }
        for way in WAYS.values()
    ]
    print(json.dumps(result, indent=2, ensure_ascii=False))


def sheet(options: argparse.Namespace) -> None:
    print(default_sheet(options.way).model_dump_json(indent=2))


def work_sheet(options: argparse.Namespace) -> None:
    worked = work_or_refuse(read_sheet(read_text(options.sheet)), _kitchen(options.kitchen))
    print(worked.model_dump_json(indent=2, include={"facts", "advice", "cautions", "allergens"}))


def export(options: argparse.Namespace) -> None:
    sheet = read_sheet(read_text(options.sheet))
    sys.stdout.write(written(sheet, work(sheet, _kitchen(options.kitchen)), options.how))


def import_recipe(options: argparse.Namespace) -> None:
    """What was understood goes to standard error, the sheet to standard output."""
    told = read_recipe(read_text(options.recipe), _kitchen(options.kitchen))
    for asks in told.asks:
        print(f"kemble: {asks}", file=sys.stderr)
    for line in told.method:
        for finding in line.says:
            if finding.path not in ("", "way") and finding.words:
                print(f"{line.text}\n    {finding.words}", file=sys.stderr)
    print(sheet_of(told).model_dump_json(indent=2))


def plan_sheets(options: argparse.Namespace) -> None:
    """Print the plan of every sheet named."""
    wanted, kitchen = wanted_sheets(options)
    plan = _plan(wanted, kitchen, options)
    if options.json:
        print(plan.model_dump_json(indent=2))
        return
    for scheduled in plan.scheduled:
        held = "" if scheduled.step.hands == "free" else f"  ({scheduled.step.hands})"
        of = f"  [{wanted[scheduled.dish].title}]" if len(wanted) > 1 else ""
        print(f"{scheduled.starts:%a %d %b %H:%M}  {scheduled.step.minutes:5.0f} min  {scheduled.step.title}{held}{of}")
    print(f"{plan.serve:%a %d %b %H:%M}  on the table")
    if plan.late_min:
        print(
            f"This should have begun {plan.late_min} min ago. Begun now, it is on the table at {plan.earliest_serve:%a %d %b %H:%M}."
        )


def wanted_sheets(options: argparse.Namespace) -> tuple[list[Sheet], Kitchen]:
    return [read_sheet(read_text(path)) for path in options.sheet], _kitchen(options.kitchen)


def _plan(wanted: Sequence[Sheet], kitchen: Kitchen, options: argparse.Namespace) -> Plan:
    """One plan for every sheet: for one table, or each at its own serve time."""
    now = kitchen_time(kitchen, options.now, "now") if options.now else datetime.now(UTC)
    serves = []
    for each_sheet in wanted:
        serve = options.serve or each_sheet.serve
        if not serve:
            refuse("serve", "is missing", "--serve 2026-12-05T15:30, or serve on the sheet")
        serves.append(kitchen_time(kitchen, serve))
    worked = [work_or_refuse(each_sheet, kitchen) for each_sheet in wanted]
    if len(wanted) == 1:
        return plan_for(worked[0].steps, kitchen, serve=serves[0], now=now)
    dishes = [
        Dish(each_sheet.title, result.steps, at) for each_sheet, result, at in zip(wanted, worked, serves, strict=True)
    ]
    asked = PlanRequest(tuple(dishes), kitchen, not_before=now)
    found_plan = planned(asked)
    if found_plan is None:
        clash = explain_clash(asked, titles=[each_sheet.title for each_sheet in wanted])
        refuse("plan", clash.says if clash else "none was found in the time", "another time, or one sheet less")
    return found_plan


def print_schema(_: argparse.Namespace) -> None:
    sys.stdout.write(schema_text())


def _manage(command: str, *arguments: str) -> None:
    """What is about the household and not about one sheet is done where its database is known."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kemble.site.settings")
    import django
    from django.core.management import CommandError, call_command

    django.setup()
    try:
        call_command(command, *arguments)
    except CommandError as error:
        raise Refused([Problem(path=command, says=str(error))]) from None


def print_paper(options: argparse.Namespace) -> None:
    """The PDF goes to a file, or through a pipe; never onto a screen."""
    from kemble.pdf import fonts, paper, pdf_of  # a second to load, and only paper needs it

    wanted, kitchen = wanted_sheets(options)
    if options.out is None and sys.stdout.isatty():
        refuse("--out", "is missing", "a file for the PDF, or a pipe")
    titles = [each_sheet.title for each_sheet in wanted]
    if options.what == "plan":
        plan, who = _plan(wanted, kitchen, options), options.helper or ""
        pdf = pdf_of(day_html(" and ".join(titles), plan, titles, kitchen, who=who, fonts=fonts()))
    elif options.what == "shopping":
        pdf = pdf_of(shopping_html(shopping(wanted, kitchen), fonts=fonts()))
    elif len(wanted) > 1:
        refuse("SHEET.json", f"are {len(wanted)}", f"one sheet for {options.what}; several for plan and shopping")
    else:
        pdf = paper(wanted[0], work(wanted[0], kitchen), options.what)
    if options.out is None:
        sys.stdout.buffer.write(pdf)
        return
    try:
        Path(options.out).write_bytes(pdf)
    except OSError as error:
        refuse(options.out, f"cannot be written ({error.strerror})", "a file in a folder that is there")


def backup(options: argparse.Namespace) -> None:
    _manage("backup", options.file)


def restore(options: argparse.Namespace) -> None:
    _manage("restore", options.file, *([f"--beside={options.beside}"] if options.beside else []))


def _add_backups(commands: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    backups = commands.add_parser(
        "backup",
        help="copy the household's database to FILE; to FILE.zip your kitchen as open text; to FILE.sealed, sealed",
        description="KEMBLE_DATA names the data folder, KEMBLE_PASSPHRASE what opens a FILE.sealed again.",
    )
    backups.add_argument("file", metavar="FILE", help="a new file")
    backups.set_defaults(run=backup)
    restores = commands.add_parser(
        "restore",
        help="put a backup back, what is there now kept aside; a FILE.zip takes the place of your kitchen, or lies beside",
        description="Kemble must not be running. KEMBLE_DATA and KEMBLE_PASSPHRASE as for backup.",
    )
    restores.add_argument("file", metavar="FILE", help="what backup wrote, or an automatic backup")
    restores.add_argument(
        "--beside",
        metavar="WHAT",
        help="of a FILE.zip: settings,sheets,occasions,log,benches, as many of them as wanted",
    )
    restores.set_defaults(run=restore)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="kemble", description="A workbench for sweet-rice cakes.")
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(dest="command", required=True)

    commands.add_parser("ways", help="list the ways with their schools").set_defaults(run=list_ways)

    argument_parser = commands.add_parser("sheet", help="print a way's default sheet, ready to edit")
    argument_parser.add_argument("way", help="one of " + ", ".join(WAYS))
    argument_parser.set_defaults(run=sheet)

    exports = commands.add_parser("export", help="write a sheet for others: recipe data, Markdown, plain text")
    exports.add_argument("--as", dest="how", choices=list(FORMATS), default="text", help="text if nothing is said")
    exports.set_defaults(run=export)
    imports = commands.add_parser(
        "import",
        help="read a recipe (text, a page's source, recipe data) and print the sheet; what is not clear is asked",
    )
    imports.add_argument("recipe", metavar="FILE", help="a file, or - for standard input")
    imports.set_defaults(run=import_recipe)
    works = commands.add_parser("work", help="print the worked sheet as JSON")
    works.set_defaults(run=work_sheet)
    plans = commands.add_parser("plan", help="print the schedule, counted back from the serve time")
    plans.add_argument("--json", action="store_true", help="the whole plan as JSON")
    plans.add_argument("sheet", metavar="SHEET.json", nargs="+", help="sheets, or - for standard input")
    plans.set_defaults(run=plan_sheets)
    prints = commands.add_parser(
        "print",
        help="a PDF on A4: the recipe card on one page, templates at full size, the plan by its clock, the shopping",
        description="Print templates at 100 %%: every page of them has a ruler that tells whether the printer kept to size.",
    )
    prints.add_argument("--what", choices=(*PAPERS, *LISTS), default="card", help="card if nothing is said")
    prints.add_argument("--helper", metavar="NAME", help="of a plan: the page of one pair of hands, such as “cook 1”")
    prints.add_argument(
        "sheet", metavar="SHEET.json", nargs="+", help="a sheet, or - for standard input; several for lists"
    )
    prints.add_argument("--out", metavar="FILE.pdf", help="a file; standard output otherwise")
    prints.set_defaults(run=print_paper)
    for command in (plans, prints):
        command.add_argument("--serve", metavar="TIME", help="when people eat, such as 2026-12-05T15:30")
        command.add_argument("--now", metavar="TIME", help="count from this time instead of the clock")
    schemas = commands.add_parser("schema", help="print the JSON schema of a sheet's document")
    schemas.set_defaults(run=print_schema)
    _add_backups(commands)
    for command in (works, exports):
        command.add_argument("sheet", metavar="SHEET.json", help="a sheet, or - for standard input")
    for command in (works, exports, prints, imports, plans):
        command.add_argument("--kitchen", metavar="KITCHEN.json", help="a kitchen; the default one otherwise")
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    options = _parser().parse_args(arguments)
    try:
        options.run(options)
    except Refused as refused:
        print(f"kemble: {refused}", file=sys.stderr)
        return 2
    except BrokenPipeError:  # the reader went away, as `| head` does
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    return 0


if __name__ == "__main__":
    sys.exit(main())
