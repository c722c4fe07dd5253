"use strict";
(() => {
  const said = JSON.parse(document.getElementById("said").textContent);
  const form = document.querySelector(".tools"), list = document.getElementById("list");
  const drawn = document.getElementById("drawn"), when = document.getElementById("when");
  const told = document.getElementById("told"), find = document.getElementById("find");
  const selects = [...form.querySelectorAll("select")];
  const narrow = matchMedia("(max-width:44rem)");
  const two = n => String(n).padStart(2, "0");
  // dates are counted in days, at noon UTC, so that no clock change is in the way
  const day = iso => Math.round(Date.UTC(+iso.slice(0, 4), +iso.slice(5, 7) - 1, +iso.slice(8, 10)) / 864e5);
  const date = n => new Date(n * 864e5);
  const iso = n => date(n).toISOString().slice(0, 10);
  const weekday = n => (n + 3) % 7;
  const minutes = text => +text.slice(11, 13) * 60 + +text.slice(14, 16);
  const now = new Date(), today = day(`${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`);

  const make = (tag, look, text) => {
    const node = document.createElement(tag);
    if (look) node.className = look;
    if (text) node.textContent = text;
    return node;
  };
  const events = [...list.querySelectorAll("li")].map(li => {
    const times = li.querySelectorAll("time"), start = times[0].dateTime, end = (times[1] || times[0]).dateTime;
    const timed = start.length > 10;
    let last = day(end);
    const ends = timed ? minutes(end) : 0;
    if (timed && last > day(start) && ends === 0) last -= 1;
    const lasts = timed ? day(end) * 1440 + ends - day(start) * 1440 - minutes(start) : 1440;
    return {li, look: li.className, title: li.querySelector("b").textContent, first: day(start), last, long: !timed || lasts >= 1440,
      begin: timed ? minutes(start) : 0, ends: day(end) * 1440 + ends, clock: timed ? times[0].textContent : "",
      place: (li.querySelector(".p") || {textContent: ""}).textContent, text: li.textContent.toLowerCase(),
      values: (li.dataset.v || "").split(" "), shown: true};
  });
  const from = Math.min(...events.map(e => e.first)), to = Math.max(...events.map(e => e.last));
  const home = today >= from && today <= to ? today : from;
  let view = "month", at = home;

  const filter = () => {
    const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
    const wanted = selects.map(s => s.value).filter(Boolean);
    let count = 0;
    for (const e of events) {
      e.shown = words.every(w => e.text.includes(w)) && wanted.every(v => e.values.includes(v));
      e.li.hidden = !e.shown;
      count += e.shown;
    }
    for (const section of list.querySelectorAll("section")) section.hidden = !section.querySelector("li:not([hidden])");
    told.textContent = `${count.toLocaleString(said.lang)} ${said.of} ${events.length.toLocaleString(said.lang)} ${said.events}`;
    draw();
  };

  const weekStart = n => n - (weekday(n) - said.first + 7) % 7;
  const name = n => `${said.days[weekday(n)]} ${date(n).getUTCDate()} ${said.months[date(n).getUTCMonth()]} ${date(n).getUTCFullYear()}`;
  const span = (a, b) => {
    const [x, y] = [date(a), date(b)], month = d => said.months[d.getUTCMonth()], year = d => d.getUTCFullYear();
    if (x.getUTCMonth() === y.getUTCMonth()) return `${x.getUTCDate()}–${y.getUTCDate()} ${month(y)} ${year(y)}`;
    const own = year(x) === year(y) ? "" : ` ${year(x)}`;
    return `${x.getUTCDate()} ${month(x)}${own} – ${y.getUTCDate()} ${month(y)} ${year(y)}`;
  };
  const link = (e, look) => {
    const a = make("a", `${e.look} ${look}`);
    a.href = `#${e.li.id}`;
    return a;
  };
  const lanesOver = (days, found) => {  // long events in a row of days: each in one lane over all of its days
    const lanes = [];
    for (const e of found.filter(e => e.long).sort((a, b) => a.first - b.first || b.last - a.last)) {
      const first = Math.max(e.first, days[0]), last = Math.min(e.last, days[days.length - 1]);
      if (last < first) continue;
      let n = lanes.findIndex(lane => lane.every(([, a, b]) => last < a || first > b));
      if (n < 0) n = lanes.push([]) - 1;
      lanes[n].push([e, first, last]);
    }
    return lanes;
  };
  const hitIn = (lane, n) => lane.find(([, first, last]) => n >= first && n <= last);
  const bandsIn = (lanes, n, days) => {  // a gap stands only where a band follows below it
    const low = lanes.findLastIndex(lane => hitIn(lane, n));
    return lanes.slice(0, low + 1).map(lane => bandIn(lane, n, days));
  };
  const bandIn = (lane, n, days) => {
    const hit = hitIn(lane, n);
    if (!hit) return make("div", "gap");
    const [e, first, last] = hit, begins = n === e.first || n === days[0];
    const a = link(e, `b${begins ? "" : " went"}${first === last ? " one" : ""}`);
    a.append(make("span", "", begins ? (n > e.first ? "‹ " : "") + e.title : "\u00a0"));
    a.title = e.title;
    if (!begins) { a.tabIndex = -1; a.setAttribute("aria-hidden", "true"); }
    return a;
  };
  const dayHead = n => {
    const head = make("div", "n"), button = make("button", "", String(date(n).getUTCDate()));
    button.type = "button";
    button.setAttribute("aria-label", name(n));
    button.addEventListener("click", () => { at = n; show("list"); });
    head.append(button);
    if (said.marks[iso(n)]) head.append(make("span", "mark", said.marks[iso(n)]));
    return head;
  };

  const drawMonth = () => {
    const d = date(at), first = day(`${d.getUTCFullYear()}-${two(d.getUTCMonth() + 1)}-01`), month = d.getUTCMonth();
    when.textContent = `${said.months[month]} ${d.getUTCFullYear()}`;
    const table = make("table", "m"), head = table.createTHead().insertRow(), body = table.createTBody();
    const found = events.filter(e => e.shown && e.last >= first - 7 && e.first <= first + 45);
    const weekend = found.some(e => !e.long && (weekday(e.first) > 4));
    const keep = n => weekend || narrow.matches || weekday(n) < 5;
    const begin = weekStart(first);
    for (let n = begin; n < begin + 7; n++) if (keep(n)) {
      const th = make("th", "", narrow.matches ? said.days[weekday(n)].slice(0, 2) : said.days[weekday(n)]);
      th.scope = "col";
      head.append(th);
    }
    for (let n = begin; n < begin + 42 && (n <= first || date(n).getUTCMonth() === month); n += 7) {
      const days = [...Array(7).keys()].map(k => n + k).filter(keep);
      const inside = days.filter(k => date(k).getUTCMonth() === month);
      if (!inside.length) continue;
      const lanes = lanesOver(inside, found), row = body.insertRow();
      for (const k of days) {
        const cell = row.insertCell();
        if (date(k).getUTCMonth() !== month) { cell.className = "o"; continue; }
        if (k === today) cell.className = "now";
        cell.append(dayHead(k));
        cell.append(...bandsIn(lanes, k, inside));
        for (const e of found.filter(e => !e.long && e.first === k).sort((a, b) => a.begin - b.begin)) {
          const a = link(e, "");
          a.append(make("time", "", e.clock), make("span", "", e.title));
          cell.append(a);
        }
      }
    }
    drawn.replaceChildren(table);
  };

  const drawWeek = () => {
    const begin = weekStart(at);
    let days = [...Array(7).keys()].map(k => begin + k);
    const found = events.filter(e => e.shown && e.last >= begin && e.first < begin + 7);
    if (!found.some(e => !e.long && weekday(e.first) > 4)) days = days.filter(k => weekday(k) < 5);
    when.textContent = span(days[0], days[days.length - 1]);
    if (narrow.matches) return drawDays(days, found);
    const grid = make("div", "g"), timed = found.filter(e => !e.long);
    grid.style.setProperty("--n", days.length);
    grid.append(make("div"));
    for (const k of days) {
      const head = make("div", k === today ? "h now" : "h", `${said.short[weekday(k)]} ${date(k).getUTCDate()}`);
      if (said.marks[iso(k)]) head.append(make("span", "mark", said.marks[iso(k)]));
      grid.append(head);
    }
    for (const lane of lanesOver(days, found)) {
      grid.append(make("div"));
      for (const k of days) { const cell = make("div", "l m"); cell.append(bandIn(lane, k, days)); grid.append(cell); }
    }
    if (timed.length) {
      const low = Math.floor(Math.min(...timed.map(e => e.begin)) / 60);
      const high = Math.min(24, Math.ceil(Math.max(...timed.map(e => Math.min(e.ends - e.first * 1440, 1440))) / 60));
      const hour = Math.max(44, Math.min(90, 640 / Math.max(high - low, 1)));
      const ruler = make("div", "r");
      grid.style.setProperty("--hour", `${hour}px`);
      ruler.style.height = `${(high - low) * hour}px`;
      for (let h = low; h < high; h++) { const s = make("span", "", `${h}:00`); s.style.top = `${(h - low) * hour}px`; ruler.append(s); }
      grid.append(ruler);
      for (const k of days) grid.append(column(timed.filter(e => e.first <= k && e.last >= k), k, low, hour));
    }
    drawn.replaceChildren(grid);
    for (const a of grid.querySelectorAll(".c a")) fit(a);
    if (!found.length) drawn.append(make("p", "", said.none));
  };
  const column = (found, k, low, hour) => {
    const box = make("div", "c"), parts = [];
    for (const e of found) parts.push({e, a: e.first === k ? e.begin : 0, b: Math.max(Math.min(e.ends - k * 1440, 1440), (e.first === k ? e.begin : 0) + 20)});
    parts.sort((x, y) => x.a - y.a || y.b - x.b);
    let group = [], reach = -1;
    const place = () => {
      const ends = [];
      for (const p of group) { let n = ends.findIndex(end => end <= p.a); if (n < 0) n = ends.length; ends[n] = p.b; p.n = n; }
      for (const p of group) {
        const a = link(p.e, "");
        a.style.top = `${(p.a / 60 - low) * hour}px`;
        a.style.height = `${(p.b - p.a) / 60 * hour}px`;
        a.style.left = `${p.n / ends.length * 100}%`;
        a.style.width = `${100 / ends.length}%`;
        a.title = `${p.e.clock} ${p.e.title}`;
        a.append(make("b", "", p.e.title), make("span", "", p.e.clock), make("span", "", p.e.place));
        box.append(a);
      }
    };
    for (const p of parts) { if (p.a >= reach) { place(); group = []; reach = -1; } group.push(p); reach = Math.max(reach, p.b); }
    place();
    return box;
  };
  const fit = a => {  // what has no room goes line by line, the title last and with a sign
    while (a.scrollHeight > a.clientHeight + 1 && a.children.length > 1) a.lastChild.remove();
    if (a.scrollHeight <= a.clientHeight + 1) return;
    a.classList.add("cut");
    a.style.setProperty("--lines", Math.max(1, Math.floor(a.clientHeight / parseFloat(getComputedStyle(a).lineHeight))));
  };
  const drawDays = (days, found) => {
    drawn.replaceChildren(...days.map(k => {
      const box = make("div"), head = make("h3", "", name(k));
      if (said.marks[iso(k)]) head.append(make("span", "mark", said.marks[iso(k)]));
      box.append(head);
      for (const e of found.filter(e => e.first <= k && e.last >= k)) {
        const line = make("div", `w ${e.look}`), a = make("a", "", e.title);
        a.href = `#${e.li.id}`;
        line.append(make("time", "", e.clock), a, make("span", "p", e.place));
        box.append(line);
      }
      return box;
    }));
  };

  const draw = () => {
    const asList = view === "list";
    list.hidden = !asList;
    drawn.hidden = when.hidden = asList;
    if (view === "month") drawMonth();
    if (view === "week") drawWeek();
  };
  const show = (wanted, goes = true) => {
    view = wanted;
    form.elements.view.value = wanted;
    draw();
    if (view === "list" && goes) {
      const days = [...list.querySelectorAll("section:not([hidden])")];
      const to = days.find(section => section.id.slice(1) >= iso(at)) || days[days.length - 1];
      if (to) to.scrollIntoView({block: "start"});
    }
  };
  const turn = step => {
    const d = date(at);
    if (!step) at = home;
    else if (view === "week") at += 7 * step;
    else at = day(new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + step, 1)).toISOString());
    at = Math.max(Math.min(at, to), view === "month" ? day(iso(from).slice(0, 8) + "01") : from - 6);
    show(view);
  };

  form.addEventListener("submit", e => e.preventDefault());
  form.addEventListener("change", e => e.target.name === "view" ? show(e.target.value) : filter());
  find.addEventListener("input", filter);
  for (const button of form.querySelectorAll("[data-turn]")) button.addEventListener("click", () => turn(+button.dataset.turn));
  drawn.addEventListener("keydown", e => {
    if (e.key === "ArrowLeft" || e.key === "ArrowRight") { e.preventDefault(); turn(e.key === "ArrowLeft" ? -1 : 1); }
  });
  drawn.addEventListener("click", e => {  // an event in a picture leads to its line in the list
    const a = e.target.closest("a");
    if (!a) return;
    e.preventDefault();
    const li = document.getElementById(a.hash.slice(1));
    at = day(li.closest("section").id.slice(1));
    show("list");
    li.tabIndex = -1;
    li.focus();
  });
  narrow.addEventListener("change", draw);

  form.hidden = false;
  if (!events.length) return;
  const asked = location.hash.slice(1);
  filter();
  show(["month", "week", "list"].includes(asked) ? asked : narrow.matches ? "list" : said.view, false);
})();
