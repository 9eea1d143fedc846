// The live attitude, drawn.
export function startIdentity() {
  const box = document.getElementById('attitude');
  if (!box) return;
  const set = (key, text) => { const el = document.querySelector(`[data-live="${key}"]`); if (el) el.textContent = text; };
  document.addEventListener('live', ({ detail: { now } }) => {
    const a = now.link.attitude;
    box.classList.toggle('silent', !a);
    const [roll, pitch] = a ?? [0, 0];
    box.querySelector('[data-turn="roll"]').setAttribute('transform', `rotate(${roll})`);
    box.querySelector('[data-turn="pitch"]').setAttribute('transform', `rotate(${-pitch})`);
    box.querySelector('[data-angle="roll"]').textContent = a ? `roll ${roll.toFixed(1)}°` : 'roll –';
    box.querySelector('[data-angle="pitch"]').textContent = a ? `pitch ${pitch.toFixed(1)}°` : 'pitch –';
    const up = now.link.uptime_s;
    set('uptime', up === null ? '–' : up < 60 ? `${up.toFixed(1)} s` : `${Math.floor(up / 60)} min ${Math.floor(up % 60)} s`);
    set('load', now.link.load_pct === null ? '–' : `${now.link.load_pct.toFixed(0)} %`);
    set('battery', now.link.battery_v === null ? '–' : now.bench.pack ? `${now.link.battery_v.toFixed(2)} V` : 'pack off');
  });
}
