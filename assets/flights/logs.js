// Sheet 51: fly a card, bring in a file.
import { post, say, upload } from '../shell/http.js';
import { refresh } from '../shell/live.js';

export function startLogs() {
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
      await post(input.dataset.import, { upload: id, name: input.files[0].name });
      refresh();
    } catch (error) { problem.textContent = error.message; problem.hidden = false; }
    input.value = '';
  });
  document.addEventListener('job-ended', (e) => { if (e.detail.state !== 'failed' && e.detail.state !== 'interrupted') location.reload(); });
}
