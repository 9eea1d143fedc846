// Stages values that were set on a drawing, by the same form as any other.
import { send } from '../shell/forms.js';

export function stage(values, { problem = 'stage-problem' } = {}) {
    const form = document.createElement('form');
    form.method = 'post';
    form.action = `/craft/${document.body.dataset.craft}/stage`;
    form.hidden = true;
    form.dataset.problem = problem;
    for (const [name, value] of Object.entries(values)) {
        const input = Object.assign(document.createElement('input'), { type: 'hidden', name: `values[${name}]`, value });
        form.append(input);
    }
    document.body.append(form);
    form.addEventListener('turbo:submit-end', () => form.remove());
    send(form);
}
