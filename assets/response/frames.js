// Sheet 54, window by window: where the step comes from, one window after the other, and striking one out.
import { getJson, post } from '../shell/http.js';
import { say } from '../shell/said.js';
import { refreshPage } from '../shell/turbo.js';
import { ink } from '../_parts/ink.js';
import { sized } from '../_parts/canvas.js';
import { exports, line, plot } from '../_parts/plot.js';

export class Frames {
    constructor(box, read, signal) {
        Object.assign(this, { box, log: null, read, at: {}, shown: false });
        this.strip = document.getElementById('frame-strip');
        this.only = document.getElementById('only-used');
        this.button = document.getElementById('frame-strike');
        this.motion = document.getElementById('frame-motion');
        this.curve = document.getElementById('frame-curve');
        for (const b of box.querySelectorAll('[data-step]')) b.addEventListener('click', () => this.step(Number(b.dataset.step)));
        this.button.addEventListener('click', () => this.strike());
        this.strip.addEventListener('click', (e) => {
            const r = this.strip.getBoundingClientRect();
            this.nearest(((e.clientX - r.left) / r.width) * this.span() + this.start());
        });
        box.addEventListener('keydown', (e) => {
            const act = { ArrowLeft: () => this.step(-1), ArrowRight: () => this.step(1), x: () => this.strike(), X: () => this.strike() }[
                e.key
            ];
            if (act && !e.target.matches('input')) {
                e.preventDefault();
                e.stopPropagation();
                act();
            }
        });
        const fit = new ResizeObserver(() => this.drawStrip());
        fit.observe(this.strip);
        signal.addEventListener('abort', () => fit.disconnect());
    }

    show(on, axis, log) {
        this.log = log;
        this.box.hidden = !on;
        this.shown = on;
        this.axis = axis ?? 'roll';
        if (!on) return;
        this.step0 = this.log.charts.step[this.axis];
        if (!this.step0) {
            document.getElementById('frame-says').textContent = `This log gives no step of ${this.axis}.`;
            this.strip.hidden = true;
            this.motion.replaceChildren();
            this.curve.replaceChildren();
            this.button.hidden = true;
            return;
        }
        this.strip.hidden = this.button.hidden = false;
        if (this.at[this.axis] === undefined)
            this.at[this.axis] = Math.max(
                0,
                this.step0.windows.findIndex((w) => !w.why && 2 * w.size_dps > Math.max(...this.step0.windows.map((v) => v.size_dps))),
            );
        this.load();
    }

    start() {
        return this.step0.windows[0].at_s;
    }

    span() {
        return this.step0.windows[this.step0.windows.length - 1].at_s + this.step0.window_s - this.start();
    }

    nearest(time) {
        let best = 0;
        this.step0.windows.forEach((w, i) => {
            if (
                Math.abs(w.at_s + this.step0.window_s / 2 - time) < Math.abs(this.step0.windows[best].at_s + this.step0.window_s / 2 - time)
            )
                best = i;
        });
        this.at[this.axis] = best;
        this.load();
    }

    step(by) {
        const list = this.step0?.windows ?? [];
        let i = this.at[this.axis];
        do i += by;
        while (this.only.checked && list[i]?.why);
        if (!list[i]) return;
        this.at[this.axis] = i;
        this.load();
    }

    async load() {
        const number = this.at[this.axis];
        const w = this.step0.windows[number];
        document.getElementById('frame-at').textContent =
            `${number + 1} of ${this.step0.windows.length}  ${w.at_s.toFixed(2)} to ${(w.at_s + this.step0.window_s).toFixed(2)} s`;
        this.button.textContent = w.why === 'exclusion.by_hand' ? 'Include it again' : 'Exclude this window';
        this.button.hidden = Boolean(w.why) && w.why !== 'exclusion.by_hand';
        this.drawStrip();
        const mine = `${this.axis} ${number}`;
        this.wanted = mine;
        let f;
        try {
            f = await getJson(this.box.dataset.windows.replace('/yaw/0.json', `/${this.axis}/${number}.json`));
        } catch (error) {
            say(error.message, true);
            return;
        }
        if (this.wanted !== mine || !this.shown) return;
        document.getElementById('frame-says').textContent = w.why
            ? `Left out: ${JSON.parse(this.box.dataset.words)[w.why]}.`
            : `up to ${f.largest_dps.toFixed(0)} deg/s, ${w.size_dps.toFixed(0)} as its edges count · ` +
              `${(100 * f.own_share).toFixed(0)} % of its curve measured here`;
        this.draw(f, w);
        this.box.dataset.drawn = mine;
    }

