// L over frequency in the plane: how near it comes to −1 is how near the loop is to oscillating.
const NS = 'http://www.w3.org/2000/svg';
const [LEFT, RIGHT, LOW, HIGH] = [-3.1, 1.3, -1.55, 1.05];

export const make = (name, attributes, text = '') => {
    const el = document.createElementNS(NS, name);
    for (const [key, v] of Object.entries(attributes)) el.setAttribute(key, v);
    el.textContent = text;
    return el;
};

export function nyquist(box, loops, read) {
    const [w, h] = [box.clientWidth, Math.max(160, box.clientHeight)];
    const scale = Math.min(w / (RIGHT - LEFT), h / (HIGH - LOW));
    const x = (re) => w / 2 + (re - (LEFT + RIGHT) / 2) * scale;
    const y = (im) => h / 2 - (im - (LOW + HIGH) / 2) * scale;
    const svg = make('svg', {
        viewBox: `0 0 ${w} ${h}`,
        width: w,
        height: h,
        class: 'nyquist',
        role: 'img',
        'aria-label': 'The loop around −1',
    });
    svg.append(make('path', { class: 'rule', d: `M0 ${y(0)}H${w}M${x(0)} 0V${h}` }));
    svg.append(make('circle', { class: 'unit', cx: x(0), cy: y(0), r: scale }));
    svg.append(make('circle', { class: 'keep', cx: x(-1), cy: y(0), r: scale / 2 }));
    svg.append(make('path', { class: 'point', d: `M${x(-1) - 5} ${y(0)}h10M${x(-1)} ${y(0) - 5}v10` }));
    svg.append(make('text', { x: x(-1), y: y(0) + scale / 2 + 14, class: 'mid' }, 'keep out: modulus margin 0.5'));
    svg.append(make('text', { x: x(0) + 4, y: y(1) + 12 }, 'gain 1'));
    const named = [];
    for (const [name, { curve }] of Object.entries(loops)) {
        const d = curve.map(([, re, im], i) => `${i ? 'L' : 'M'}${x(re).toFixed(1)} ${y(im).toFixed(1)}`).join('');
        svg.append(make('path', { class: `curve ${name} axis-${box.dataset.axis}`, d }));
        let [nearest, least] = [curve[0], Infinity];
        for (const p of curve) {
            const far = Math.hypot(1 + p[1], p[2]);
            if (far < least) [nearest, least] = [p, far];
        }
        svg.append(
            make('path', { class: `near ${name} axis-${box.dataset.axis}`, d: `M${x(-1)} ${y(0)}L${x(nearest[1])} ${y(nearest[2])}` }),
        );
        named.push({ name, text: `${name}: nearest ${least.toFixed(2)} at ${nearest[0].toFixed(0)} Hz` });
    }
    named.forEach(({ name, text }, i) =>
        svg.append(make('text', { x: 12, y: 18 + 16 * i, class: `named ${name} axis-${box.dataset.axis}` }, text)),
    );
    svg.addEventListener('pointermove', (e) => {
        const r = svg.getBoundingClientRect();
        const [px, py] = [e.clientX - r.left, e.clientY - r.top];
        let best = null;
        for (const [name, { curve }] of Object.entries(loops))
            for (const [hz, re, im] of curve) {
                const d = Math.hypot(x(re) - px, y(im) - py);
                if (!best || d < best.d) best = { d, name, hz, re, im };
            }
        if (best)
            read(
                `${best.name} ${best.hz.toFixed(1)} Hz  ${best.re.toFixed(2)} ${best.im < 0 ? '−' : '+'} ${Math.abs(best.im).toFixed(2)}i`,
            );
    });
    box.replaceChildren(svg);
}
