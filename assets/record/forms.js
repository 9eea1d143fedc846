// Small forms that post JSON and show what was wrong at the field.
import { post } from '../shell/http.js';

export function startForms() {
  for (const form of document.querySelectorAll('form[data-form], form[data-yaml]')) {
    form.addEventListener('submit', async (e) => {
      e.preventDefault();
      const problem = form.querySelector('.problem');
      problem.hidden = true;
      try {
        const data = await post(form.dataset.form ?? form.dataset.yaml, Object.fromEntries(new FormData(form)));
        if (data.said) sessionStorage.setItem('said', data.said);
        location.reload();
      } catch (error) {
        problem.textContent = error.message;
        problem.hidden = false;
        const field = form.elements[error.field];
        field?.setAttribute('aria-invalid', 'true');
        field?.focus();
      }
    });
  }
  document.getElementById('wanted')?.scrollIntoView({ block: 'center' });
}
