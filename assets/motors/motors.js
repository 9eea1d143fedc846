// Sheet 15: the slow rise and the check of rpm feedback, which go on while a button is held; the tones of the ESCs.
import { attach } from '../_parts/attach.js';
import { progress } from '../_parts/progress.js';
import { post } from '../shell/http.js';
import { look } from '../shell/live.js';
import { refreshPage } from '../shell/turbo.js';
import { BEAT_MS, holding } from './hold.js';
import './spin.js';

// All outputs rise by steps of about a second; the last beat of each reads every rpm.
attach('#rise', (button, signal) => {
    const bar = document.getElementById('rise-progress');
    const steps = Number(button.dataset.steps);
    const stepMs = 1050;
    let step = 0;
    const drive = async (ms) => {
        if (ms < BEAT_MS) step = 0;
        const read = ms >= (step + 1) * stepMs - BEAT_MS;
        await post(button.dataset.url, { step, read: read ? '1' : '' });
        look();
        if (read) {
            step += 1;
            progress(bar, step / steps);
        }
        return step >= steps ? 'done' : '';
    };
    holding(button, signal, drive, async (done) => {
        await post(button.dataset.url, { stop: '1' }).catch(() => {});
        progress(bar, 0);
        if (done) refreshPage();
    });
});

attach('#feedback', (button, signal) => {
    const bar = document.getElementById('rise-progress');
    const pads = button.dataset.pads.split(',').map(Number);
    let k = 0;
    let since = 0;
    const drive = async (ms) => {
        if (ms < BEAT_MS) [k, since] = [0, 0];
        const read = ms - since >= 700;
        await post(button.dataset.url, { pad: pads[k], first: k === 0 ? '1' : '', read: read ? '1' : '' });
        look();
        if (read) {
            k += 1;
            since = ms;
            progress(bar, k / pads.length);
        }
        return k >= pads.length ? 'done' : '';
    };
    holding(button, signal, drive, async (done) => {
        await post(button.dataset.url, { stop: '1' }).catch(() => {});
        progress(bar, 0);
        if (done) refreshPage();
    });
});

// The tones of the ESCs, as they are heard; sounded where that is wanted.
const TUNES = { two_rising: [520, 780], three_falling: [780, 620, 490], power_on: [600] };

attach('#sound', (sound, signal) => {
    let heard = null;
    sound.checked = localStorage.getItem('sound') === '1';
    sound.addEventListener('change', () => localStorage.setItem('sound', sound.checked ? '1' : ''), { signal });
    document.addEventListener(
        'live',
        ({ detail: { now } }) => {
            const tones = now.bench.tones;
            if (heard !== null && sound.checked && tones.length && tones.join() !== heard) play(tones.at(-1));
            heard = tones.join();
        },
        { signal },
    );
});

function play(tone) {
    const audio = new AudioContext();
    (TUNES[tone] ?? []).forEach((hz, i) => {
        const beep = audio.createOscillator();
        beep.frequency.value = hz;
        beep.connect(audio.destination);
        beep.start(audio.currentTime + 0.16 * i);
        beep.stop(audio.currentTime + 0.16 * i + 0.12);
    });
}
