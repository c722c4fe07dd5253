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
            printf 'printf "\\033[1m$ %%s\\033[0m\\n" %s\n%s\necho\n' "'$command'" "$command"
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
shot layouts 'cat open-day.csv' 'nomarium build open-day.csv -o open-day.ics --timezone America/Halifax' 'nomarium build april.xlsx -o april.ics --timezone America/Halifax' 'nomarium build boat-week.xlsx -o boat-week.ics --timezone America/Halifax'
shot repeats 'nomarium build boat-launches.csv -o boat-launches.ics --timezone America/Halifax --until 2027-06-30 --days-off days-off.csv --public-holidays CA-NS' 'nomarium build harbour.ics -o harbour.csv --from 2027-01-01 --until 2027-06-30' 'cat harbour.csv'
shot plan 'nomarium survey year | head -46'
shot plan-build 'nomarium build year -o teachers/ --split-by teacher'
shot tally 'nomarium tally year --per term -o tally.png'
cp "$work/school/tally.png" "$here/tally-chart.png"
shot refusal 'nomarium build visitors.csv -o visitors.ics' \
    'nomarium build visitors.csv -o visitors.ics --date-order dmy --partial --rejects bad.csv' 'cat bad.csv'
shot help 'nomarium survey --help'
