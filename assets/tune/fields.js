// Setting fields: a change is staged at once, checked by the server, and marked.
import { at, post } from '../shell/http.js';
import { refresh } from '../shell/live.js';

export async function stage(values) {
  const problem = document.getElementById('stage-problem');
  if (problem) problem.hidden = true;
  try {
    const data = await post(`${at()}/stage`, { values });
    for (const field of document.querySelectorAll('[data-field]')) field.classList.toggle('staged', field.dataset.field in data.staged);
    for (const [name, value] of Object.entries(data.staged)) { const input = document.querySelector(`[data-setting="${name}"]`); if (input && input !== document.activeElement) { if (input.type === 'checkbox') input.checked = value; else input.value = value; } }
    for (const input of document.querySelectorAll('[aria-invalid]')) input.removeAttribute('aria-invalid');
    document.dispatchEvent(new CustomEvent('staged', { detail: data.staged }));
    refresh();
    return true;
  } catch (error) {
    if (problem) { problem.textContent = error.message; problem.hidden = false; }
    document.querySelector(`[data-setting="${error.field}"]`)?.setAttribute('aria-invalid', 'true');
    return false;
  }
}

export function startFields() {
  document.addEventListener('change', (e) => {
    const input = e.target.closest('[data-setting]');
    if (input) stage({ [input.dataset.setting]: input.type === 'checkbox' ? input.checked : input.value });
  });
  const wanted = new URLSearchParams(location.search).get('setting');
  if (wanted) document.querySelector(`[data-setting="${wanted}"]`)?.focus();
}
