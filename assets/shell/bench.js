// The bench strip shows what moves by itself: volts, turning motors, mishaps. Its hands are forms.
import { attach } from '../_parts/attach.js';
import { say } from './said.js';

let mishap = '';
let beeped = 0;

// The craft's beeper, where sound is wanted: now and then below the warning level, on and on at flight end.
function beep(alarm) {
    const every = { warns: 3000, ends: 500 }[alarm];
    if (!every || localStorage.getItem('sound') !== '1' || Date.now() - beeped < every) return;
    beeped = Date.now();
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    tone.frequency.value = 2300;
    tone.connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.12);
}

attach('#bench', (strip, signal) => {
    const show = ({
        detail: {
            now: { bench: b },
        },
    }) => {
        const set = (key, text) => {
            const el = strip.querySelector(`[data-live-${key}]`);
            if (el && el.textContent !== text) el.textContent = text;
        };
        set('pack', b.pack ? `${b.pack_v.toFixed(1)} V` : 'off');
        set('meter', `${(b.pack_v ?? 0).toFixed(2)} V`);
        const t = b.turning;
        const one = t.length ? `${t[0].place.replace('_', ' ')} turns ${t[0].direction > 0 ? '↻' : '↺'}` : 'motors still';
        set('turning', t.length > 1 ? `${t.length} motors turn` : one);
        set('alarm', { warns: 'beeps: pack low', ends: 'beeps without end: land' }[b.alarm] ?? '');
        beep(b.alarm);
        for (const m of strip.querySelectorAll('[data-motor]'))
            m.classList.toggle(
                'turns',
                t.some((r) => r.place === m.dataset.motor),
            );
        strip.querySelector('.craft-there').dataset.on = t.length ? '1' : '0';
        if (b.mishap && b.mishap !== mishap) say(b.mishap, true);
        mishap = b.mishap;
    };
    document.addEventListener('live', show, { signal });
});
