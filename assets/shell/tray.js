// The tray: opens, takes back, commits. It is drawn by the server; this only fetches and sends.
import { at, post, say } from './http.js';
import { live } from './live.js';

export function tray() {
  return {
    open: false,
    init() {
      this.open = sessionStorage.getItem('tray') === 'open';
      this.apply();
      document.addEventListener('staged', () => this.reload());
      document.addEventListener('commit', () => this.commit());
      document.addEventListener('live', (e) => {
        const { before, now } = e.detail;
        if (before && (before.staged !== now.staged || before.link.linked !== now.link.linked) && !this.$root.contains(document.activeElement)) this.reload();
      });
      this.$root.addEventListener('click', (e) => {
        const button = e.target.closest('[data-discard]');
        if (button) this.discard(button.dataset.discard);
      });
      this.$root.addEventListener('submit', (e) => { e.preventDefault(); this.commit(); });
      document.addEventListener('keydown', (e) => { if (e.key === 'Escape' && this.open) this.toggle(); });
    },
    toggle() {
      this.open = !this.open;
      sessionStorage.setItem('tray', this.open ? 'open' : '');
      this.apply();
      if (this.open) this.$root.querySelector('textarea')?.focus();
    },
    apply() {
      const tab = this.$root.querySelector('.tray-tab');
      const any = tab && !tab.hidden;
      tab?.setAttribute('aria-expanded', String(any && this.open));
      const panel = this.$root.querySelector('.tray-panel');
      if (panel) panel.hidden = !(any && this.open);
    },
    async reload() {
      const response = await fetch(this.$root.dataset.url);
      if (!response.ok) return;
      const html = await response.text();
      // Read at the last moment: what is being typed, and that it is, must outlive the redrawing.
      const old = this.$root.querySelector('textarea');
      const reason = old?.value ?? '';
      const typing = old !== null && document.activeElement === old;
      this.$root.innerHTML = html;
      const box = this.$root.querySelector('textarea');
      if (box) box.value = reason;
      this.apply();
      if (typing) box?.focus();
    },
    async discard(name) {
      try { await post(`${at()}/discard`, { name }); location.reload(); } catch (error) { say(error.message, true); }
    },
    async commit() {
      const form = this.$root.querySelector('form');
      if (!form || this.$root.querySelector('.tray-tab').hidden) return;
      if (!this.open) this.toggle();
      const problem = form.querySelector('.problem');
      problem.hidden = true;
      const button = form.querySelector('.commit-button');
      if (button.disabled && live?.link.linked !== true) { problem.textContent = 'Not linked: plug the cable and link on sheet 11.'; problem.hidden = false; return; }
      button.disabled = true;
      try {
        const data = await post(form.dataset.commit, { reason: form.querySelector('textarea').value });
        sessionStorage.setItem('said', data.said);
        sessionStorage.setItem('tray', '');
        location.reload();
      } catch (error) { problem.textContent = error.message; problem.hidden = false; button.disabled = false; }
    },
  };
}
