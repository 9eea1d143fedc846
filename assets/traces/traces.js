// Sheet 52: rows of traces on one time base, fed from the pyramid; a second log can be locked to the first. Only
// drawing and moving about.
import { nice, sized } from '../_parts/canvas.js';
import { offer } from '../_parts/exports.js';
import { ink } from '../_parts/ink.js';
import { csvOf, pictureOf, save } from '../_parts/plot.js';
import { attach } from '../_parts/attach.js';
import { getJson, getTraces } from '../shell/http.js';
import { say } from '../shell/said.js';
import { HEIGHT, moment } from './moment.js';

const AXES = ['roll', 'pitch', 'yaw'];
const GAP = 8;
const LEFT = 58;
const RIGHT = { alone: 104, locked: 132 };
const BOTTOM = 22;
const MOST_ROWS = 10;

attach('#traces', (box, signal) => {
    new TraceView(box, signal).start();
});

// One log: its clock through the gaps, and what of it was fetched.
class Flight {
    constructor(data) {
        Object.assign(this, data);
        this.shift = 0;
        this.cache = null;
        this.wanted = 0;
    }

    has(name) {
        return this.traces.includes(name);
    }

    // Seconds at a sample, through the gaps.
    timeAt(sample) {
        let seg = this.segments[0];
        for (const s of this.segments) if (sample >= s.first) seg = s;
        return seg.start_s + (sample - seg.first) / this.rate + this.shift;
    }

    sampleAt(seconds, clamp = true) {
        let seg = this.segments[0];
        for (const s of this.segments) if (seconds - this.shift >= s.start_s) seg = s;
        const sample = seg.first + (seconds - this.shift - seg.start_s) * this.rate;
        return clamp ? Math.max(0, Math.min(this.samples - 1, sample)) : sample;
    }

    segmentOf(sample) {
        let n = 0;
        this.segments.forEach((s, i) => {
            if (sample >= s.first) n = i;
        });
        return n;
    }

    valueAt(name, sample) {
        const c = this.cache;
        const d = c?.data[name];
        if (!d || sample < 0 || sample >= this.samples) return null;
        const i = Math.max(0, Math.min(c.count - 1, Math.round(sample / c.size) - c.first));
        return c.pairs ? (d[2 * i] + d[2 * i + 1]) / 2 : d[i];
    }

    async fetch(traces, from, to) {
        const mine = ++this.wanted;
        const wanted = traces.filter((t) => this.has(t));
        if (!wanted.length) return false;
        const range = `from=${Math.max(0, Math.floor(from))}&to=${Math.min(this.samples, Math.max(1, Math.ceil(to)))}`;
        const about = await getTraces(`${this.url}?traces=${wanted.join(',')}&${range}`);
        if (!about || mine !== this.wanted) return false;
        this.cache = about;
        return true;
    }
}

class TraceView {
    constructor(box, signal) {
        this.box = box;
        this.signal = signal;
        this.units = JSON.parse(box.dataset.units);
        this.log = new Flight(JSON.parse(box.dataset.log));
        this.other = box.dataset.other ? new Flight(JSON.parse(box.dataset.other)) : null;
        this.flights = this.other ? [this.log, this.other] : [this.log];
        this.names = [...new Set(this.flights.flatMap((f) => f.traces))];
        this.from = 0;
        this.to = this.log.samples;
        this.cursor = null;
        this.right = this.other ? RIGHT.locked : RIGHT.alone;
        this.there = document.getElementById('there');
        this.canvas = document.createElement('canvas');
        this.over = document.createElement('canvas');
        box.append(this.canvas, this.over);
        this.measure();
    }

    // Where the drawing stands, known before the first of it is: who points at once is answered.
    measure() {
        const [w, h] = [this.box.clientWidth, this.box.clientHeight];
        this.area = { left: LEFT, width: w - LEFT - this.right, height: h - BOTTOM };
        return [w, h];
    }

