// Sheet 12: the flash drawn page by page, files from disk, and the write.
import { sized } from '../_parts/canvas.js';
import { at, post, say, upload } from '../shell/http.js';
import { refresh } from '../shell/live.js';
import { ink } from '../_parts/ink.js';

export function startFirmware() {
  const map = document.getElementById('flash-map');
  if (!map) return;
  let share = 0;
  let phase = '';
  const draw = () => drawMap(map, share, phase);
  draw();
  document.querySelector('.shelf .chosen')?.scrollIntoView({ block: 'nearest' });
  document.addEventListener('theme', draw);
  new ResizeObserver(draw).observe(map);
  document.addEventListener('live', ({ detail: { now } }) => {
    const job = now.jobs.find((j) => j.kind === 'flash' && j.open);
    const inline = job && document.querySelector(`[data-job-inline="${job.id}"]`);
    if (inline) { inline.querySelector('[data-job-doing]').textContent = job.doing; inline.querySelector('progress').value = job.progress; }
    if (job) { share = job.step.of ? job.step.done / job.step.of : job.progress > 0.9 ? 1 : 0; phase = job.step.phase ?? phase; map.querySelector('[data-flash-words]').textContent = job.doing; draw(); }
  });
  document.addEventListener('job-ended', (e) => { if (e.detail.kind === 'flash') location.href = `${at()}/12`; });
  document.addEventListener('submit', async (e) => {
    const form = e.target.closest('form[data-write]');
    if (!form) return;
    e.preventDefault();
    const data = new FormData(form);
    write(form.dataset.write, { image: form.dataset.image, wipe: data.get('wipe') ?? '', typed: data.get('typed') ?? '' }, form);
  });
  document.addEventListener('click', (e) => {
    const button = e.target.closest('[data-resume]');
    if (button) write(button.dataset.write, { image: button.dataset.resume, wipe: button.dataset.wipe, typed: button.dataset.typed, resume: '1' }, null);
  });
  const input = document.querySelector('[data-hex]');
  input?.addEventListener('change', async () => {
    const problem = document.getElementById('hex-problem');
    problem.hidden = true;
    if (!input.files.length) return;
    try {
      const id = await upload(input.files[0], () => {});
      const { image } = await post(input.dataset.hex, { upload: id });
      location.href = `${input.dataset.here}?image=${image}`;
    } catch (error) { problem.textContent = `${input.files[0].name}: ${error.message}`; problem.hidden = false; input.value = ''; }
  });
}

async function write(url, body, form) {
  const problem = form?.querySelector('.problem');
  if (problem) problem.hidden = true;
  try { await post(url, body); await refresh(); location.href = `${at()}/12`; } catch (error) {
    if (problem) { problem.textContent = error.message; problem.hidden = false; form.elements[error.field]?.focus?.(); } else say(error.message, true);
  }
}

function drawMap(map, share, phase) {
  const canvas = map.querySelector('canvas');
  const pages = Number(map.dataset.pages) || 512;
  const first = Number(map.dataset.first);
  const count = Number(map.dataset.count);
  const width = map.clientWidth;
  const height = canvas.clientHeight || 150;
  const g = sized(canvas, width, height);
  const columns = Math.ceil(Math.sqrt((pages * width) / height));
  const rows = Math.ceil(pages / columns);
  const w = width / columns;
  const h = height / rows;
  const active = phase !== '';
  const covered = active && !count ? Math.round(pages * 0.32) : count;
  for (let p = 0; p < pages; p++) {
    const inside = p >= first && p < first + covered;
    const done = inside && active && p < first + share * covered;
    g.fillStyle = ink(done ? (phase === 'verify' ? '--good' : '--accent') : inside ? (active && phase === 'verify' ? '--accent' : '--accent-wash') : '--fill');
    g.fillRect((p % columns) * w + 0.5, Math.floor(p / columns) * h + 0.5, w - 1, h - 1);
    if (inside && !active) { g.strokeStyle = ink(map.dataset.outside === '1' ? '--stop' : '--accent'); g.lineWidth = 0.6; g.strokeRect((p % columns) * w + 1, Math.floor(p / columns) * h + 1, w - 2, h - 2); }
  }
}
