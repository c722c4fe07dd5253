"""Whether a column speaks of when its rows are held, by the words of its heading and of its cells."""

import re
from typing import Final

from nomarium.reading.cells.times import SURE_CLOCK
from nomarium.reading.cells.words import LIKELY_LANGUAGES, fold, lexicon_of
from nomarium.reading.columns.contents import HOURS_TO_HOURS, MOST_DIFFERENT, Contents
from nomarium.reading.columns.headings import match_exactly, match_heading, normal
from nomarium.sheets.sheet import cell_text

_OFTEN: Final = frozenset(
    "days weekday weekdays week weeks wk wks weekly fortnight fortnights fortnightly months monthly daily yearly annually termly termtime "
    "nights times timings hours hrs until till repeat repeats repeating repeated recurs recurring recurrence frequency every alternate "
    "alternating except excluding excludes skip skips skipping skipped held occurs occurrences running runs cancelled canceled postponed "
    "rescheduled confirmed jours semaine semaines hebdomadaire mensuel quotidien chaque jusqu sauf horaire heures "
    "tage woche wochen monate wochentlich monatlich taglich jeden jede jeder ausser uhrzeit stunden "
    "dias semana semanas meses semanal mensual diario cada hasta excepto horas "
    "dagen weken maanden wekelijks maandelijks dagelijks elke behalve uren "
    "settimana settimane settimanale mensile giornaliero ogni eccetto ripetizione ripete "
    "uge uger ugentlig hver gentages vecka veckor varje uke uker ukentlig hver tydzien tygodni co kazdy powtarza viikko joka tyden tydny kazdy "
    "semanalmente mensalmente cada todas todos "
    "entfallt ausfall ausgefallen annule supprime anulado suspendido vervalt aflyst avlyst odwolane odwolany peruttu doorgaan door maintenu".split()
)
"""Words that say when even as a whole heading, folded."""
_WHEN: Final = _OFTEN | frozenset(
    "date dates day month weekend weekends night time timing hour hr start starts begin begins ending ends finish finishes each halfterm "
    "break breaks shift shifts early late am pm ahead happening provisional deadline due min mins minutes "
    "morning mornings afternoon afternoons evening evenings jour mois heure tag monat termine dia mes dag maand "
    "minuten minuti minutos minuter minuty giorni dagar dage dni timmar godziny ore ganztags heldag durata duree dauer duracion duracao duur langd".split()
)
"""Words that do so beside others, and in short cells: `Evening` alone heads titles too."""
_SAID: Final = _WHEN | frozenset(
    "term terms holiday holidays vacation vacations vacances ferien vacaciones vakantie".split()
)
"""Words of short cells; as headings they head names."""
_BESIDE_WHEN: Final = frozenset(
    "no not number of the on in is only from to for nr which what anzahl nombre nb numero de di d aantal antal liczba".split()
)
"""Words that may stand beside them in a heading that is about nothing else."""
_ENDS: Final = frozenset(
    "last final end ends ending until till finish finishes finishing fin dernier derniere ende letzter letzte ultimo fim einde laatste".split()
)
_PLANNED: Final = frozenset(
    "target planned expected actual estimated est scheduled projected anticipated proposed likely".split()
)
"""Words that say how sure a day is."""
_STEPS: Final = frozenset("paid sent notified invoiced approved submitted requested received".split())
_OF_BEGINNING: Final = frozenset(
    "first start starts starting begin begins beginning from commences commencing valid effective debut erster beginn inicio inizio".split()
)
_BEGINS: Final = frozenset(
    f"{begins}{behind}"
    for begins in (
        "starts", "begins", "commences", "commencing", "starting", "first day", "first date", "first session", "first class",
        "first lesson", "first meeting", "first week", "first rehearsal", "first practice",
    )
    for behind in ("", " on", " from")
)  # fmt: skip
_OCCASIONS: Final = frozenset(
    "class classes lesson lessons session sessions meeting meetings rehearsal rehearsals practice practices visit visits "
    "interval intervals intervalle intervall intervalo occasion occasions occurrence holiday holidays term terms vacances ferien seances cours lecons stunden einheiten sesiones clases lessen".split()
)
"""What a heading counts, or leaves out, where rows repeat."""
_OF_OTHERS: Final = frozenset(
    "rate rates rent fee fees cost costs cash money total price prices pay paid charge charges budget hire ticket tickets credit credits code ref id phone "
    "tel telephone mobile email leader lead staff notes note by size type pupils students people places capacity max min maximum minimum age ages "
    "year years kit food menu lunch book books page pages chapter weight height grade mark marks version seed speed temp depth target score points distance km miles prix tarif preis precio prijs "
    "enrolled enrollment enrolment booked booking bookings signups signup ups attendance attended seats spots spaces waitlist filled taken registered "
    "# no nr num number numbers serial index rank position pos lot section numero nummer rang platz".split()
)
"""Words of a heading by which it is about something else than when."""
_SCORES: Final = frozenset("result results score scores ergebnis resultat endstand tore final".split())
"""Headings of how it ended, `28:24`."""
_DATE_PARTS: Final = frozenset(
    "month day year mois jour annee monat tag jahr mes dia ano maand dag jaar".split()
)
"""Headings of columns that repeat a part of the date beside them."""
_OF_NATURE: Final = (
    r"\b(?:sun ?rise|sun ?set|dawn|dusk|moon ?rise|moon ?set|(?:high|low) (?:water|tide)|tides?|[hl]w ?\d?)\b"
)
"""Headings of times that nobody sets."""
_HOURS: Final = rf"{HOURS_TO_HOURS}|(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?"
_LONGEST_SAID: Final = 40
"""Longer cells are remarks."""
_RECORD_WORDS = frozenset(
    "birth dob born naissance geburtsdatum geburtstag nacimiento geboortedatum created modified updated "
    "changed submitted printed exported hired joined paid invoice invoiced timestamp horodateur horodatage zeitstempel tijdstempel "
    "stand erstellt geandert eingetragen angelegt bearbeitet aktualisiert gespeichert verschickt versandt gesendet bezahlt gekauft gedruckt "
    "cree creee creation modifie modifiee modification saisi saisie envoye envoyee maj imprime paye creado creada creacion modificado modificada "
    "modificacion enviado enviada actualizado actualizacion pagado creato creata creazione modificato modifica inviato aggiornato aggiornamento "
    "nascita pagato aangemaakt gewijzigd verzonden bijgewerkt ingevoerd betaald criado criada criacao atualizado atualizacao nascimento skapad "
    "skapat andrad andrat uppdaterad skickad fodelsedatum fodelsedag oprettet opprettet endret aendret opdateret oppdatert utworzono utworzenia "
    "zmieniono zmiany zmodyfikowano urodzenia urodziny geboren rechnung facture factura fattura factuur faktura compleanno verjaardag cumpleanos "
    "added entered edited received logged recorded requested approved registered sent notified bought purchased acquired".split()
)
_LAST_DONE: Final = (
    r"(?:last|previous|prev|date|when) (?:date )?(?:done|serviced|checked|inspected|tested|cleaned|completed|reviewed|visited|contacted|seen|replaced|renewed|audited|calibrated|maintained|"
    r"visit|service|inspection|check(?:[ -]?up)?|review|audit|appointment|test|calibration|contact|backup|maintenance|dose|vaccination)(?: (?:date|on))?"
)
"""Headings of when something was done before the day that its row is about."""


