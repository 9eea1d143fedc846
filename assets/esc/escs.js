// Sheet 16: a value for all ESCs at once, what a row does, and catching a dead one at power-on.
import { at, post, say } from '../shell/http.js';
import { refresh } from '../shell/live.js';

export function startEscs() {
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-catch]');
    if (!button) return;
    try { say((await post(button.dataset.url, { place: button.dataset.catch })).said); } catch (error) { say(error.message, true); }
  });
  firmware();
  const table = document.querySelector('table.escs');
  if (!table) return;
  const help = document.querySelector('#esc-help');
  const tell = (e) => {
    const words = help.querySelector(`[data-help-for="${e.target.closest('tr')?.dataset.key}"]`);
    if (!words) return;
    help.querySelector('h3').textContent = words.dataset.label;
    help.querySelector('[data-help]').textContent = words.innerHTML;
  };
  table.addEventListener('focusin', tell);
  table.addEventListener('pointerover', tell);
  // Who differs is judged by the server; the page is drawn anew, and the field in hand is found again.
  const again = () => {
    const at = document.activeElement;
    const name = at?.dataset.setting ? `[data-setting="${at.dataset.setting}"]` : at?.dataset.forAll ? `[data-for-all="${at.dataset.forAll}"]` : '';
    sessionStorage.setItem('esc-field', name);
    location.reload();
  };
  table.addEventListener('change', async (e) => {
    const key = e.target.dataset.forAll;
    if (!key || e.target.value === '') return;
    const problem = document.getElementById('stage-problem');
    try { await post(table.dataset.all, { key, value: e.target.value }); again(); } catch (error) { problem.textContent = error.message; problem.hidden = false; e.target.setAttribute('aria-invalid', 'true'); }
  });
  document.addEventListener('staged', again);
  const field = sessionStorage.getItem('esc-field');
  sessionStorage.removeItem('esc-field');
  if (field) table.querySelector(field)?.focus();
}

// Sheet 12, ESCs: the chosen ones are written one after the other, and each shows how far it is.
function firmware() {
  const write = async (url, body, problem) => {
    try { await post(url, body); await refresh(); location.href = `${at()}/12/escs`; } catch (error) { if (problem) { problem.textContent = error.message; problem.hidden = false; } else say(error.message, true); }
  };
  document.addEventListener('submit', (e) => {
    const form = e.target.closest('[data-esc-form]');
    if (!form) return;
    e.preventDefault();
    write(form.dataset.escForm, { image: form.dataset.image, places: [...form.querySelectorAll('[name="place"]:checked')].map((b) => b.value).join(',') }, form.querySelector('.problem'));
  });
  document.addEventListener('click', (e) => {
    const button = e.target.closest('[data-esc-write]');
    if (button) write(button.dataset.escWrite, { image: button.dataset.image, places: button.dataset.places }, null);
  });
  if (!document.querySelector('.escs-there')) return;
  document.addEventListener('live', ({ detail: { now } }) => {
    const job = now.jobs.find((j) => j.kind === 'flash-escs' && j.open);
    const inline = job && document.querySelector(`[data-job-inline="${job.id}"]`);
    if (!inline) return;
    inline.querySelector('[data-job-doing]').textContent = job.doing;
    inline.querySelector('progress').value = job.progress;
    for (const esc of document.querySelectorAll('[data-esc]')) esc.classList.toggle('busy', job.step.place === esc.dataset.esc);
  });
  document.addEventListener('job-ended', (e) => { if (e.detail.kind === 'flash-escs') location.href = `${at()}/12/escs`; });
}
