// The whole book on paper: its sheets are drawn one after the other, each as high as what it shows.
import { attach } from '../_parts/attach.js';

const AT_ONCE = 2;
const PATIENCE_MS = 20_000;
// What is drawn from figures that are fetched first.
const DRAWN_MS = 1200;

const wait = (ms) => new Promise((done) => setTimeout(done, ms));

async function draw(frame, signal) {
    const loaded = new Promise((done) => frame.addEventListener('load', done, { once: true }));
    frame.src = frame.dataset.leaf;
    await Promise.race([loaded, wait(PATIENCE_MS)]);
    for (let until = Date.now() + PATIENCE_MS; Date.now() < until && !signal.aborted; await wait(50))
        if (frame.contentDocument?.documentElement.dataset.started) break;
    await wait(DRAWN_MS);
    const body = frame.contentDocument?.getElementById('body');
    if (body) frame.style.height = `${Math.max(frame.offsetHeight, Math.ceil(body.getBoundingClientRect().bottom))}px`;
}

attach('[data-leaves]', (book, signal) => {
    const said = document.getElementById('leaves-drawn');
    const frames = [...book.querySelectorAll('[data-leaf]')];
    const left = [...frames];
    let drawn = 0;
    const work = async () => {
        for (let frame = left.shift(); frame && !signal.aborted; frame = left.shift()) {
            await draw(frame, signal);
            drawn += 1;
            said.textContent = drawn < frames.length ? `${drawn} of ${frames.length} sheets are drawn` : 'All sheets are drawn.';
        }
    };
    Promise.all(Array.from({ length: AT_ONCE }, work)).then(() => {
        if (!signal.aborted) book.querySelector('[data-print]').disabled = false;
    });
});
