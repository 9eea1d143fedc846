// The moment, polled: bench, link, work under way. Others listen for "live" on the document.
import { getJson, at } from './http.js';

export let live = null;
let busy = false;

export function startLive() {
  if (!document.body.dataset.live) return;
  give(JSON.parse(document.body.dataset.live));
  const tick = async () => {
    if (!document.hidden) await refresh();
    setTimeout(tick, live?.jobs.some((j) => j.open) ? 350 : live?.link.linked ? 500 : 1200);
  };
  setTimeout(tick, 500);
}

export async function refresh() {
  if (busy) return;
  busy = true;
  try { give(await getJson(`${at()}/live.json`)); document.body.classList.remove('offline'); } catch { document.body.classList.add('offline'); } finally { busy = false; }
}

export function give(state) {
  const before = live;
  live = state;
  document.dispatchEvent(new CustomEvent('live', { detail: { now: state, before } }));
}