    start() {
        this.key = `zoom ${document.body.dataset.craft} ${this.log.name}`;
        const shown = this.box.dataset.shown || sessionStorage.getItem(this.key);
        if (shown) {
            const [a, b] = JSON.parse(shown);
            this.from = Math.max(0, this.log.sampleAt(a));
            this.to = Math.min(this.log.samples, Math.max(this.from + 8, this.log.sampleAt(b)));
        }
        // What is shown is what the form keeps.
        document.getElementById('passage')?.addEventListener(
            'formdata',
            (e) => {
                e.formData.set('from', this.log.timeAt(this.from));
                e.formData.set('to', this.log.timeAt(this.to - 1));
            },
            { signal: this.signal },
        );
        this.preset = document.getElementById('preset');
        this.preset.value = localStorage.getItem('rows') ?? this.preset.value;
        this.preset.addEventListener('change', () => {
            localStorage.setItem('rows', this.preset.value);
            this.reread();
        });
        this.byName();
        this.lock();
        const zooms = {
            in: () => this.zoom(0.4),
            out: () => this.zoom(2.5),
            least: () => this.zoom(0),
            all: () => this.set(0, this.log.samples),
        };
        for (const b of document.querySelectorAll('[data-zoom]')) b.addEventListener('click', () => zooms[b.dataset.zoom]());
        document.getElementById('jump').addEventListener('change', (e) => {
            const s = this.log.sampleAt(Number(e.target.value));
            const half = (this.to - this.from) / 2;
            this.cursor = s;
            this.set(s - half, s + half);
        });
        this.mouse();
        this.box.addEventListener('keydown', (e) => {
            const way = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
            const act = {
                '+': () => this.zoom(0.5),
                '=': () => this.zoom(0.5),
                '-': () => this.zoom(2),
                Home: () => this.set(0, this.log.samples),
                End: () => this.zoom(0),
                ArrowLeft: () => this.walk(way, e.shiftKey),
                ArrowRight: () => this.walk(way, e.shiftKey),
            }[e.key];
            if (act) {
                e.preventDefault();
                e.stopPropagation();
                act();
            }
        });
        const fit = new ResizeObserver(() => this.draw());
        fit.observe(this.box);
        this.signal.addEventListener('abort', () => fit.disconnect());
        document.addEventListener('theme', () => this.draw(), { signal: this.signal });
        this.load();
    }

    // Rows chosen by name, kept for the next log.
    byName() {
        this.list = document.getElementById('row-names');
        const boxes = () => [...this.list.querySelectorAll('input')];
        const kept = (localStorage.getItem('rows by name') ?? '').split(',');
        for (const i of boxes()) i.checked = kept.includes(i.value);
        this.list.addEventListener('change', (e) => {
            const chosen = boxes()
                .filter((i) => i.checked)
                .map((i) => i.value);
            if (chosen.length > MOST_ROWS) {
                e.target.checked = false;
                say(`${MOST_ROWS} rows are as many as can be read. Take one out first.`, true);
                return;
            }
            localStorage.setItem('rows by name', chosen.join(','));
            this.preset.value = chosen.length ? 'names' : 'command';
            localStorage.setItem('rows', this.preset.value);
            this.reread();
        });
        this.chosen = () =>
            boxes()
                .filter((i) => i.checked)
                .map((i) => i.value);
        this.preset.addEventListener('change', () => {
            if (this.preset.value === 'names' && !this.chosen().length) this.list.parentElement.open = true;
        });
    }

    // The other log is shifted by hand, or so that its sticks move with this one's.
    lock() {
        const field = document.getElementById('shift');
        if (!this.other || !field) return;
        const put = (s) => {
            this.other.shift = s;
            field.value = s.toFixed(2);
            this.load();
            this.draw();
        };
        field.addEventListener('change', () => put(Number(field.value) || 0));
        const align = async (told) => {
            try {
                const found = await getJson(this.box.dataset.aligned);
                if (found.alike) {
                    put(found.shift_s);
                    if (told) say(`Lined up by ${found.shift_s.toFixed(2)} s; the sticks agree by ${found.correlation.toFixed(2)}.`);
                } else if (told)
                    say('The sticks of these flights do not move alike, so there is nothing to line them up by. Shift it by hand.', true);
            } catch (error) {
                say(error.message, true);
            }
        };
        document.getElementById('align').addEventListener('click', () => align(true));
        align(false);
    }

