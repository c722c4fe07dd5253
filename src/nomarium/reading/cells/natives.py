"""Dates and times as they are written in other scripts, made into forms that the readers of cells know.

Only texts that are not ASCII come here; what has no such form is left as it is.
"""

import re

from nomarium.model.wording import MONTHS

_WEEKDAYS = {
    "一": "Mon", "二": "Tue", "三": "Wed", "四": "Thu", "五": "Fri", "六": "Sat", "日": "Sun", "天": "Sun",
    "月": "Mon", "火": "Tue", "水": "Wed", "木": "Thu", "金": "Fri", "土": "Sat",
    "월": "Mon", "화": "Tue", "수": "Wed", "목": "Thu", "금": "Fri", "토": "Sat", "일": "Sun",
}  # fmt: skip
_EAST_ASIAN = (
    r"(?:(?P<year>\d{4})\s?[年년]\s?)?(?P<month>\d{1,2})\s?[月월]\s?(?P<day>\d{1,2})\s?[日号號일]"
    r"(?:[\s,]*\(?(?:星期|礼拜|禮拜|週|周)?(?P<weekday>[一二三四五六日天月火水木金土월화수목금토일])(?:曜日?|요일)?\)?(?![\w]))?"
)
_EAST_ASIAN_SPAN = (
    r"(?P<month>(?:\d{4}\s?[年년]\s?)?\d{1,2}\s?[月월]\s?)(?P<first>\d{1,2}\s?[日号號일]?(?:\s?\(.\))?)\s?(?:[〜～~–—-]|から|至|到|부터)\s?"
    r"(?P<last>\d{1,2}\s?[日号號일](?:\s?\(.\))?)(?:まで|까지)?"
)
"""From one day to another of the same month, `9月14日〜18日`."""
_VIETNAMESE = r"(?i)(?:ngày\s+)?(?P<day>\d{1,2})\s+tháng\s+(?P<month>\d{1,2})(?:,?\s+năm\s+(?P<year>\d{4}))?"
_VIETNAMESE_DAYS = r"(?i)(?:thứ\s+)?(hai|ba|tư|năm|sáu|bảy|chủ nhật)(?=[\s,]+\d)"
_DAYS_BY_NUMBER = {
    "hai": "Mon",
    "ba": "Tue",
    "tư": "Wed",
    "năm": "Thu",
    "sáu": "Fri",
    "bảy": "Sat",
    "chủ nhật": "Sun",
}
_FORENOON = r"(?:上午|午前|오전|早上|清晨|凌晨)\s?"
_AFTERNOON = r"(?:下午|午後|오후|晚上|傍晚|夜)\s?"
_CLOCK = r"(?P<hour>\d{1,2})\s?[時时點点시]\s?(?:(?P<minute>\d{1,2})\s?[分분]|(?P<half>半|반))?"
_BEHIND = r"(?<=\d)\s?(?:(?P<am>π\.?\s?μ\.?|ص(?!\w)|ق\.?ظ\.?)|(?P<pm>μ\.?\s?μ\.?|م(?!\w)|ب\.?ظ\.?)|น\.)"
"""Words for the halves of the day that stand behind a time in Greek, Arabic and Persian; Thai has one for the hour."""
_HEBREW_IN = r"(?<![א-ת])ב(?=[א-ת]{3})"
_THAI_ERA = r"ที่|[คพ]\.ศ\."
_THAI_YEAR = r"(?<!\d)2[45]\d\d(?!\d)"


def native_date(text: str) -> str:
    """A text with the dates of East Asian, Vietnamese, Thai and Hebrew writing in plain words.

    >>> native_date("2026年9月7日(月)"), native_date("7 tháng 9 năm 2026"), native_date("9월 7일")
    ('2026-09-07 Mon', '7 September 2026', '7 September')
    >>> native_date("2026年9月14日〜18日")
    '2026-09-14 – 2026-09-18'
    """
    if "月" in text or "월" in text:
        text = re.sub(_EAST_ASIAN, _east_asian, re.sub(_EAST_ASIAN_SPAN, _with_month_twice, text))
    if "tháng" in text:
        text = re.sub(_VIETNAMESE, _worded, text)
        text = re.sub(_VIETNAMESE_DAYS, lambda match: _DAYS_BY_NUMBER[match[1].casefold()], text)
    if any("\u0e00" <= mark <= "\u0e7f" for mark in text):
        text = re.sub(_THAI_YEAR, lambda match: str(int(match[0]) - 543), re.sub(_THAI_ERA, " ", text))
    text = text.replace("،", ",").replace("ta’ ", "")
    return re.sub(_HEBREW_IN, "", text)


def _with_month_twice(match: re.Match[str]) -> str:
    first = match["first"] if re.search(r"[日号號일]", match["first"]) else f"{match['first']}日"
    return f"{match['month']}{first} – {match['month']}{match['last']}"


def _east_asian(match: re.Match[str]) -> str:
    weekday = f" {_WEEKDAYS[match['weekday']]}" if match["weekday"] else ""
    if match["year"] is None or not 1 <= int(match["month"]) <= 12:
        return _worded(match) + weekday
    return f"{match['year']}-{int(match['month']):02}-{int(match['day']):02}{weekday}"


def _worded(match: re.Match[str]) -> str:
    month = int(match["month"])
    if not 1 <= month <= 12:
        return match[0]
    return " ".join(filter(None, (match["day"], MONTHS[month - 1], match["year"])))


def native_time(text: str) -> str:
    """A text with the times of other writings on the clock.

    >>> native_time("下午2:30"), native_time("午後2時30分"), native_time("9時-10時"), native_time("2:00 μ.μ.")
    ('2:30pm', '2:30pm', '9:00-10:00', '2:00pm')
    """
    if all(mark < "\u0370" or "\u2000" <= mark < "\u3000" for mark in text):
        return text  # letters of Europe and signs
    text = re.sub(_BEHIND, lambda m: "am" if m["am"] else "pm" if m["pm"] else "", text)
    text = re.sub(_CLOCK, lambda m: f"{m['hour']}:{m['minute'] or ('30' if m['half'] else '00')}", text)
    for words, meridiem in ((_FORENOON, "am"), (_AFTERNOON, "pm")):
        text = re.sub(rf"{words}(\d{{1,2}}(?::\d{{2}})?)", rf"\1{meridiem}", text)
    return text