    draw(f, w) {
        const t = f.setpoint.map((_, i) => w.at_s + i / f.rate_hz);
        plot(this.motion, {
            series: [line('rotation', `--${this.axis}`, { width: 1.4 }), line('asked', '--ink', { dash: [6, 4], width: 1.8 })],
            data: [t, f.rate, f.setpoint],
            names: [this.axis, 'asked'],
            x: 's',
            y: 'deg/s',
            right: 72,
            range: (u, lo, hi) => [lo - 0.08 * (hi - lo) - 5, hi + 0.08 * (hi - lo) + 5],
            reading: (i) =>
                this.read(
                    i == null ? '' : `${t[i].toFixed(3)} s  asked ${f.setpoint[i].toFixed(0)}  rotation ${f.rate[i].toFixed(0)} deg/s`,
                ),
        });
        const whole = this.step0;
        const x = f.curve.slice(0, Math.round(300 / f.step_ms) + 1).map((_, i) => i * f.step_ms);
        const on = (values, step) => x.map((ms) => values[Math.round(ms / step)] ?? null);
        plot(this.curve, {
            series: [
                line('asked', '--ink-soft', { dash: [6, 4], width: 1 }),
                line('whole_flight', '--measured', { width: 3 }),
                line('this_window', `--${this.axis}`, { width: 1.8 }),
            ],
            data: [x, x.map(() => 1), on(whole.values, whole.step_ms), on(f.curve, f.step_ms)],
            names: ['', 'flight', 'window'],
            x: 'ms after the stick',
            y: 'share of what was asked',
            right: 52,
            range: (u, lo, hi) => [Math.min(-0.2, Math.max(-1, lo)), Math.max(1.5, Math.min(2.5, hi + 0.1))],
            reading: (i) => this.read(i == null ? '' : `${x[i].toFixed(0)} ms  this window ${f.curve[i].toFixed(2)}`),
        });
        exports(this.motion, `window-${this.axis}-${w.at_s.toFixed(2)}s`, () => ['time_s', 'rate_dps', 'setpoint_dps']);
    }

    // Bars over the flight: height by what was asked; used ones filled, left-out ones hollow, struck ones crossed.
    drawStrip() {
        if (!this.shown || !this.step0) return;
        const w = this.strip.clientWidth;
        const h = this.strip.clientHeight;
        if (!w) return;
        const g = sized(this.strip);
        const list = this.step0.windows;
        const top = Math.max(1, ...list.map((one) => one.size_dps));
        const each = list.length > 1 ? list[1].at_s - list[0].at_s : this.step0.window_s;
        const x = (s) => ((s - this.start()) / this.span()) * w;
        const bar = Math.max(1.5, x(this.start() + each) - 1.5);
        const base = h - 14;
        list.forEach((one, i) => {
            const left = x(one.at_s + this.step0.window_s / 2) - bar / 2;
            const tall = 3 + (one.size_dps / top) * (base - 6);
            g.strokeStyle = ink(one.why ? '--ink-soft' : `--${this.axis}`);
            g.fillStyle = ink(`--${this.axis}`);
            g.lineWidth = 1;
            if (one.why) g.strokeRect(left + 0.5, base - tall, bar - 1, tall);
            else g.fillRect(left, base - tall, bar, tall);
            if (one.why === 'exclusion.by_hand') {
                g.strokeStyle = ink('--stop');
                g.lineWidth = 2;
                g.beginPath();
                g.moveTo(left - 1, base);
                g.lineTo(left + bar + 1, base - tall);
                g.stroke();
            }
            if (i === this.at[this.axis]) {
                g.strokeStyle = ink('--accent');
                g.lineWidth = 2;
                g.strokeRect(x(one.at_s), 1, x(one.at_s + this.step0.window_s) - x(one.at_s), base);
            }
        });
        g.fillStyle = ink('--ink-soft');
        g.textAlign = 'left';
        g.fillText(`${this.start().toFixed(0)} s`, 1, h - 2);
        g.textAlign = 'right';
        g.fillText(`${(this.start() + this.span()).toFixed(0)} s`, w - 1, h - 2);
        g.textAlign = 'center';
        g.fillText('filled: used   hollow: left out   crossed: excluded by you', w / 2, h - 2);
    }

    async strike() {
        const w = this.step0?.windows[this.at[this.axis]];
        if (!w || (w.why && w.why !== 'exclusion.by_hand')) return;
        this.button.disabled = true;
        try {
            const { said } = await post(this.box.dataset.strike, { axis: this.axis, at: w.at_s, out: w.why ? '0' : '1' });
            say(said);
            refreshPage();
        } catch (error) {
            say(error.message, true);
        } finally {
            this.button.disabled = false;
        }
    }
}