def speaks_of_when(heading: str, about: Contents, repeats: bool) -> bool:
    """Whether a column speaks of when by its heading, `heading_says_when`, or by its cells."""
    return heading_says_when(heading, about, repeats) or (
        not _is_of_others(heading) and _share_of_when(about) >= 0.5
    )


def names_weekdays(heading: str, about: Contents) -> bool:
    """Whether a column is headed as a part of the date, and half of its cells have a weekday among their words."""
    if not set(normal(heading).split()) <= _DATE_PARTS:
        return False
    texts = [fold(cell_text(cell)) for cell in about.different[:MOST_DIFFERENT] if isinstance(cell, str)]
    words = [re.split(r"[^\w]+", text) for text in texts]
    least = max(1, len(about.different[:MOST_DIFFERENT]) / 2)
    if sum(any(map(about.is_weekday_word, one)) for one in words) >= least:
        return True
    # one that is misspelt may leave the language of the others unknown
    likely = (lexicon_of(code) for code in LIKELY_LANGUAGES)
    return any(
        sum(not names.weekdays.keys().isdisjoint(one) for one in words) >= least for names in likely if names
    )


def heading_says_when(heading: str, about: Contents, repeats: bool, share: float = 0.5) -> bool:
    """Whether a heading is about nothing but when, or has a word of it over cells that can say it: such words, numbers,
    answers, in this share of them. Where rows repeat, a heading also is that counts occasions or leaves them out,
    `No. classes`."""
    words = set(normal(heading).split())
    if _is_of_others(heading):
        return False
    if words & _OFTEN and words <= _WHEN | _BESIDE_WHEN:
        return True
    has_word = bool(words & _WHEN or (repeats and words & _OCCASIONS))
    return has_word and _share_of_when(about) + about.numbers + about.answers >= share


def _is_of_others(heading: str) -> bool:
    """Whether a heading is about something else, or repeats a part of the date."""
    words = set(normal(heading).split())
    return bool((words and words <= _DATE_PARTS) or words & _OF_OTHERS or is_of_record(heading))


def are_of_others(heading: str, about: Contents) -> bool:
    """Whether a heading says nothing of when and is about something else, whose figures look like times: `Price` over `12.30`."""
    words = set(normal(heading).split()) or {heading.strip()} - {""}
    if not words & _WHEN and words & _SCORES:
        return True
    if words & _WHEN or not words & _OF_OTHERS:
        return False
    return not any(not isinstance(cell, str) or re.search(SURE_CLOCK, cell) for cell in about.different)


def are_measures(heading: str, about: Contents, has_day: bool) -> bool:
    """Whether figures with a point, `5.1`, are no dates: under a heading that is about something else; or, where another column
    says the day, under any but one of when."""
    texts = [cell_text(cell) for cell in about.different]
    if not all(re.fullmatch(r"\d{1,3}[.,]\d{1,2}", text) for text in texts):
        return False
    return are_of_others(heading, about) or (has_day and not set(normal(heading).split()) & _WHEN)


