// The tray stays as it was left, from sheet to sheet.
import { attach } from '../_parts/attach.js';

attach('#tray', (tray, signal) => {
    tray.open = sessionStorage.getItem('tray') === 'open';
    tray.addEventListener('toggle', () => sessionStorage.setItem('tray', tray.open ? 'open' : ''), { signal });
});

// What was committed is gone from it, and so it closes.
document.addEventListener('turbo:submit-end', (e) => {
    if (e.detail.success && e.detail.formSubmission.formElement.id === 'commit') document.getElementById('tray').open = false;
});