    reread() {
        for (const f of this.flights) f.cache = null;
        this.load();
        this.draw();
    }

    rows() {
        const has = (names) => names.filter(([n]) => this.names.includes(n));
        const motion = (a) => ({
            title: a,
            lines: has([
                [`rate_measured_${a}_dps`, '--measured'],
                [`rate_filtered_${a}_dps`, `--${a}`],
                [`setpoint_${a}_dps`, '--ink', true],
            ]),
        });
        const pattern = (re) => this.names.filter((n) => re.test(n));
        const dashes = [[], [7, 3], [2, 3], [9, 3, 2, 3], [5, 5], [1, 4]];
        const motors = (re) =>
            pattern(re).map((n, i) => [n, ['--roll', '--pitch', '--yaw', '--ink', '--ink-soft', '--accent'][i % 6], dashes[i % 6]]);
        const which = this.preset.value;
        const inkOf = (n) => {
            const axis = AXES.find((a) => n.includes(`_${a}`));
            return axis ? `--${axis}` : '--ink';
        };
        const rows = AXES.includes(which)
            ? [
                  motion(which),
                  { title: 'error', lines: has([[`error_${which}_dps`, `--${which}`]]) },
                  {
                      title: 'P, D',
                      lines: has([
                          [`term_p_${which}`, `--${which}`],
                          [`term_d_${which}`, '--ink', [5, 3]],
                      ]),
                  },
                  {
                      title: 'I, feed-forward',
                      lines: has([
                          [`term_i_${which}`, `--${which}`],
                          [`term_ff_${which}`, '--ink', [5, 3]],
                      ]),
                  },
                  { title: 'all terms', lines: has([[`sum_${which}`, `--${which}`]]) },
                  { title: 'motors', lines: motors(/^output_/) },
              ]
            : which === 'motors'
              ? [
                    { title: 'outputs', lines: motors(/^output_/) },
                    { title: 'rotor speed', lines: motors(/^rpm_/) },
                    { title: 'throttle', lines: has([['throttle_pct', '--ink']]) },
                ]
              : which === 'power'
                ? [
                      { title: 'pack', lines: has([['battery_v', '--accent']]) },
                      { title: 'current', lines: has([['current_a', '--ink']]) },
                      { title: 'throttle', lines: has([['throttle_pct', '--ink']]) },
                  ]
                : which === 'names'
                  ? this.chosen()
                        .filter((n) => this.names.includes(n))
                        .map((n) => ({ title: this.units[n].words, lines: [[n, inkOf(n), n.startsWith('setpoint')]] }))
                  : [...AXES.map(motion), { title: 'throttle', lines: has([['throttle_pct', '--ink']]) }];
        return rows.filter((r) => r.lines.length);
    }

    set(from, to) {
        const least = Math.max(8, this.log.rate * 0.01);
        const span = Math.max(least, Math.min(this.log.samples, to - from));
        from = Math.max(0, Math.min(this.log.samples - span, from + (to - from - span) / 2));
        this.from = from;
        this.to = from + span;
        // What is looked at stays so over a reload and another sheet.
        if (span < this.log.samples)
            sessionStorage.setItem(this.key, JSON.stringify([this.log.timeAt(this.from), this.log.timeAt(this.to)]));
        else sessionStorage.removeItem(this.key);
        this.draw();
        this.load();
    }

    // The crosshair goes a little on, the view with it where it would leave; with Shift the view goes alone.
    walk(way, alone) {
        const span = this.to - this.from;
        if (alone) {
            this.set(this.from + way * span * 0.2, this.to + way * span * 0.2);
            return;
        }
        const at = this.cursor !== null && this.cursor >= this.from && this.cursor <= this.to ? this.cursor : (this.from + this.to) / 2;
        const next = Math.round(at + way * Math.max(1, span / 200));
        this.cursor = Math.max(0, Math.min(this.log.samples - 1, next));
        const by = Math.min(0, this.cursor - this.from) || Math.max(0, this.cursor - this.to);
        if (by) this.set(this.from + by, this.to + by);
        else this.cross();
    }

