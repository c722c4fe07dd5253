"""What a build says when it is done: problems, notes, the account, where the events went."""

import sys
from collections import Counter
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

from nomarium.building.report import BuildReport
from nomarium.cli.render import as_json, rest_text, say, say_json, say_notes, say_problems, shortened
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from nomarium.school.plan import Plan


def say_build(
    report: BuildReport,
    json: bool,
    output: str,
    rejects: str | None,
    partial: bool,
    details: bool = False,
) -> None:
    """Say what a build found and did, as text or as one JSON document."""
    to = sys.stderr if output == "-" else sys.stdout
    if json:
        say_json(facts_of(report), to)
        return
    say_problems(report.problems)
    if report.problems:
        sys.stderr.flush()
    say_notes(report.notes, to, details)
    if report.is_written and report.has_floating:
        say(
            "note: Times float: they are the same on every clock. Give --timezone to tie them to a place.",
            to,
        )
    for passed in report.passed_over:
        say(f"passed over: {passed.sheet.title}: {passed.reason}.", to)
    for line in account_lines(report, details):
        say(line, to)
    for plan in report.plans:
        say(_plan_line(plan), to)
    say(str(report.ledger), to)
    for line in _repeats_said(report):
        say(line, to)
    _say_outcome(report, output, rejects, partial, details, to)


def account_lines(report: BuildReport, details: bool) -> list[str]:
    """The account of each table, where there are several; of a plan's those that have more than used rows."""
    titled = [account for account in report.accounts if account.title]
    if len(titled) < 2:
        return []
    wanted = [one for one in titled if details or not report.plans or not one.ledger.is_plain]
    shown, rest = shortened(wanted, details)
    lines = [f"{account.title}: {account.ledger}" for account in shown]
    return [*lines, rest_text(rest, "table")] if rest else lines


def _say_outcome(
    report: BuildReport, output: str, rejects: str | None, partial: bool, details: bool, to: TextIO
) -> None:  # fmt: skip
    if report.problems and not partial:
        kept = " What was there before is untouched." if output != "-" and Path(output).exists() else ""
        say(f"Nothing was written: {counted(len(report.problems), 'problem')}.{kept}", sys.stderr)
        if report.event_count and report.rejected_rows:
            say(
                "→ Mend them and build again; or --partial writes the rest, --rejects FILE keeps these rows.",
                sys.stderr,
            )
    elif report.event_count:
        days = f" from {report.span[0]} to {report.span[1]}" if report.span else ""
        verb = "Wrote" if report.is_written else "Would write"
        if report.files and report.files[0].value:
            shown, rest = shortened(report.files, details)
            for file in shown:
                say(f"  {file.event_count:>7,}  {file.name}  ({file.value})", to)
            if rest:
                say(f"           {rest_text(rest, 'file')}", to)
            files = counted(len(report.files), "file")
            say(f"{verb} {counted(report.event_count, 'event')}{days} into {files} in {output}", to)
        else:
            where = "standard output" if output == "-" else output
            say(f"{verb} {counted(report.event_count, 'event')}{days} to {where}", to)
        changed = ", ".join(f"{count:,} {what}" for what, count in report.changes.items() if count)
        if changed:
            say(f"Since the last build: {changed}", to)
    if report.clashes:
        one = report.clashes[0]
        times = f", {one.times} times" if one.times > 1 else ""
        say(
            f"{counted(len(report.clashes), 'clash', 'clashes')}: {one.kind} {one.name} is in {one.one} and {one.other} at once "
            f"(first on {one.first}{times})" + ("; --json lists all" if len(report.clashes) > 1 else ""),
            to,
        )
    still_there, rest = shortened(report.kept_files, details)
    for name in still_there:
        say(f"kept from an earlier build, no longer made: {name}", to)
    if rest:
        say(rest_text(rest, "such file"), to)
    if rejects and report.rejected_rows:
        rows = counted(report.rejected_rows, "rejected row")
        if report.has_kept_rejects is not False:
            say(f"{rows} {'kept' if report.has_kept_rejects else 'would be kept'} in {rejects}", to)


def _plan_line(plan: "Plan") -> str:
    """A plan in one line: days, labels, meetings."""
    days = plan.year.days
    text = f"{plan.file}: {counted(len(days), 'school day')}"
    if plan.year.labels.names:
        counts = Counter(day.label for day in days)
        text += f" ({', '.join(f'{label} {counts[label]}' for label in plan.year.labels.names)}"
        text += f"; {counts['']} without a label, so without classes)" if counts[""] else ")"
    text += f", {counted(len(plan.meetings), 'meeting')} of {counted(len(plan.classes), 'class', 'classes')}"
    if plan.not_met:
        text += f"; {counted(len(plan.not_met), 'period')} not met, left out by a named schedule"
    return text


def _repeats_said(report: BuildReport) -> list[str]:
    """What became of events that repeat, and what was added to those of the source."""
    lines = []
    if report.spread.repeating:
        parts = []
        if report.spread.by_rule:
            parts.append(f"{report.spread.by_rule:,} by rule, on {counted(report.spread.rule_dates, 'date')}")
        if report.spread.dated:
            parts.append(
                f"on {counted(report.spread.dated, 'date')} of {'their' if report.spread.repeating > 1 else 'its'} own"
            )
        verb = "repeats" if report.spread.repeating == 1 else "repeat"
        lines.append(f"{report.spread.repeating:,} of them {verb}: {'; '.join(parts)}")
    if report.holiday_count:
        lines.append(f"{counted(report.holiday_count, 'public holiday')} added")
    return lines


def facts_of(report: BuildReport) -> dict[str, object]:
    """What a build found and did, for machines."""
    return {
        "ledger": report.ledger.as_dict(),
        "sheets": [
            {
                "sheet": s.title,
                "ledger": s.ledger.as_dict(),
                "note_rows": [{"row": n, "text": t} for n, t in s.note_rows],
            }
            for s in report.accounts
            if s.title
        ],
        "passed_over": [{"sheet": p.sheet.title, "reason": p.reason} for p in report.passed_over],
        "events": report.event_count,
        "repeats": {
            "events": report.spread.repeating,
            "dated": report.spread.dated,
            "by_rule": report.spread.by_rule,
            "rule_dates": report.spread.rule_dates,
        },
        "holidays": report.holiday_count,
        "duplicates": report.duplicate_count,
        "first_day": report.span[0] if report.span else None,
        "last_day": report.span[1] if report.span else None,
        "clashes": [as_json(one._asdict()) for one in report.clashes],
        "problems": as_json(report.problems),
        "notes": as_json(report.notes),
        "written": report.is_written,
        "files": [{"file": f.name, "events": f.event_count, "value": f.value} for f in report.files],
        "kept_files": report.kept_files,
        "changes": report.changes,
        **({"edited": report.settled} if report.settled else {}),
    }
