// What many cost: pages of a craft with a thousand logs, and two hundred who look at once; run by `bin/bench crowd`.
const [base] = process.argv.slice(2);
const CLIENTS = 200;
const SECONDS = 60;
const PAUSE_MS = 2000;

const at = (times, share) => [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(share * times.length))];
const say = (what, times) =>
    console.log(`${what.padEnd(58)} p50 ${at(times, 0.5).toFixed(0).padStart(6)} ms   p95 ${at(times, 0.95).toFixed(0).padStart(6)} ms`);
const wait = (ms) => new Promise((done) => setTimeout(done, ms));

async function ask(path) {
    const began = performance.now();
    const response = await fetch(base + path);
    const bytes = (await response.arrayBuffer()).byteLength;
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
    return { took: performance.now() - began, bytes };
}

const SHEETS = ['51', '52', '53', '54', '55', '61', '62', '63', '71', '73'];
for (const path of ['/', ...SHEETS.map((number) => `/craft/curlew/${number}`)]) {
    const times = [];
    let bytes = 0;
    for (let n = 0; n < 12; n++) {
        const one = await ask(path);
        if (n > 1) times.push(one.took);
        bytes = one.bytes;
    }
    say(`${path}, alone (${(bytes / 1024).toFixed(0)} kB)`, times);
}

const pages = [];
const lives = [];
let refused = 0;
const until = performance.now() + 1000 * SECONDS;
async function client(n) {
    await wait((PAUSE_MS * n) / CLIENTS);
    for (let i = n; performance.now() < until; i++) {
        const live = i % 4 !== 0;
        try {
            const { took } = await ask(live ? '/craft/curlew/live.json' : `/craft/curlew/${SHEETS[(i >> 2) % SHEETS.length]}`);
            (live ? lives : pages).push(took);
        } catch {
            refused += 1;
        }
        await wait(PAUSE_MS);
    }
}
await Promise.all(Array.from({ length: CLIENTS }, (_, n) => client(n)));
say(`${CLIENTS} who look every ${PAUSE_MS / 1000} s, for ${SECONDS} s: ${pages.length} pages`, pages);
say(`  and ${lives.length} live facts; ${refused} refused or broken`, lives);