    zoom(factor, around) {
        const middle = around ?? this.cursor ?? (this.from + this.to) / 2;
        const m = middle >= this.from && middle <= this.to ? middle : (this.from + this.to) / 2;
        this.set(m - (m - this.from) * factor, m + (this.to - m) * factor);
    }

    load() {
        clearTimeout(this.timer);
        this.timer = setTimeout(
            async () => {
                const traces = [
                    ...new Set([
                        ...this.rows().flatMap((r) => r.lines.map(([n]) => n)),
                        ...this.names.filter((n) => /^(stick|output|rpm|setpoint|rate)_/.test(n)),
                    ]),
                ];
                // Half a view more on each side, so that moving shows something at once.
                const span = this.to - this.from;
                const [from, to] = [this.from - span / 2, this.to + span / 2];
                const got = await Promise.all(
                    this.flights.map((f, i) =>
                        i ? f.fetch(traces, f.sampleAt(this.log.timeAt(from)), f.sampleAt(this.log.timeAt(to))) : f.fetch(traces, from, to),
                    ),
                );
                if (!got[0]) return;
                this.draw();
                offer(this.box, {
                    png: () => save(pictureOf([this.canvas, this.over]), 'traces.png'),
                    csv: () => save(csvOf(this.shown()), 'traces.csv'),
                });
                this.box.dataset.drawn = String(this.log.wanted);
                if (this.other) this.box.dataset.drawnOther = String(this.other.wanted);
            },
            this.log.cache ? 60 : 0,
        );
    }

    draw() {
        const [w, h] = this.measure();
        const g = sized(this.canvas, w, h);
        sized(this.over, w, h);
        const rows = this.rows();
        const pane = (h - BOTTOM) / this.flights.length;
        this.grid(g, LEFT, w - this.right, h - BOTTOM);
        this.flights.forEach((f, n) => {
            const top = n * pane + (this.other ? 15 : 0);
            const rowHeight = (pane - (this.other ? 15 : 0)) / rows.length;
            if (this.other) {
                g.fillStyle = ink('--ink');
                g.textAlign = 'left';
                g.font = '600 12.5px "IBM Plex Sans Condensed", sans-serif';
                g.fillText(n && f.shift ? `${f.name}, shifted by ${f.shift.toFixed(2)} s` : f.name, LEFT, n * pane + 11);
                g.font = '11px "IBM Plex Mono", monospace';
            }
            rows.forEach((row, i) => this.row(g, f, row, LEFT, top + i * rowHeight + GAP / 2, w - LEFT - this.right, rowHeight - GAP));
        });
        this.cross();
    }

    grid(g, left, right, bottom) {
        const t0 = this.log.timeAt(this.from);
        const t1 = this.log.timeAt(this.to);
        const step = nice((t1 - t0) / 8);
        g.strokeStyle = ink('--hairline');
        g.fillStyle = ink('--ink-soft');
        g.textAlign = 'center';
        const digits = Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
        for (let t = Math.ceil(t0 / step) * step; t <= t1; t += step) {
            const x = this.x(this.log.sampleAt(t));
            g.beginPath();
            g.moveTo(x, 0);
            g.lineTo(x, bottom);
            g.stroke();
            if (x < right - 24) g.fillText(`${t.toFixed(digits)}`, x, bottom + 15);
        }
        g.textAlign = 'left';
        g.fillText('s', right + 6, bottom + 15);
        // Where samples are missing, time jumps: marked, never bridged.
        for (const s of this.log.segments.slice(1)) {
            const x = this.x(s.first);
            if (x > left && x < right) {
                g.save();
                g.strokeStyle = ink('--caution');
                g.setLineDash([2, 3]);
                g.beginPath();
                g.moveTo(x, 0);
                g.lineTo(x, bottom);
                g.stroke();
                g.fillStyle = ink('--caution');
                g.fillText('gap', x + 3, 10);
                g.restore();
            }
        }
    }

