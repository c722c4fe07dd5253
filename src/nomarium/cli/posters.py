"""Pictures of what `view` has found: one file, or one for each value of a split."""

import os
from pathlib import Path

from nomarium.cli.optionvalues import wrong
from nomarium.cli.render import say, say_notes
from nomarium.cli.seen import Seen
from nomarium.cli.viewoptions import Looking
from nomarium.model.problem import note
from nomarium.model.wording import counted
from nomarium.pictures.figures.drawing import MOST_STACKED, SIZES, draw
from nomarium.pictures.figures.metrics import Metrics
from nomarium.pictures.figures.paper import Paper
from nomarium.pictures.paging import pages_of
from nomarium.pictures.shown import Show
from nomarium.targets.replacing import replace_file
from nomarium.targets.splitting import distinct_names

os.environ["MPLBACKEND"] = "agg"  # nothing is shown, and a setting that makes no sense ends the import


def draw_posters(found: Seen, looking: Looking, path: Path) -> None:
    """Draw what was found into a file, or into a folder of one file a value."""
    metrics = Metrics()
    if not looking.split:
        papers = papers_of(found.show, found, looking, metrics)
        put(papers, looking, path)
        say(f"Wrote {_sheets(papers, looking)} with {counted(len(found.show.events), 'event')} to {path}")
    else:
        path.mkdir(parents=True, exist_ok=True)
        names = distinct_names([value for value, _ in found.parts], f".{looking.form}")
        for value, show in found.parts:
            papers = papers_of(show._replace(heading=f"{show.heading} – {value}"), found, looking, metrics)
            put(papers, looking, path / names[value])
            say(f"  {len(show.events):>7,}  {names[value]}  ({value})")
        say(f"Wrote {counted(len(found.parts), 'picture')} into {path}")
    if metrics.missing:
        letters = " ".join(sorted(metrics.missing)[:20])
        message = f"No font on this machine has {letters}: {'they are' if len(metrics.missing) > 1 else 'it is'} drawn as a box."
        say_notes([note("letters-missing", message, "Install a font that has them.")])


def _sheets(papers: list[Paper], looking: Looking) -> str:
    what = "agenda" if looking.kind == "agenda" else looking.kind
    return f"a picture of the {what}" if len(papers) == 1 else f"{len(papers)} sheets of the {what}"


def put(papers: list[Paper], looking: Looking, path: Path) -> None:
    """Draw sheets into a file."""
    if looking.form != "pdf" and len(papers) > MOST_STACKED:
        raise wrong(
            f"This would be {len(papers)} sheets below one another, and a picture holds {MOST_STACKED}.",
            "Write a .pdf, which has a page for each; or fewer dates: --from, --until.",
        )
    replace_file(path, lambda file: draw(papers, looking.form, looking.paper, file))


def papers_of(show: Show, found: Seen, looking: Looking, metrics: Metrics) -> list[Paper]:
    """The sheets of what is shown."""
    from nomarium.pictures.figures.agenda import agenda
    from nomarium.pictures.figures.month import month
    from nomarium.pictures.figures.week import week
    from nomarium.pictures.figures.year import year

    size = SIZES[looking.paper if looking.form == "pdf" else "screen"]
    papers = list[Paper]()
    for page in pages_of(looking.kind, show.first, show.last, found.names, found.weekdays):
        part = show.within(page.first, page.last)
        if looking.kind == "agenda":
            papers += agenda(part, found.names, page.heading, size, metrics)
        elif looking.kind == "year":
            papers.append(year(part, found.names, page.heading, size, metrics))
        elif looking.kind == "month":
            begin = page.first.replace(day=1)
            papers.append(month(part, found.names, page.heading, begin, found.weekdays, size, metrics))
        else:
            papers.append(week(part, found.names, page.heading, page.days, looking.hours, size, metrics))
    return papers
