#!/bin/sh
# Take the pictures in this folder again: each command in a terminal window on the demo school's lists.
# Needs Debian's xvfb, xterm, imagemagick and chromium, and the program installed in .venv.
set -eu
here=$(cd "$(dirname "$0")" && pwd)
program=$(cd "$here/../.." && pwd)/.venv/bin
work=$(mktemp -d)
trap 'kill "$screen" 2>/dev/null || true; rm -rf "$work"' EXIT
"$program/nomarium" demo "$work/school" --all >/dev/null 2>&1
mv "$work/school/harbour.ics" "$work/school/launch-days-edited.ics" "$work"
rm -rf "$work/school/calendars" "$work"/school/*.ics
mv "$work"/*.ics "$work/school"
Xvfb :97 -screen 0 1280x800x24 >/dev/null 2>&1 &
screen=$!
sleep 2

shot() { # name, commands
    name=$1
    shift
    {
        echo "cd $work/school; PATH=$program:\$PATH; export PYTHONWARNINGS=ignore; tput civis"
        for command in "$@"; do
            shown=$(echo "$command" | sed "s|$program/python $work/table.py|table|")
            printf 'printf "\\033[1m$ %%s\\033[0m\\n" %s\n%s\necho\n' "'$shown'" "$command"
        done
        echo "touch $work/done; sleep 60"
    } >"$work/run.sh"
    rm -f "$work/done"
    DISPLAY=:97 xterm -fa 'DejaVu Sans Mono' -fs 10 -geometry 159x49+0+0 -bg '#12171c' -fg '#e8e6e3' -e sh "$work/run.sh" &
    window=$!
    while [ ! -e "$work/done" ]; do sleep 0.2; done
    sleep 0.7
    DISPLAY=:97 import -window root "$here/$name.png"
    kill "$window"
    wait "$window" 2>/dev/null || true
}

shot survey 'nomarium survey office-records.csv'
shot build 'nomarium build launch-days.csv -o launch-days.ics --timezone America/Halifax' \
    'nomarium build launch-days.csv -o calendars/ --split-by audience --timezone America/Halifax' \
    'tail -22 calendars/families.ics'
cat >"$work/table.py" <<'END'
"""The cells of a table as a spreadsheet shows them: columns in line."""
import sys
from pathlib import Path
from nomarium.sheets.opening import open_source
from nomarium.sheets.sheet import cell_text
path = Path(sys.argv[1])
for sheet in list(open_source(path, path.name, ()))[:1]:
    rows = [[" ".join(cell_text(cell).split()) for cell in row] for _, row in sheet.rows()][: int(sys.argv[2]) if len(sys.argv) > 2 else 99]
    widths = [max(len(row[n]) if n < len(row) else 0 for row in rows) for n in range(max(map(len, rows)))]
    for row in rows:
        print(" │ ".join(text.ljust(width) for text, width in zip([*row, *[""] * (len(widths) - len(row))], widths)).rstrip(" │"))
END

layout() { # name, file: the table, the command, and what came out
    shot "layout-$1" "$program/python $work/table.py $2" \
        "nomarium build $2 -o came-out.csv --timezone America/Halifax" "$program/python $work/table.py came-out.csv 18"
}
layout grid boat-week.xlsx
layout roster yard-roster.csv
shot plan 'nomarium survey year' 'nomarium build year -o teachers/ --split-by teacher'
shot export 'nomarium survey school-export.xlsx'
shot tally 'nomarium tally year --per term -o tally.png'
cp "$work/school/tally.png" "$here/tally-chart.png"
shot refusal 'nomarium build visitors.csv -o visitors.ics' \
    'nomarium build visitors.csv -o visitors.ics --date-order dmy --partial --rejects bad.csv' 'cat bad.csv'
shot help 'nomarium survey --help'
shot view-week 'nomarium view year --as week --from 2026-11-09'
shot view-month 'nomarium view launch-days.csv term-dates.txt harbour.ics --as month --from 2026-10-01 --until 2026-11-30 --color-by calendar'
shot changes 'nomarium compare launch-days.ics launch-days-corrected.csv --timezone America/Halifax' \
    'nomarium build launch-days-corrected.csv -o launch-days.ics --timezone America/Halifax --edited launch-days-edited.ics' \
    'nomarium check year launch-days.csv harbour.ics --allow "rfc-*" --timezone America/Halifax' 'nomarium recall launch-days.ics -o take-back.ics'
shot free 'nomarium free year --length 45m --who "R. Finch" --who "M. Quill"'
shot why 'nomarium why year --on 2026-11-12 --event Planking' 'nomarium why year --on 2026-11-11 --event Lofting'
cd "$work/school"
"$program/nomarium" view year --as month --from 2026-11-01 -o "$here/poster-month.png" >/dev/null
"$program/nomarium" view year --as week --from 2026-11-09 --split-by teacher -o posters >/dev/null
cp posters/m-quill.png "$here/poster-week.png"
"$program/nomarium" view year --as year -o "$here/poster-year.png" >/dev/null
"$program/nomarium" view year -o year.html >/dev/null
chromium --headless=new --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,800 --screenshot="$here/page.png" \
    "file://$work/school/year.html" >/dev/null 2>&1
