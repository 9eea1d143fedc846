// Sheet 14: takes a pose; shows the thrust that a command asks for.
import { post } from '../shell/http.js';

export function startFrame() {
  const drawing = document.getElementById('frame-drawing');
  if (!drawing) return;
  document.querySelector('.axis-pick').addEventListener('change', (e) => { for (const g of drawing.querySelectorAll('[data-command]')) g.toggleAttribute('hidden', g.dataset.command !== e.target.value); });
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-pose]');
    if (!button) return;
    button.disabled = true;
    try { await post(button.dataset.url, { pose: button.dataset.pose }); location.reload(); } catch (error) {
      const problem = document.getElementById('pose-problem');
      problem.textContent = error.message;
      problem.hidden = false;
      button.disabled = false;
    }
  });
}