    x(sample) {
        return this.area.left + ((sample - this.from) / (this.to - this.from)) * this.area.width;
    }

    // Where a sample of any of the logs stands: the other's through its own clock and shift.
    xOf(flight, sample) {
        return flight === this.log ? this.x(sample) : this.x(this.log.sampleAt(flight.timeAt(sample), false));
    }

    // First and last fetched point of a log that is in view.
    reach(flight) {
        const c = flight.cache;
        const [from, to] =
            flight === this.log
                ? [this.from, this.to]
                : [flight.sampleAt(this.log.timeAt(this.from)), flight.sampleAt(this.log.timeAt(this.to))];
        return [Math.max(0, Math.floor(from / c.size) - c.first), Math.min(c.count - 1, Math.ceil(to / c.size) - c.first)];
    }

    // One scale for both logs, or they could not be compared.
    scale(row) {
        let low = Infinity;
        let high = -Infinity;
        for (const f of this.flights) {
            if (!f.cache) continue;
            const [i0, i1] = this.reach(f);
            for (const [name] of row.lines) {
                const d = f.cache.data[name];
                if (!d) continue;
                for (let i = i0; i <= i1; i++) {
                    const a = f.cache.pairs ? d[2 * i] : d[i];
                    const b = f.cache.pairs ? d[2 * i + 1] : d[i];
                    if (a < low) low = a;
                    if (b > high) high = b;
                }
            }
        }
        const pad = (high - low || 1) * 0.06;
        return Number.isFinite(low) ? [low - pad, high + pad] : null;
    }

    row(g, flight, row, left, top, width, height) {
        const c = flight.cache;
        g.strokeStyle = ink('--hairline');
        g.strokeRect(left, top, width, height);
        const range = this.scale(row);
        if (!c || !range) return;
        const [low, high] = range;
        const [i0, i1] = this.reach(flight);
        const y = (v) => top + height - ((v - low) / (high - low)) * height;
        g.fillStyle = ink('--ink-soft');
        g.textAlign = 'right';
        let tick = nice((high - low) / Math.max(1, Math.min(3, height / 30)));
        const fits = (v) => y(v) > top + 5 && y(v) < top + height - 3;
        const told = () => {
            let n = 0;
            for (let v = Math.ceil(low / tick) * tick; v <= high; v += tick) n += fits(v) ? 1 : 0;
            return n;
        };
        // One figure is no scale: the step is made smaller where the row has room for two.
        for (let i = 0; i < 3 && height > 24 && told() < 2; i++) tick = nice(tick / 2.1);
        const digits = Math.max(0, -Math.floor(Math.log10(tick) + 1e-9));
        let last = Infinity;
        for (let v = Math.ceil(low / tick) * tick; v <= high; v += tick) {
            const py = y(v);
            if (fits(v) && last - py >= 11) {
                g.fillText(v.toFixed(digits), left - 6, py + 4);
                last = py;
            }
            if (Math.abs(v) < tick / 1e6) {
                g.beginPath();
                g.moveTo(left, py);
                g.lineTo(left + width, py);
                g.stroke();
            }
        }
        g.save();
        g.beginPath();
        g.rect(left, top, width, height);
        g.clip();
        for (const [name, colour, style] of row.lines) {
            const d = c.data[name];
            if (!d) continue;
            g.strokeStyle = ink(colour);
            g.lineWidth = colour === '--measured' ? 1 : 1.3;
            g.setLineDash(style === true ? [6, 4] : style || []);
            g.beginPath();
            let segment = -1;
            for (let i = i0; i <= i1; i++) {
                const sample = (c.first + i) * c.size;
                const px = this.xOf(flight, sample);
                const here = flight.segmentOf(sample);
                const a = c.pairs ? d[2 * i] : d[i];
                if (here !== segment) {
                    g.moveTo(px, y(a));
                    segment = here;
                } else g.lineTo(px, y(a));
                if (c.pairs) g.lineTo(px, y(d[2 * i + 1]));
            }
            g.stroke();
        }
        g.restore();
        g.setLineDash([]);
        g.textAlign = 'left';
        this.legend(g, c, row, left + width + 8, top, height);
        g.font = '11px "IBM Plex Mono", monospace';
    }

