"""Months of other languages that stand behind a number among words, `Höstlov 26 oktober – 6 november`."""

from collections.abc import Sequence
from typing import Final

from nomarium.reading.cells.words import LIKELY_LANGUAGES, Lexicon, fold, lexicon_of

OTHER_MONTHS: Final = frozenset(
    "abril agosto aout aprile augusti augustus avril brezen brezna cerven cervence cervenec cervna czerwca czerwiec decembre desember "
    "dezember dezembro dicembre diciembre duben dubna elokuu elokuuta enero febbraio feber februar februari fevereiro fevrier gennaio giugno "
    "grudnia grudzien heinakuu heinakuuta helmikuu helmikuuta huhtikuu huhtikuuta janeiro janner januar januari janvier joulukuu joulukuuta "
    "juillet juin julho juli julio junho juni junio kesakuu kesakuuta kveten kvetna kwiecien kwietnia leden ledna lipca lipiec listopad "
    "listopada listopadu lokakuu lokakuuta luglio lutego luty maaliskuu maaliskuuta maart maerz maggio maio marca marco marraskuu marraskuuta "
    "mars marts marz marzec marzo mayo novembre novembro noviembre octobre octubre oktober ottobre outubro pazdziernik pazdziernika prosince "
    "prosinec rijen rijna septembre septiembre setembro setiembre settembre sierpien sierpnia srpen srpna styczen stycznia syyskuu syyskuuta "
    "tammikuu tammikuuta toukokuu toukokuuta unor unora wrzesien wrzesnia zari abr avr dez dic fev okt ott mrt mrz janv juil sept sett".split()
)
"""Names (folded) of months in the likely languages that are none in English and seldom another word there."""
_BETWEEN: Final = frozenset(("de", "des", "di"))
_BEHIND_NUMBERS: Final = ".,;:)ºª°er"
_EDGES: Final = ".,;:()–—-"


def with_months_of(words: Sequence[str], lexicon: Lexicon) -> Lexicon:
    """The names by which words are read: those of the language, too, that knows the months behind numbers of which `lexicon` does not
    know them all. In `4 Mars bars 26 October` it is none."""
    bare = [fold(word.strip(_EDGES)) for word in words]
    if OTHER_MONTHS.isdisjoint(bare):
        return lexicon
    months = {
        word
        for n, word in enumerate(bare)
        if (word in OTHER_MONTHS or word in lexicon.months) and _has_number_before(words, n)
    }
    if months <= lexicon.months.keys():
        return lexicon
    for code in LIKELY_LANGUAGES:
        names = lexicon_of(code)
        if names is not None and months <= names.months.keys():
            return lexicon.extended(names)
    return lexicon


def _has_number_before(words: Sequence[str], at: int) -> bool:
    before = at - 1 - (at > 1 and words[at - 1].casefold() in _BETWEEN)
    return before >= 0 and words[before].rstrip(_BEHIND_NUMBERS)[-1:].isdigit()
