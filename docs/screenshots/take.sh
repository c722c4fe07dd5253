#!/bin/sh
# Take the pictures in this folder again: each command in a terminal window on the demo school's lists.
# Needs Debian's xvfb, xterm and imagemagick, and the program installed in .venv.
set -eu
here=$(cd "$(dirname "$0")" && pwd)
program=$(cd "$here/../.." && pwd)/.venv/bin
work=$(mktemp -d)
trap 'kill "$screen" 2>/dev/null || true; rm -rf "$work"' EXIT
"$program/nomarium" demo "$work/school" >/dev/null 2>&1
mv "$work/school/harbour.ics" "$work"
rm -rf "$work/school/calendars" "$work"/school/*.ics
mv "$work/harbour.ics" "$work/school"
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
layout month april.xlsx
layout day open-day.csv
layout planner duty-planner.csv
layout roster yard-roster.csv
layout wall year-planner.csv
layout matrix committees.csv
layout tables two-divisions.csv
shot repeats 'nomarium build boat-launches.csv -o boat-launches.ics --timezone America/Halifax --until 2027-06-30 --days-off days-off.csv --public-holidays CA-NS' 'nomarium build harbour.ics -o harbour.csv --from 2027-01-01 --until 2027-06-30' 'cat harbour.csv'
shot plan 'nomarium survey year | head -46'
shot plan-build 'nomarium build year -o teachers/ --split-by teacher'
shot export 'nomarium survey school-export.xlsx'
shot tally 'nomarium tally year --per term -o tally.png'
cp "$work/school/tally.png" "$here/tally-chart.png"
shot refusal 'nomarium build visitors.csv -o visitors.ics' \
    'nomarium build visitors.csv -o visitors.ics --date-order dmy --partial --rejects bad.csv' 'cat bad.csv'
shot help 'nomarium survey --help'
