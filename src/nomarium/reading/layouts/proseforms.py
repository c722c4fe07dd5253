"""The forms in which a sentence names what is held and when: its subject, an invitation, a deadline, or its title before or behind
its date. In all of them `\0` stands for the date."""

import re
from typing import Final

_DONE_WORDS: Final = (
    "taken|sent (?:home|out)|handed (?:in|out|back)|given out|collected|delivered|distributed|unveiled|judged|played|"
    "crowned|awarded|auctioned|served|inspected|measured|interviewed|photographed|vaccinated|screened|weighed|tested|installed|dedicated|blessed|planted"
)
"""What is done on a day with something, and is no state that it is in."""
_HELD: Final = (
    rf"(?:(?:will|(?:are|is) to) be (?:{_DONE_WORDS})|"
    r"will (?:again |also |now )?(?:be held|take place|be(?!\s+(?!hosted|staged|attended|followed|presented|organi[sz]ed|opened|performed|celebrated|launched|marked)\w{2,}ed\b|\s+(?:sent|told|paid|sold|chosen|drawn|known)\b)|happen|begin|start|open|run|meet|return)|(?:is|are) (?:to be )?held|takes? place|"
    r"(?:is|are)(?=[\s,]+(?:(?:on|from|at|in)\b|\0))|will(?=\s+\d{1,2}(?:[:.]\d\d)?\s?(?:[ap]\.?m\.?)?\s?[–—-])|begins|starts|opens|re-?opens|resumes|(?<=term )ends|(?<=school )(?:ends|closes|finishes)|returns|meets|runs|leaves|departs|arrives|(?<=\ws )(?:begin|start|open|return|meet|run)|(?<=\w )opens?(?=\s+(?:on\s+)?\0)|(?<=,\s)(?:which (?:is|will be) (?:held|on)|to be held|to take place|taking place|held)|(?:has|have) (?:now )?been (?:moved|changed|re-?scheduled|postponed|brought forward) (?:to|until)(?=\s*\0)|"
    r"(?:is|are|has been|have been) (?:planned|scheduled|set|arranged|organi[sz]ed|booked|confirmed|fixed)(?: to take place| to be held)?(?: for)?)"
)
SUBJECT: Final = re.compile(
    rf"(?i)^(?P<title>(?:(?!\b(?:that|which|who|if|when|because|although)\b)[^.:;?!]){{3,80}}?)[,\s]+{_HELD}\b(?P<rest>.*)$"
)
LABELLED: Final = re.compile(
    rf"(?i)^([^.:;?!]{{3,60}}?)(?::|\s[–—-])\s+(?:(?:it|this|they|these)\s+)?(?={_HELD}\b)".replace(
        r"|\0", ""
    )
)
"""A label that is the subject of what stands behind it: `Regatta: it will be held on`."""
INVITED: Final = re.compile(
    r"(?i)^(?:please )?(?:(?:do )?(?:join us|come along|come)(?: for| to| at)?|(?:you|all|everyone|everybody|(?:all )?(?:parents|families|students|pupils|members|staff|visitors|friends|neighbours)(?: (?:and|&) \w+)?) (?:are|is) (?:all )?(?:very |most |warmly |cordially )*(?:invited|welcome)(?: to(?: attend| join us (?:at|for)| come to)?| at| for)|"
    r"we (?:warmly )?invite (?:you|all \w+|everyone) to|we(?: would|['’]d) (?:like|love) to invite (?:you|everyone|all \w+)(?: and \w+)? to|(?:please )?mark your (?:calendars?|diar(?:y|ies))(?: for)?|"
    r"(?:more )?(?:volunteers|helpers) (?:are |still |urgently )*(?:needed|wanted|required) (?:for|at)|(?:it (?:was|is|has been)|(?:the |our )?[\w ]{3,30}? (?:has|have)) (?:decided|agreed|voted|resolved) to (?:hold|host|have|run|organi[sz]e)|"
    r"we(?: are|['’]re)? (?:very )?(?:pleased|delighted|happy|proud|glad) to (?:invite you to|announce|host)|(?:do not|don['’]t) (?:miss|forget(?: about)?(?= (?:the|our|this)\b))|(?:we )?hope (?:that )?(?:to see you(?: all)?|you (?:can|will) (?:join us|come)) (?:at|for|to)|(?:we(?:['’]ll| will)? )?see you(?: all)? at|"
    r"we(?: are|['’]re)(?: also)? (?:holding|having|hosting|running)|we(?: will|['’]ll) (?:hold|have|be holding|host|be hosting)|we (?:hold|host)|we (?:very much |really )?look forward to(?: (?:seeing|welcoming|meeting) (?:you|everyone|everybody)(?: all)? (?:at|to))?|"
    r"there(?: will be|['’]ll be| is)|save the date for|tickets? (?:for|to)(?=[^\0]{3,80}(?<!on sale)(?<!on sale on)[,\s]\0))\s+(?P<title>[^.:;?!]{3,80}?)"
    r"(?=[,\s]+(?:on|from|at|in|this|next|which)\b|[,\s]+\0)(?P<rest>.*)$"
)
NAMED: Final = re.compile(
    r"(?i)^(?:(?P<before>[^.:;?!\0]{3,80}?)(?:\s+on)?\s*\0|\0\s*(?P<behind>[^.:;?!\0]{3,80}?)(?=\s*(?:[,(]|\b(?:in|at|from)\s|$)))(?P<rest>[^\0]*)$"
)
"""A title and a date with no verb between, but for the sign that parts them: `Careers talk: 16 July, 7pm, Slip 2`, `12 June: summer
fair in the sail loft`."""
DUE: Final = re.compile(
    r"(?i)^(?:the )?(?:deadline|closing date|last day) for (?P<title>[^.:;?!]{3,80}?) (?:is|will be)\b(?P<rest>.*)$|"
    r"^(?:please )?(?:return|send(?: in| back)?|submit|hand in|confirm|complete|fill in|renew|bring(?: in| back)?|pay|order|book|reply to) (?P<asked>[^.:;?!]{3,80}?)\s+(?:by|before|no later than)\b(?P<until>.*)$|"
    r"^(?P<thing>[^.:;?!]{3,80}?) (?:must|should|need to|have to|has to|are to|is to) be (?:returned|sent|submitted|handed in|paid|in|made|received|ordered|back|booked|completed|confirmed|signed|collected)"
    r"(?: \w+){0,3}? (?:by|before|no later than)\b(?P<last>.*)$|"
    r"^(?P<reaching>[^.:;?!]{3,80}?) (?:must|should|need to|have to|has to|are to|is to) reach [^.:;?!]{2,60}?(?:by|before|no later than)\b(?P<reached>.*)$|"
    r"^(?P<owed>[^.:;?!]{3,80}?) (?:(?:is|are|falls?) due|(?:is|are) payable)(?: in| back| to be (?:paid|returned|in))?(?: (?:by|on|before|no later than)\b|(?=\s*\0))(?P<end>.*)$|"
    r"^(?P<task>(?-i:[A-Z]{2,3}|(?:[A-Z][a-z]*\.? ?){1,3}) to (?!be\b)[a-z]{2,} [^.:;?!]{3,60}?)\s+(?:by|before|no later than)\b(?P<done>.*)$|"
    r"^(?P<open>[^.:;?!]{0,60}?\b(?:bookings?|registrations?|enrol\w+|entr(?:y|ies)|applications?|nominations?|(?:ticket )?sales?|voting|polls?|sign-?ups?)) (?:will )?(?:closes?|ends?)\b(?P<close>.*)$|"
    r"^(?:please )?(?P<act>(?:sign[- ]up|register|apply|rsvp|reply|respond|enroll?|book)(?: (?:for|to) [^.:;?!]{3,60}?)?) (?:by|before|no later than)\b(?P<since>.*)$"
)
CLOSED: Final = re.compile(
    r"(?i)^(?P<what>(?:the |our )?(?:[\w'’-]+ ){0,3}?(?:schools?|office|library|yard|building|centre|center|canteen|shop|pool|gym|museum|workshop|site|reception|nursery|department|[\w'’]+room)) "
    r"(?:will (?:also |therefore |again |then )?be|is|are) (?:also )?(?:closed|shut)(?P<why> (?:for|because of|due to) [^\0.:;?!]{3,60}?)?,?(?: on| from| for)?\s*\0\s*(?P<for>(?:for|because of|due to|as) [^\0.:;?!]{3,60})?$"
)
"""What is closed on its days, and why."""
HERALD: Final = r"(?:please )?(?:save|note) the dates?|dates? for (?:the|your) diar(?:y|ies)|diary dates?"
"""What stands before a date and says that it comes."""
LEAD_IN: Final = (
    r"(?i)^(?:dear all[,:]?\s+)?(?:notice is (?:hereby )?given|(?:I am|I['’]m|we are|we['’]re|I|we) (?:just )?(?:writing|write|pleased|delighted|happy) to (?:let you know|inform you|tell you|remind you|announce|confirm|say)|"
    r"(?:this is )?(?:just )?(?:a (?:quick )?reminder|to (?:let you know|remind you))|please (?:note|remember|be aware)|(?:just )?a (?:quick )?note to say|as you (?:may )?know|don['’]t forget)(?: that|,)\s+|"
    rf"^(?:(?:a |just a )?(?:final|gentle|quick|friendly|last)?\s*reminder|important|{HERALD}|coming up|news|update|advance notice)\s*[:!–—-]\s*"
)
"""Words before what a letter says."""
ENDS: Final = re.compile(
    r"(?i)(?:\s*,)?\s+(?:(?:and|et)\s+)?(?:will\s+)?(?:ends?|se termine(?:nt|ra|ront)?|finit|finira|ending|finish(?:es|ing)?|conclud(?:es?|ing)|clos(?:es?|ing)|until|till)\s+(?:(?:at|à)\s+)?"
    r"(?P<end>\d{1,2}(?:[.:]\d\d)?(?:\s*[ap]\.?m\b\.?)?(?!\d|\s*(?:[/-]|[^\W\d]{3}))|noon|midday|midnight)"
)
"""The time at which something ends, said for itself: `and ends at 3pm`."""
DONE: Final = re.compile(rf"(?i)[,\s]+(?:will be|are to be|is to be)\s+(?P<done>{_DONE_WORDS})\b")
"""What is done on a day with what a sentence is about: of the title, `Photos taken`."""
OPEN_HOURS: Final = re.compile(
    r"(?i)\b(?:(?:is|are|will be|stays?|remains?)\s+(?:also\s+|now\s+)?open|open(?:ing)?\s+(?:hours|times))\b.*(?:\b(?:mon|tue|wed|thu|fri|sat|sun)\w*\s*(?:[–—-]|to|until|and|&)\s*(?:mon|tue|wed|thu|fri|sat|sun)|"
    r"\b(?:weekdays|daily|every day|each day|seven days|all week)\b)"
)
"""When something is open day by day, which is no event."""
