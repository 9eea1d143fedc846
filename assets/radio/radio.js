// Sheet 21: the sticks and rulers at every moment, as the board has them; what they mean comes from the server.
import { attach } from '../_parts/attach.js';
import { getJson } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const EVERY_MS = 90;
const TRAIL = 3000;

attach('#radio-drawing', (svg, signal) => {
    let since = 0;
    let trail = [];
    let timer;
    const order = svg.dataset.order.split(' ');
    const half = Number(svg.dataset.half);
    const place = (us) => (half * (us - 1500)) / 500;

    const draw = (now) => {
        trail.push(...now.trail);
        trail = trail.slice(-TRAIL);
        const last = trail.at(-1);
        for (const g of svg.querySelectorAll('.stick')) {
            const [xi, yi] = [order.indexOf(g.dataset.x), order.indexOf(g.dataset.y)];
            const up = g.dataset.y === 'pitch' ? 1 : -1;
            const known = trail.filter((row) => row[xi] !== null && row[yi] !== null);
            g.querySelector('[data-trail]').setAttribute(
                'd',
                known.map((row, i) => `${i ? 'L' : 'M'}${place(row[xi]).toFixed(1)} ${(up * place(row[yi])).toFixed(1)}`).join(''),
            );
            const there = last && now.channels.length > 0 && last[xi] !== null && last[yi] !== null;
            const tip = g.querySelector('[data-tip]');
            tip.toggleAttribute('hidden', !there);
            const at = there ? [place(last[xi]), up * place(last[yi])] : [0, 0];
            tip.setAttribute('cx', at[0].toFixed(1));
            tip.setAttribute('cy', at[1].toFixed(1));
            g.querySelector('[data-shaft]').setAttribute('d', there ? `M0 0L${at[0].toFixed(1)} ${at[1].toFixed(1)}` : '');
            for (const [axis, i] of [
                [g.dataset.x, xi],
                [g.dataset.y, yi],
            ])
                g.querySelector(`[data-us=${axis}]`).textContent = there ? `${last[i].toFixed(0)} µs` : '';
        }
        for (const r of svg.querySelectorAll('.ruler')) {
            const us = now.channels[Number(r.dataset.channel) - 1];
            const mark = r.querySelector('[data-mark]');
            mark.toggleAttribute('hidden', us === undefined);
            if (us !== undefined) mark.setAttribute('transform', `translate(${(560 + (us - 800) / 5).toFixed(1)} 0)`);
            r.querySelector('[data-value]').textContent = us === undefined ? '' : us.toFixed(0);
        }
        const lost = document.querySelector('[data-live-lost]');
        if (lost && now.lost_pct !== null) lost.textContent = `${now.lost_pct.toFixed(1)} %`;
    };

    let told = '';
    const complain = (words) => {
        const spot = document.getElementById('radio-problem');
        if (!spot || words === told) return;
        told = words;
        spot.textContent = words;
        spot.hidden = words === '';
    };
    const tick = async () => {
        if (signal.aborted) return;
        if (!document.hidden) {
            try {
                const now = await getJson(`${svg.dataset.url}?since=${since}`);
                if (now.newest < since) trail = [];
                since = now.newest;
                draw(now);
                if (now.step !== svg.dataset.step || now.state !== svg.dataset.state) refreshPage();
                complain('');
            } catch (error) {
                // The shell says when the server does not answer at all.
                if (error.status) complain(error.message);
            }
        }
        timer = setTimeout(tick, EVERY_MS);
    };
    signal.addEventListener('abort', () => clearTimeout(timer));
    tick();
});