_ON_AND_OFF = r"(?i)\b\d{1,2}\s*(?:days?\s*)?on\b[\s,/&-]*\d{1,2}\s*(?:days?\s*)?off\b"
"""Shifts that come back, `4 on 4 off`."""
_NAME = r"(?:[A-Z][a-z]+|[A-Z]\.?)(?: (?:[A-Z][a-z'’-]+|[A-Z]\.?))+"

_TITLED_NAME = r"(?:Fr|Sr)\.? (?:[A-Z][a-z]+|[A-Z]\.)"
"""A name whose title is a weekday's too, `Fr Pine`."""


def _share_of_when(about: Contents) -> float:
    """The share of cells that are short and have a word of when in them."""
    sample = about.different[:MOST_DIFFERENT]
    said = 0
    for cell in sample:
        text = cell_text(cell)
        if isinstance(cell, str) and len(text) <= _LONGEST_SAID:
            words = set(normal(text).split())
            is_name = len(words) > 1 and re.fullmatch(_NAME, text.strip()) is not None  # April Osei
            said += (
                not words.isdisjoint(_SAID)
                or re.search(_ON_AND_OFF, text) is not None
                or any(
                    (word in about.lexicon.weekdays and not re.match(_TITLED_NAME, text))
                    or (len(word) > 2 and word in about.lexicon.months and not is_name)
                    for word in words
                )
            )
    return said / len(sample) if sample else 0.0


_BEFORE_START = r"(?:(?:crew|cast|company|staff|team|performers?|band|player|volunteers?) )?(?:call|meet(?:ing)?|muster|doors?|gates?|warm ?up|set ?up|registration|sign in|assemble|briefing|get in|load in|access|arrive by)(?: (?:times?|at|opens?|from))*"


def says_begin(heading: str) -> bool:
    """Whether a heading names the day on which something begins that goes on."""
    return heading.strip().casefold() in _BEGINS


def speaks_of_begin(heading: str) -> bool:
    """Whether a heading that no list knows has a word of beginning in it."""
    return not _OF_BEGINNING.isdisjoint(normal(heading).split())


def says_end(heading: str) -> bool:
    """Whether a heading names the day on which something ends that has gone on."""
    return not _ENDS.isdisjoint(normal(heading).split())


def is_planned_end(heading: str) -> bool:
    """Whether a heading names the last day of what it stands beside and nothing else, `Target end`."""
    words = set(normal(heading).split())
    return (
        bool(words & _ENDS) and bool(words & _PLANNED) and words <= _ENDS | _PLANNED | {"date", "day", "on"}
    )


def is_of_record(heading: str) -> bool:
    """Whether a heading names a date that is no event's: of birth, of the last change."""
    bare = normal(heading)
    is_done = (
        bare.startswith(("last ", "prev", "date ", "when ")) and re.fullmatch(_LAST_DONE, bare) is not None
    )
    return is_done or not _RECORD_WORDS.isdisjoint(bare.split())


def is_record_date(heading: str) -> bool:
    """The same of a column of dates: one until when something is to be done, `Hours submitted by`, is a deadline."""
    return is_of_record(heading) and normal(heading).split()[-1] != "by"


def is_step(heading: str) -> bool:
    """Whether a heading names what is kept on record, and is planned where deadlines stand beside it: `Paid on`."""
    return not _STEPS.isdisjoint(normal(heading).split())


def is_before_start(heading: str) -> bool:
    """Whether a heading is that of when people come, before it begins: `Call`, `Doors`."""
    return re.fullmatch(_BEFORE_START, normal(heading)) is not None


def are_hours_unheaded(heading: str, about: Contents) -> bool:
    """Whether all cells under a heading that is not known are hours, some with minutes and some from one to another."""
    texts = [cell_text(cell) for cell in about.different]
    return (
        match_heading(heading) is None
        and len(texts) > 1
        and all(re.fullmatch(_HOURS, text) for text in texts)
        and any(re.search(r"\d[.:]\d\d", text) for text in texts)
        and any(re.fullmatch(HOURS_TO_HOURS, text) for text in texts)
    )


def is_of_nature(heading: str) -> bool:
    """Whether a heading is that of tides, of the sun or of the moon: their times are no times of events."""
    return re.search(_OF_NATURE, normal(heading)) is not None


_BY_THE_CLOCK = frozenset(
    "clock in out on off arrive arrives arrived arrival depart departs departed departure leave leaves leaving back meet meets return returns "
    "returning opens closes shift".split()
)
"""Words of headings over figures of a clock, `Clock in` over `0855`, `Bus leaves` over `8.15`."""


def heads_clock(heading: str) -> bool:
    """Whether a word of the heading is one that heads a time: `Clinic time`."""
    matches = map(match_exactly, heading.split())
    if any(match is not None and match.field == "time" for match in matches):
        return True
    return not _BY_THE_CLOCK.isdisjoint(normal(heading).split())
