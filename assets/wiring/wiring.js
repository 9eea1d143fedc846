// Sheet 13: wires are drawn by dragging from pin to pad, or by Enter on one and then on the other.
import { attach } from '../_parts/attach.js';
import { post } from '../shell/http.js';

attach('#wiring', (svg, signal) => {
    const rubber = () => document.getElementById('rubber');
    const on = (target, name, way) => target.addEventListener(name, way, { signal });
    const draw = (what, from = '', to = '') => {
        const form = document.getElementById('wire-form');
        form.elements.what.value = what;
        form.elements.from.value = from;
        form.elements.to.value = to;
        form.requestSubmit();
    };
    let from = null;
    const begin = (spot) => {
        from = spot;
        spot.classList.add('begun');
    };
    const end = () => {
        from?.classList.remove('begun');
        from = null;
        rubber().setAttribute('hidden', '');
    };
    const connect = (spot) => {
        const start = from;
        end();
        if (!start || !spot || start === spot) return;
        spot.focus();
        draw('wire', start.dataset.spot, spot.dataset.spot);
    };
    const point = (e) => new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const spotAt = (e) => document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-spot]');

    on(svg, 'pointerdown', (e) => {
        const spot = e.target.closest('[data-spot]');
        if (!spot || from) return;
        e.preventDefault();
        spot.focus();
        begin(spot);
        const pulled = new AbortController();
        window.addEventListener(
            'pointermove',
            (m) => {
                const p = point(m);
                rubber().removeAttribute('hidden');
                rubber().setAttribute('d', `M${spot.dataset.x} ${spot.dataset.y}L${p.x.toFixed(0)} ${p.y.toFixed(0)}`);
            },
            { signal: pulled.signal },
        );
        window.addEventListener(
            'pointerup',
            (u) => {
                pulled.abort();
                connect(spotAt(u));
            },
            { signal: pulled.signal },
        );
    });
    on(svg, 'keydown', (e) => {
        const [spot, wire, jumper] = ['[data-spot]', '.wire', '[data-bridge-pad]'].map((s) => e.target.closest(s));
        if (e.key === 'Escape') end();
        if (wire && (e.key === 'Delete' || e.key === 'Backspace')) {
            e.preventDefault();
            svg.querySelector(`[data-spot="${CSS.escape(wire.dataset.from)}"]`)?.focus();
            draw('cut', wire.dataset.from, wire.dataset.to);
        }
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        if (spot && from) connect(spot);
        else if (spot) begin(spot);
        if (jumper) draw('bridge', jumper.dataset.bridgePad);
    });
    on(svg, 'click', (e) => {
        const jumper = e.target.closest('[data-bridge-pad]');
        if (jumper) draw('bridge', jumper.dataset.bridgePad);
    });
    on(document.getElementById('save-card'), 'click', (e) => save(svg, e.target.dataset.name));
});

// What is heard stands beside the part, not over the page.
attach('form[data-listens]', (form, signal) => {
    form.addEventListener(
        'submit',
        async (e) => {
            e.preventDefault();
            const heard = document.getElementById('heard');
            heard.textContent = 'listening…';
            const asked = { part: form.elements.part.value, every: e.submitter?.value ?? '' };
            try {
                heard.textContent = (await post(form.action, asked)).said;
            } catch (error) {
                heard.textContent = error.message;
            }
        },
        { signal },
    );
});

// The drawing as a file of its own, with the inks it is seen in.
const INKS = ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-family', 'font-size', 'font-weight', 'text-anchor'];

function save(svg, name) {
    const copy = svg.cloneNode(true);
    const originals = svg.querySelectorAll('*');
    copy.querySelectorAll('*').forEach((el, i) => {
        const css = getComputedStyle(originals[i]);
        for (const key of INKS) el.style.setProperty(key, css.getPropertyValue(key));
    });
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }));
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
