// Times pages and the live state with four clients at once; run by bin/bench.
const TWELVE = [
    ...['roll', 'pitch', 'yaw'].flatMap((axis) => [`setpoint_${axis}_dps`, `rate_measured_${axis}_dps`, `rate_filtered_${axis}_dps`]),
    'throttle_pct',
    'output_front_left_pct',
    'output_rear_left_pct',
];
const base = process.argv[2];
const send = (path, body) =>
    fetch(base + path, { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-Ortholex': '1' }, body: JSON.stringify(body) });

async function load(paths, rounds) {
    const times = [];
    const client = async (offset) => {
        for (let i = 0; i < rounds; i++) {
            const t = performance.now();
            const response = await fetch(base + paths[(i + offset) % paths.length]);
            await response.arrayBuffer();
            if (!response.ok) throw new Error(`${paths[(i + offset) % paths.length]}: ${response.status}`);
            times.push(performance.now() - t);
        }
    };
    await Promise.all([0, 1, 2, 3].map(client));
    return times.sort((a, b) => a - b);
}

const at = (times, share) => times[Math.min(times.length - 1, Math.floor(share * times.length))];
const say = (what, value, bar) =>
    console.log(
        `${what.padEnd(58)} ${value.toFixed(1).padStart(8)} ms   bar ${bar.toFixed(1).padStart(6)}   ratio ${(value / bar).toFixed(2)}`,
    );

await send('/craft/curlew/bench', { thing: 'cable', to: '1' });
await new Promise((r) => setTimeout(r, 900));
await send('/craft/curlew/link', {});
const pages = [
    '/',
    ...['11', '12', '51', '52', '53', '54', '61', '62', '71', '72', '73', '13', '21', '22', '23'].map((s) => `/craft/curlew/${s}`),
];
await load(pages, 40);
const p = await load(pages, 130);
say('pages, 4 clients, p50', at(p, 0.5), 30);
say('pages, 4 clients, p95', at(p, 0.95), 60);
const l = await load(['/craft/curlew/live.json'], 250);
say('live state of the bench, 4 clients, p50', at(l, 0.5), 12);
// Crafts fly their past side by side, so that numbers of logs come as they come.
const [, log] = /data-log="(\d+)"/.exec(await (await fetch(`${base}/craft/curlew/51`)).text());
const samples = `/craft/curlew/logs/${log}/samples?traces=${TWELVE.join(',')}`;
const s = await load(
    Array.from({ length: 12 }, (_, i) => `${samples}&from=${i * 4000}&to=${80000 - i * 3000}`),
    100,
);
say('samples of 12 traces at some zoom, 4 clients, p95', at(s, 0.95), 40);
// The sticks as an open sheet asks for them: ten times a second, each time for the frames that are new.
await send('/craft/curlew/bench', { thing: 'transmitter', to: '1' });
const sticks = async (seconds) => {
    const times = [];
    const client = async (offset) => {
        let since = 0;
        await new Promise((r) => setTimeout(r, 25 * offset));
        for (const end = performance.now() + 1000 * seconds; performance.now() < end;) {
            const t = performance.now();
            const response = await fetch(`${base}/craft/curlew/radio/now.json?since=${since}`);
            const now = await response.json();
            since = now.newest;
            if (now.channels.length !== 16) throw new Error(`no channels arrive: ${JSON.stringify(now).slice(0, 200)}`);
            times.push(performance.now() - t);
            await new Promise((r) => setTimeout(r, Math.max(0, 100 - (performance.now() - t))));
        }
    };
    await Promise.all([0, 1, 2, 3].map(client));
    return times.sort((a, b) => a - b);
};
await new Promise((r) => setTimeout(r, 600));
await sticks(2);
const c = await sticks(12);
say(`channels at 10 Hz, 4 clients, ${c.length} answers, p95`, at(c, 0.95), 20);
for (const sheet of pages) {
    const t = await load([sheet], 12);
    console.log(`  ${sheet.padEnd(56)} ${at(t, 0.5).toFixed(1).padStart(8)} ms p50`);
}
// The Workshop of a builder with many craft: known by their logs alone, which costs it no less than those on the bench.
for (let n = 4; n <= 40; n++) await send('/workshop/by-logs', { name: `Friend ${n}` });
const alone = [];
for (let i = 0; i < 80; i++) {
    const t = performance.now();
    await (await fetch(`${base}/`)).arrayBuffer();
    if (i >= 20) alone.push(performance.now() - t);
}
alone.sort((a, b) => a - b);
say('Workshop of 40 craft, one after the other, p50', at(alone, 0.5), 30);