    // One name under the other where there is room; else one after the other.
    legend(g, cache, row, x, top, height) {
        const { unit } = this.units[row.lines[0][0]];
        g.font = '600 12.5px "IBM Plex Sans Condensed", sans-serif';
        g.fillStyle = ink('--ink');
        const roomy = 27 + (row.lines.length - 1) * 14 <= height + 4;
        g.fillText(unit ? `${row.title}, ${unit}` : row.title, x, top + (roomy ? 12 : 9));
        g.font = '12px "IBM Plex Sans Condensed", sans-serif';
        const line = roomy ? 14 : 11;
        let [px, py] = [x, top + (roomy ? 27 : 20)];
        for (const [name, colour] of row.lines) {
            // Nothing of a derived trace is read where the view is too long for it.
            const words = cache.data[name] ? short(name) : `${short(name)}: zoom in`;
            const wide = g.measureText(words).width;
            if (px > x && (roomy || px + wide > x + this.right - 10)) [px, py] = [x, py + line];
            g.fillStyle = ink(colour === '--measured' ? '--ink-soft' : colour);
            g.fillText(words, px, py);
            px += wide + 8;
        }
    }

    cross() {
        const g = this.over.getContext('2d');
        g.clearRect(0, 0, this.over.width, this.over.height);
        if (this.drag && this.drag.x1 !== undefined && !this.drag.pan) {
            g.fillStyle = ink('--accent-wash');
            g.globalAlpha = 0.5;
            g.fillRect(Math.min(this.drag.x0, this.drag.x1), 0, Math.abs(this.drag.x1 - this.drag.x0), this.area.height);
            g.globalAlpha = 1;
        }
        if (this.cursor === null || this.cursor < this.from || this.cursor > this.to) return;
        const x = this.x(this.cursor);
        g.strokeStyle = ink('--ink');
        g.setLineDash([2, 3]);
        g.beginPath();
        g.moveTo(x, 0);
        g.lineTo(x, this.area.height);
        g.stroke();
        this.readings();
    }

    // The cursor as a sample of each log.
    cursorIn(flight) {
        return flight === this.log ? this.cursor : flight.sampleAt(this.log.timeAt(this.cursor), false);
    }

    valueAt(name, flight = this.log) {
        return flight.valueAt(name, this.cursorIn(flight));
    }

    // What is drawn of the first log, as numbers: samples, or least and greatest where a point stands for several.
    shown() {
        const c = this.log.cache;
        const names = [...new Set(this.rows().flatMap((r) => r.lines.map(([n]) => n)))].filter((n) => c.data[n]);
        const rows = [['time_s', ...names.flatMap((n) => (c.pairs ? [`${n}_least`, `${n}_greatest`] : [n]))]];
        for (let i = 0; i < c.count; i++) {
            const sample = (c.first + i) * c.size;
            if (sample >= this.from && sample <= this.to)
                rows.push([
                    this.log.timeAt(sample).toFixed(6),
                    ...names.flatMap((n) => (c.pairs ? [c.data[n][2 * i], c.data[n][2 * i + 1]] : [c.data[n][i]])),
                ]);
        }
        return rows;
    }

