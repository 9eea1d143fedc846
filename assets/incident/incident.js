// Sheet 55: asked and flown rotation, and all outputs, around the onset; the motor that lost thrust drawn heavy.
import { attach } from '../_parts/attach.js';
import { sized } from '../_parts/canvas.js';
import { ink } from '../_parts/ink.js';
import { getTraces } from '../shell/http.js';

attach('#incident', (box, signal) => {
    begin(box, signal);
});

async function begin(box, signal) {
    const all = box.dataset.traces.split(',');
    const rates = JSON.parse(box.dataset.rates);
    const rows = ['roll', 'pitch', 'yaw'].map((axis) => ({
        name: `${axis}, deg/s`,
        ink: `--${axis}`,
        traces: [`setpoint_${axis}_dps`, rates[axis]].filter((t) => all.includes(t)),
    }));
    const speed = JSON.parse(box.dataset.speed || 'null');
    rows.push({ name: 'outputs, %', ink: '--ink-soft', traces: all.filter((t) => t.startsWith('output_')), low: 0, high: 100 });
    const wanted = rows.flatMap((r) => r.traces);
    if (speed) rows.push({ name: 'rpm', ink: '--stop', traces: [], speed });
    const head = await getTraces(`${box.dataset.url}?traces=${wanted.join(',')}&from=${box.dataset.from}&to=${box.dataset.to}`);
    if (!head || signal.aborted) return;
    const step = head.pairs ? 2 : 1;
    const data = new Map(Object.entries(head.data));
    const canvas = box.querySelector('canvas');
    const draw = () => {
        const w = box.clientWidth;
        const h = box.clientHeight;
        const g = sized(canvas, w, h);
        const left = 54;
        const right = 118;
        const each = (h - 22) / rows.length;
        box.dataset.size = head.size;
        const x = (i) => left + ((i * head.size) / (box.dataset.to - box.dataset.from)) * (w - left - right);
        rows.forEach((row, n) => {
            const top = n * each + 8;
            const tall = each - 14;
            let [low, high] = [row.low ?? Infinity, row.high ?? -Infinity];
            if (row.speed) {
                [low, high] = [0, Math.max(...row.speed.rpm, ...row.speed.usual) || 1];
            } else if (row.low === undefined) {
                for (const t of row.traces)
                    for (const v of data.get(t)) {
                        low = Math.min(low, v);
                        high = Math.max(high, v);
                    }
                low = Math.min(low, -50);
                high = Math.max(high, 50);
            }
            const y = (v) => top + tall - ((v - low) / (high - low)) * tall;
            g.strokeStyle = ink('--hairline');
            g.lineWidth = 1;
            g.strokeRect(left, top, w - left - right, tall);
            g.fillStyle = ink('--ink-soft');
            g.textAlign = 'right';
            g.fillText(high.toFixed(0), left - 5, top + 9);
            g.fillText(low.toFixed(0), left - 5, top + tall);
            const ends = [];
            for (const t of row.traces) {
                const values = data.get(t);
                const lost = t === `output_${box.dataset.place}_pct`;
                g.strokeStyle = ink(t.startsWith('setpoint') ? '--ink-soft' : lost ? '--stop' : row.ink);
                g.lineWidth = lost ? 2.6 : t.startsWith('setpoint') ? 1.1 : 1.4;
                g.setLineDash(t.startsWith('setpoint') ? [5, 4] : []);
                g.beginPath();
                for (let i = 0; i < head.count; i++) {
                    const v = values[i * step];
                    if (i) g.lineTo(x(i), y(v));
                    else g.moveTo(x(i), y(v));
                }
                g.stroke();
                g.setLineDash([]);
                if (lost) ends.push([y(values[(head.count - 1) * step]), box.dataset.place.replace('_', ' '), '--stop']);
            }
            if (row.speed) drawSpeed(g, row.speed, x, y, box, ends);
            g.textAlign = 'left';
            g.fillStyle = ink('--ink');
            g.fillText(row.name, w - right + 8, top + 10);
            for (const [py, words, colour] of ends) {
                g.fillStyle = ink(colour);
                g.fillText(words, w - right + 8, Math.max(top + 26, Math.min(top + tall, py + 4)));
            }
        });
        const at = left + ((box.dataset.onset - box.dataset.from) / (box.dataset.to - box.dataset.from)) * (w - left - right);
        g.strokeStyle = ink('--accent');
        g.lineWidth = 2;
        g.beginPath();
        g.moveTo(at, 2);
        g.lineTo(at, h - 16);
        g.stroke();
        g.fillStyle = ink('--accent');
        g.textAlign = 'center';
        g.fillText('onset', at, h - 4);
        g.fillStyle = ink('--ink-soft');
        const span = (box.dataset.to - box.dataset.from) / box.dataset.rate;
        g.textAlign = 'right';
        g.fillText(`${(span * 1000).toFixed(0)} ms across`, w - right, h - 4);
    };
    draw();
    const fit = new ResizeObserver(draw);
    fit.observe(box);
    signal.addEventListener('abort', () => fit.disconnect());
    document.addEventListener('theme', draw, { signal });
}

// The logged speed of the motor that is named, against what its output usually gives.
function drawSpeed(g, speed, x, y, box, ends) {
    const rate = Number(box.dataset.rate);
    const onset = box.dataset.onset - box.dataset.from;
    const last = box.dataset.to - box.dataset.from;
    const line = (values, colour, dash, wide) => {
        g.strokeStyle = ink(colour);
        g.lineWidth = wide;
        g.setLineDash(dash);
        g.beginPath();
        let begun = false;
        values.forEach((v, k) => {
            const i = onset + (speed.from + k * speed.step) * rate;
            if (i < 0 || i > last) return;
            if (begun) g.lineTo(x(i / (box.dataset.size || 1)), y(v));
            else g.moveTo(x(i / (box.dataset.size || 1)), y(v));
            begun = true;
        });
        g.stroke();
        g.setLineDash([]);
    };
    line(speed.usual, '--ink-soft', [5, 4], 1.4);
    line(speed.rpm, '--stop', [], 2.6);
    const top = y(Math.max(...speed.rpm, ...speed.usual));
    ends.push([top + 24, '– as logged', '--stop'], [top + 40, '┄ as usual', '--ink-soft']);
}
