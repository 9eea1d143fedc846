// Sheet 15, spin check: a pad is held and turns; its wire is pulled to the motor that moved; the arc there is dragged its way.
import { attach } from '../_parts/attach.js';
import { post } from '../shell/http.js';
import { look } from '../shell/live.js';
import { fail, held, letGo, spaceHolds } from './hold.js';

const PULLED_PX = 6;
const NEAR = 64;
const TURNED_DEG = 25;

attach('#spin-drawing', (svg, signal) => {
    const on = (name, way) => svg.addEventListener(name, way, { signal });
    const rubber = () => document.getElementById('rubber');
    const point = (e) => new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const middle = (mark) => ({ x: Number(mark.getAttribute('cx')), y: Number(mark.getAttribute('cy')) });
    const motors = () => [...svg.querySelectorAll('[data-motor]')];
    const ofMotor = (place) => middle(svg.querySelector(`#place-${place} .motor`));
    const round = () => svg.dataset.round.split(',');
    let focusNext = null;
    let wire = null;

    const say = (pad, place, way) => {
        const which = document.getElementById('which');
        which.elements.pad.value = pad;
        which.elements.place.value = place;
        which.requestSubmit(way ? which.querySelector(`[data-way="${way}"]`) : undefined);
    };

    let spinning = null;
    const { start, stop } = held(
        async () => {
            await post(svg.dataset.url, { pad: Number(spinning.dataset.pad) });
            look();
        },
        () => {
            const pad = spinning;
            pad.classList.remove('held');
            post(svg.dataset.url, { pad: Number(pad.dataset.pad), stop: '1' }).then(look, fail);
        },
    );
    const hold = (pad) => {
        if ('waits' in svg.dataset) return;
        stop();
        spinning = pad;
        pad.classList.add('held');
        start();
    };

    const drop = () => {
        wire = null;
        rubber().setAttribute('hidden', '');
        for (const one of motors()) one.classList.remove('chosen');
    };
    const pull = (pad, to, place) => {
        wire = { pad, place };
        const from = middle(pad.querySelector('circle'));
        rubber().removeAttribute('hidden');
        rubber().setAttribute('d', `M${from.x} ${from.y}L${to.x.toFixed(0)} ${to.y.toFixed(0)}`);
        for (const one of motors()) one.classList.toggle('chosen', one.dataset.motor === place);
    };
    const draw = () => {
        const { pad, place } = wire;
        drop();
        if (place === null || 'waits' in svg.dataset) return;
        focusNext = `arc-${place}`;
        say(pad.dataset.pad, place, 0);
    };
    const nearest = (p) => {
        const far = (m) => Math.hypot(p.x - ofMotor(m.dataset.motor).x, p.y - ofMotor(m.dataset.motor).y);
        const [first] = motors().sort((a, b) => far(a) - far(b));
        return first && far(first) < NEAR ? first.dataset.motor : null;
    };

    const follow = (move, end) => {
        const pulled = new AbortController();
        window.addEventListener('pointermove', move, { signal: pulled.signal });
        for (const name of ['pointerup', 'pointercancel']) {
            window.addEventListener(
                name,
                (e) => {
                    pulled.abort();
                    end(e);
                },
                { signal: pulled.signal },
            );
        }
        signal.addEventListener('abort', () => pulled.abort(), { signal: pulled.signal });
    };
    const pullWire = (pad, e) => {
        const from = { x: e.clientX, y: e.clientY };
        hold(pad);
        follow(
            (m) => {
                if (wire === null && Math.hypot(m.clientX - from.x, m.clientY - from.y) < PULLED_PX) return;
                pull(pad, point(m), nearest(point(m)));
            },
            (u) => {
                stop();
                if (wire === null) return;
                if (u.type === 'pointercancel') drop();
                else draw();
            },
        );
    };
    const turnArc = (arc, e) => {
        const at = ofMotor(arc.dataset.arc);
        const angle = (m) => (Math.atan2(point(m).y - at.y, point(m).x - at.x) * 180) / Math.PI;
        const was = Number(arc.dataset.way);
        let last = angle(e);
        let turned = 0;
        follow(
            (m) => {
                turned += ((angle(m) - last + 540) % 360) - 180;
                last = angle(m);
                arc.dataset.way = Math.abs(turned) < TURNED_DEG ? was : Math.sign(turned);
            },
            () => turn(arc, Number(arc.dataset.way), was),
        );
    };
    const turn = (arc, way, was) => {
        if (way === was) return;
        focusNext = 'next';
        say(arc.dataset.pad, arc.dataset.arc, way);
    };

    on('pointerdown', (e) => {
        const pad = e.target.closest('[data-pad]:not([data-arc])');
        const arc = e.target.closest('[data-arc]');
        if (!pad && !arc) return;
        e.preventDefault();
        (pad ?? arc).focus();
        if (pad) pullWire(pad, e);
        else turnArc(arc, e);
    });
    on('keydown', (e) => {
        const pad = e.target.closest('[data-pad]:not([data-arc])');
        const arc = e.target.closest('[data-arc]');
        const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
        if (arc && step) {
            e.preventDefault();
            turn(arc, { ArrowRight: 1, ArrowUp: 1 }[e.key] ?? -1, Number(arc.dataset.way));
        }
        if (!pad) return;
        if (step || e.key === ' ' || e.key === 'Enter') e.preventDefault();
        if (e.key === ' ' && !e.repeat) hold(pad);
        if (e.key === 'Escape') drop();
        if (e.key === 'Enter' && wire) {
            stop();
            draw();
        }
        if (!step) return;
        const places = round();
        const at = places.indexOf(wire?.place ?? pad.dataset.place);
        const place = places[at < 0 ? (step > 0 ? 0 : places.length - 1) : (at + step + places.length) % places.length];
        pull(pad, ofMotor(place), place);
        rubber().dataset.place = place;
    });
    on('keyup', (e) => e.key === ' ' && stop());
    on('focusout', () => {
        stop();
        if (wire) drop();
    });
    letGo(stop, signal);
    spaceHolds(() => {
        const pad = document.getElementById(`pad-${svg.dataset.next}`);
        pad?.focus();
        if (pad) hold(pad);
    }, signal);

    // After an answer the hand is where it goes on: at the arc of the new wire, then at the next pad.
    return () => {
        if (focusNext === null) return;
        document.getElementById(focusNext === 'next' ? `pad-${svg.dataset.next}` : focusNext)?.focus();
        focusNext = null;
    };
});
