// Sheet 51: fly a card, bring in a file.
import { post, say, upload } from '../shell/http.js';
import { refresh } from '../shell/live.js';

export function startLogs() {
  columns();
  document.addEventListener('submit', async (e) => {
    const form = e.target.closest('[data-note]');
    if (!form) return;
    e.preventDefault();
    try { await post(form.dataset.note, Object.fromEntries(new FormData(form))); say('Kept.'); } catch (error) { say(error.message, true); }
  });
  document.addEventListener('click', (e) => { if (e.target.closest('[data-print]')) window.print(); });
  if (!document.getElementById('logs')) return;
  document.addEventListener('click', async (e) => {
    const card = e.target.closest('[data-fly]');
    if (!card) return;
    try { await post(card.dataset.fly, { card: card.dataset.card }); refresh(); } catch (error) { say(error.message, true); }
  });
  const input = document.querySelector('[data-import]');
  input?.addEventListener('change', async () => {
    const problem = document.getElementById('import-problem');
    problem.hidden = true;
    if (!input.files.length) return;
    try {
      const id = await upload(input.files[0], (share) => say(`Taking in ${input.files[0].name}, ${Math.round(100 * share)} %`));
      const answer = await post(input.dataset.import, { upload: id, name: input.files[0].name });
      if (answer.ask) { location.href = answer.ask; return; }
      refresh();
    } catch (error) { problem.textContent = error.message; problem.hidden = false; }
    input.value = '';
  });
  document.addEventListener('job-ended', (e) => { if (e.detail.state !== 'failed' && e.detail.state !== 'interrupted') location.reload(); });
}

// Foreign columns: what is answered is sent whole, and the log comes in.
function columns() {
  const form = document.getElementById('columns');
  form?.addEventListener('submit', async (e) => {
    e.preventDefault();
    const problem = document.getElementById('columns-problem');
    try {
      await post(form.dataset.import, { upload: form.dataset.upload, name: form.dataset.name, map: Object.fromEntries(new FormData(form)) });
      location.href = `${location.pathname.split('/51/')[0]}/51`;
    } catch (error) { problem.textContent = error.message; problem.hidden = false; }
  });
}
