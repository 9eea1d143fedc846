// Finds sheets, settings, actions and logs by any part of a word.
import { getJson } from './http.js';

let all = null;

export function search() {
  return {
    words: '', at: 0, all: [],
    init() {
      const open = async () => { this.$root.showModal(); this.$refs.box.select(); all ??= await getJson(this.$root.dataset.url); this.all = all; };
      document.addEventListener('find', open);
      document.getElementById('find')?.addEventListener('click', open);
      this.$watch('words', () => { this.at = 0; });
      this.$root.addEventListener('click', (e) => { if (e.target === this.$root) this.$root.close(); });
    },
    get hits() {
      const words = this.words.toLowerCase().split(/\s+/).filter(Boolean);
      if (!words.length) return this.all.filter((h) => h.kind === 'sheet' || h.kind === 'action').slice(0, 12);
      const score = (h) => { const name = h.name.toLowerCase(); const about = h.about.toLowerCase(); let s = 0; for (const w of words) { if (name.startsWith(w)) s += 4; else if (name.includes(w)) s += 2; else if (about.includes(w)) s += 1; else return 0; } return s; };
      return this.all.map((h) => [score(h), h]).filter(([s]) => s > 0).sort((a, b) => b[0] - a[0]).slice(0, 12).map(([, h]) => h);
    },
    get nothing() { return this.words !== '' && this.hits.length === 0; },
    key(e) {
      if (e.key === 'Escape') { e.preventDefault(); this.$refs.box.blur(); this.$root.close(); }
      if (e.key === 'ArrowDown') { e.preventDefault(); this.at = Math.min(this.at + 1, this.hits.length - 1); }
      if (e.key === 'ArrowUp') { e.preventDefault(); this.at = Math.max(0, this.at - 1); }
      if (e.key === 'Enter' && this.hits[this.at]) { e.preventDefault(); location.href = this.hits[this.at].to; }
    },
  };
}
