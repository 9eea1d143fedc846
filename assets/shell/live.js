// The moment, polled: bench, link, work under way. Others listen for "live" on the document; what a page must be drawn anew
// for, it says itself in data-refresh-on.
import { attach } from '../_parts/attach.js';
import { getJson, post } from './http.js';
import { say } from './said.js';
import { refreshPage } from './turbo.js';

export let live = null;
let craft = '';
let busy = false;
let timer;

attach('body[data-live]', (body) => {
    const begin = () => {
        if (craft !== body.dataset.craft) live = null;
        craft = body.dataset.craft;
        give(JSON.parse(body.dataset.live), false);
        clearTimeout(timer);
        timer = setTimeout(tick, 500);
    };
    begin();
    return begin;
});

async function tick() {
    if (!document.body.dataset.live) return;
    if (!document.hidden) await look();
    clearTimeout(timer);
    timer = setTimeout(tick, live?.jobs.some((j) => j.open) ? 350 : live?.link.linked ? 500 : 1200);
}

export async function look() {
    if (busy) return;
    busy = true;
    const asked = craft;
    try {
        const now = await getJson(`/craft/${asked}/live.json`);
        if (asked === craft) give(now, true);
        document.body.classList.remove('offline');
    } catch {
        document.body.classList.add('offline');
    } finally {
        busy = false;
    }
}

// What has become otherwise, under the names that pages listen for.
const WATCHED = {
    linked: (s) => [s.link.linked, s.link.bootloader],
    escs: (s) => s.link.escs,
    cable: (s) => s.bench.cable,
    pack: (s) => s.bench.pack,
    props: (s) => [s.bench.props, s.bench.props_declared_off],
    ready: (s) => [s.bench.props, s.bench.transmitter, s.bench.outdoors, s.bench.pack],
    tones: (s) => s.bench.tones,
    staged: (s) => s.staged,
    jobs: (s) => s.jobs.map((j) => [j.id, j.state, j.result.log]),
};

function give(now, maybeStale) {
    const before = live;
    live = now;
    document.dispatchEvent(new CustomEvent('live', { detail: { now, before } }));
    readEscs(now);
    if (!before || !maybeStale) return;
    const page = document.querySelector('[data-refresh-on]')?.dataset.refreshOn.split(' ') ?? [];
    const other = page.some((name) => JSON.stringify(WATCHED[name]?.(before)) !== JSON.stringify(WATCHED[name]?.(now)));
    if (other) refreshPage();
}

// ESCs answer once the pack is on while the board is linked: they are read by themselves the moment it comes. Where that fails, as when
// the link is slow, they are asked again, ever more seldom.
const AGAIN_MS = [2000, 4000, 8000, 16000, 30000];
let asking = false;
let times = 0;
let due = 0;
async function readEscs({ bench, link }) {
    if (!link.linked || !bench.pack || link.escs || link.bootloader || link.flashing) {
        times = due = 0;
        return;
    }
    const reads = document.querySelector('[data-reads-escs]');
    if (asking || !reads || performance.now() < due) return;
    asking = true;
    const isFirst = times === 0;
    try {
        await post(reads.dataset.readsEscs);
        refreshPage();
    } catch (error) {
        if (isFirst) say(error.message, true);
    } finally {
        asking = false;
        due = performance.now() + AGAIN_MS[Math.min(times, AGAIN_MS.length - 1)];
        ++times;
    }
}