    readings() {
        const span = (this.to - this.from) / this.log.rate;
        document.getElementById('reading').textContent = `${this.log.timeAt(this.cursor).toFixed(span < 1 ? 4 : 2)} s`;
        const list = document.createElement('dl');
        const cell = (tag, text) => {
            const el = document.createElement(tag);
            el.textContent = text;
            return el;
        };
        if (this.other) {
            list.classList.add('two');
            list.append(cell('dt', ''), ...this.flights.map((f) => cell('dd', f.name)));
        }
        for (const row of this.rows())
            for (const [name] of row.lines) {
                const { words, unit } = this.units[name];
                list.append(
                    cell('dt', words),
                    ...this.flights.map((f) => {
                        const v = this.valueAt(name, f);
                        return cell('dd', v === null ? '–' : `${v.toFixed(/rpm|us$/.test(name) ? 0 : 1)} ${this.other ? '' : unit}`);
                    }),
                );
            }
        document.getElementById('values').replaceChildren(list);
        this.there.innerHTML = this.flights.map((f, i) => `<g transform="translate(0 ${i * HEIGHT})">${this.small(f)}</g>`).join('');
    }

    // The craft at the crosshair.
    small(flight) {
        const value = (name) => (flight.traces.includes(name) ? this.valueAt(name, flight) : null);
        return moment(value, {
            outputs: flight.traces.filter((n) => /^output_/.test(n)).map((n) => n.replace(/^output_|_pct$/g, '')),
            places: JSON.parse(this.there.dataset.places),
            top: this.top(),
            title: this.other ? `${flight.name}: ` : '',
        });
    }

    // The largest rotation and rotor speed in what was fetched, of all flights: their drawings are to one scale.
    top() {
        const most = (pattern, least) => {
            let top = least;
            for (const f of this.flights)
                for (const [name, values] of Object.entries(f.cache?.data ?? {}))
                    if (pattern.test(name)) for (const v of values) if (Math.abs(v) > top) top = Math.abs(v);
            return top;
        };
        return { dps: most(/^setpoint_|^rate_/, 100), rpm: most(/^rpm_/, 1000) };
    }

    mouse() {
        const at = (e) => e.clientX - this.box.getBoundingClientRect().left;
        const sample = (x) => this.from + ((x - this.area.left) / this.area.width) * (this.to - this.from);
        this.box.addEventListener('pointerdown', (e) => {
            if (e.button) return;
            this.drag = { x0: at(e), from: this.from, to: this.to, pan: e.shiftKey };
            this.box.setPointerCapture(e.pointerId);
        });
        this.box.addEventListener('pointermove', (e) => {
            const x = at(e);
            if (this.drag) {
                this.drag.x1 = x;
                if (this.drag.pan) {
                    const by = ((this.drag.x0 - x) / this.area.width) * (this.drag.to - this.drag.from);
                    this.set(this.drag.from + by, this.drag.to + by);
                    return;
                }
            }
            this.cursor = Math.max(this.from, Math.min(this.to, sample(x)));
            this.cross();
        });
        this.box.addEventListener('pointerup', () => {
            const d = this.drag;
            this.drag = null;
            if (d && !d.pan && d.x1 !== undefined && Math.abs(d.x1 - d.x0) > 5)
                this.set(sample(Math.min(d.x0, d.x1)), sample(Math.max(d.x0, d.x1)));
            else this.cross();
        });
        this.box.addEventListener('dblclick', () => this.set(0, this.log.samples));
        this.box.addEventListener(
            'wheel',
            (e) => {
                e.preventDefault();
                if (e.shiftKey) {
                    const by = ((this.to - this.from) * Math.sign(e.deltaY || e.deltaX)) / 8;
                    this.set(this.from + by, this.to + by);
                } else this.zoom(e.deltaY > 0 ? 1.25 : 0.8, sample(at(e)));
            },
            { passive: false },
        );
    }
}

const short = (name) =>
    name
        .replace(/^rate_(measured|filtered)_.*/, '$1')
        .replace(/^setpoint_.*/, 'asked')
        .replace(/^error_.*/, 'asked less flown')
        .replace(/^sum_.*/, 'sum')
        .replace(/^term_ff_.*/, 'feed-forward')
        .replace(/^term_(\w)_.*/, (m, t) => t.toUpperCase())
        .replace(/^(output|rpm)_/, '')
        .replace(/_(pct|dps|v|a)$/, '')
        .replaceAll('_', ' ');
