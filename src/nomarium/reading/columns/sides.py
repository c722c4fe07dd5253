"""Titles of fixtures: two columns of teams make one, `Home` and `Away`, and an opponent is one by itself."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.column import Column
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet

_PAIRS: Final = (
    ("home", "away"), ("home", "visitor"), ("home", "visitors"), ("hosts", "visitors"), ("team 1", "team 2"), ("team a", "team b"),
    ("player 1", "player 2"), ("side 1", "side 2"), ("crew 1", "crew 2"), ("heim", "gast"), ("heim", "auswarts"), ("domicile", "exterieur"),
    ("domicile", "visiteur"), ("equipe locale", "equipe visiteuse"), ("locaux", "visiteurs"), ("equipo local", "equipo visitante"), ("heimmannschaft", "gastmannschaft"), ("local", "visitante"), ("casa", "trasferta"), ("casa", "ospiti"), ("casa", "ospite"), ("thuis", "uit"),
    ("equipe a domicile", "equipe visiteuse"), ("recevant", "visiteur"), ("recevant", "visiteurs"), ("squadra casa", "squadra ospite"), ("squadra di casa", "squadra ospite"),
    ("casa", "visitante"), ("casa", "fora"), ("mandante", "visitante"), ("equipo local", "visitante"), ("locales", "visitantes"), ("hemma", "borta"), ("hemmalag", "bortalag"),
    ("hjemme", "ude"), ("hjemmehold", "udehold"), ("hjemme", "borte"), ("hjemmelag", "bortelag"), ("thuisploeg", "uitploeg"), ("thuisteam", "uitteam"),
    ("gospodarz", "gosc"), ("gospodarze", "goscie"), ("heimteam", "gastteam"), ("heimverein", "gastverein"), ("mannschaft 1", "mannschaft 2"), ("equipe 1", "equipe 2"),
    ("equipo 1", "equipo 2"), ("squadra 1", "squadra 2"), ("lag 1", "lag 2"),
)  # fmt: skip
"""Headings of two columns that hold one side each."""
_OPPONENTS: Final = frozenset(
    "opponent opponents opposition opposing versus vs v gegner adversaire adversaires rival rivales avversario avversari tegenstander".split()
)
_OURS: Final = frozenset(
    (
        "team",
        "our team",
        "squad",
        "side",
        "crew",
        "age group",
        "mannschaft",
        "equipe",
        "equipo",
        "squadra",
        "ploeg",
    )
)
"""Headings of the side that a school or a club sends."""
_WHOSE_GROUND: Final = frozenset(
    ("home/away", "h/a", "home or away", "h or a", "home / away", "away/home", "ha", "heim/auswarts")
)


_ELSE: Final = frozenset("local casa gast hosts visitors visiteurs ospiti goscie locales".split())
"""Headings of a side that mean a place or guests where no other side stands beside them."""


def with_free_sides(columns: list[Column]) -> list[Column]:
    """The columns, of which those of two sides are free for the title where one of their headings means something else by itself:
    `Local` beside `Visitante` is no room."""
    named = {_plain(c.heading): c for c in columns if c.filled and c.heading and c.how == "heading"}
    if _ELSE.isdisjoint(named):
        return columns
    headed = {_plain(c.heading) for c in columns if c.filled}
    sides = next((pair for pair in _PAIRS if headed.issuperset(pair)), ())
    free = {named[side].at for side in sides if side in _ELSE and side in named}
    return [c._replace(field="", how="") if c.at in free else c for c in columns]


def with_sides_as_title(
    sheet: Sheet, columns: Sequence[Column], options: ReadingOptions
) -> tuple[ReadingOptions, list[Problem]]:
    """The options with a title made of the columns of two sides, where no other column has the titles; and a note that says so."""
    titled = [column for column in columns if column.field == "summary"]
    found = None if options.title or "summary" in options.defaults else sides_title(columns)
    if found is None or any(column.how == "asked" for column in titled):
        return options, []
    template, of_sides = found
    own = next((c for c in titled if c.at not in of_sides and c.how == "heading" and not c.is_weak), None)
    if own is not None and (len(of_sides) < 2 or "(" in template or _says_sides(own, columns, of_sides)):
        return options, []
    if own is not None:
        template = f"{{{own.heading}}}: {template}"  # Cup: Kilnhead v Saltmarsh
    elif {column.at for column in titled} == of_sides:
        return options, []
    message = f"The title of each event is {template}."
    remedy = 'If it is not: --column "HEADING=summary", or another --title.'
    sides = tuple(c.heading for c in columns if c.at in of_sides and _plain(c.heading) not in _WHOSE_GROUND)
    return options._replace(title=template, sides=sides), [
        note("title-sides", message, remedy).at(sheet.place())
    ]


def _says_sides(own: Column, columns: Sequence[Column], of_sides: frozenset[int]) -> bool:
    """Whether the titles of a column have the names of the sides in them, `Kilnhead v Saltmarsh`."""
    said = " ".join(own.samples).casefold()
    return any(
        sample.casefold() in said
        for column in columns
        if column.at in of_sides
        for sample in column.samples
        if len(sample) > 2
    )


def sides_title(columns: Sequence[Column]) -> tuple[str, frozenset[int]] | None:
    """A template of the title from the columns of two teams or of an opponent, and where these stand; None without such."""
    free = {
        _plain(c.heading): c
        for c in columns
        if c.filled and c.heading and c.how != "asked" and c.field in ("", "summary", "class")
    }
    for first, second in _PAIRS:
        if first in free and second in free:
            sides = free[first], free[second]
            return f"{{{sides[0].heading}}} v {{{sides[1].heading}}}", frozenset(c.at for c in sides)
    opponent = next((free[word] for word in free if word in _OPPONENTS), None)
    if opponent is None:
        return None
    ground = next((free[word] for word in free if word in _WHOSE_GROUND), None)
    ours = next((free[word] for word in free if word in _OURS), None)
    template = (
        f"{{{ours.heading}}} v {{{opponent.heading}}}" if ours is not None else f"{{{opponent.heading}}}"
    )
    template += f" ({{{ground.heading}}})" if ground is not None else ""
    return template, frozenset(column.at for column in (ours, opponent, ground) if column is not None)


def _plain(heading: str) -> str:
    text = " ".join(re.sub(r"\s*/\s*", "/", fold(heading)).strip(' .:*†"“”').split())
    return re.sub(r"(?<=\w)(\d)$", r" \1", re.sub(r"\s+(?:team|side|club)$", "", text)).replace("  ", " ")
