"""Headings that ask, as the answers to a form have them: “What is the event called?”."""

import re
from collections.abc import Iterator
from typing import Final

_IT: Final = r"(?:it|this|(?:(?:the|your|this|our) )?(?:event|activity|meeting|session|class|lesson|course|workshop|talk|trip|visit|booking)s?)"
_HELD: Final = r"(?: (?:be|be held|held|take place|taking place|happen|happening|be happening))?"
_BEGIN: Final = r"(?:to )?(?:start|begin|starting|beginning|open)"
_FINISH: Final = r"(?:to )?(?:end|finish|stop|ending|finishing|be over|close)"
_AUXILIARY: Final = r"(?:is|will|does|do|are)"
_ASKED: Final = (
    (rf"(?:what|which)(?:s| is) (?:the )?(?:name|title) of {_IT}|(?:name|title) of {_IT}", "event"),
    (rf"(?:what|which)(?:s| is) {_IT}(?: called| named| about)?|what will {_IT} be called", "event"),
    (rf"what are you (?:planning|organi[sz]ing|booking|holding|arranging)|(?:what|which) {_IT} is (?:it|this)|which {_IT}", "event"),
    (rf"(?:at |from )?what time {_AUXILIARY} {_IT} {_BEGIN}|when {_AUXILIARY} {_IT} {_BEGIN}", "start"),
    (r"(?:starts|begins) (?:at )?(?:what time|when)|from (?:what time|when)", "start"),
    (rf"(?:at |until )?what time {_AUXILIARY} {_IT} {_FINISH}|when {_AUXILIARY} {_IT} {_FINISH}", "end"),
    (r"(?:ends|finishes) (?:at )?(?:what time|when)|(?:until|till|to) (?:what time|when)", "end"),
    (rf"(?:on )?(?:what|which) (?:date|day)(?: {_AUXILIARY} {_IT}{_HELD})?", "date"),
    (rf"when {_AUXILIARY} {_IT}{_HELD}", "when"),
    (rf"where {_AUXILIARY} {_IT}{_HELD}|where (?:do|will) we meet", "location"),
    (rf"how long (?:is {_IT}|(?:will|does|do) {_IT} (?:be|last|take|run))", "duration"),
    (rf"who is {_IT} for|for whom is {_IT}", "audience"),
    (rf"who is (?:organi[sz]ing|running|leading|hosting|in charge of) {_IT}", "organizer"),
)  # fmt: skip
"""What is asked → a heading that says the same."""
_THING: Final = rf"(?:what(?:s| is) the|which|in (?:what|which)|what) (?P<thing>(?!(?:is|are|will|does|do)\b).+?)(?: (?:of|for) {_IT})?(?: (?:is|will|does) {_IT}{_HELD}(?: in)?)?"
_PLEASE: Final = r"please (?:give|enter|write|state|tell|say|choose|select|add)(?: us)? "


def answered(asked: str) -> Iterator[str]:
    """The headings that would say what a question asks, in the form in which headings are compared.

    >>> [*answered("what is the event called")], [*answered("what is the location of the event")], [*answered("what is your name")]
    (['event'], ['location'], [])
    """
    plain = re.sub(_PLEASE, "", asked)
    if plain != asked:
        yield plain.removeprefix("the ")
    for pattern, heading in _ASKED:
        if re.fullmatch(pattern, plain.removeprefix("the ")):
            yield heading
            return
    thing = re.fullmatch(_THING, plain)
    if thing is not None:
        yield thing["thing"]
