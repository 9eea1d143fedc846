// Finds sheets, settings, actions and logs by any part of a word.
import { getJson } from './http.js';
import { hide, show } from './modal.js';
import { say } from './said.js';
import { visit } from './turbo.js';

export function search() {
    return {
        words: '',
        at: 0,
        all: [],
        // The list is there; and whether Enter was pressed before it was.
        listed: false,
        eager: false,
        init() {
            this.opens = async () => {
                if (!this.$root.isConnected) return;
                show(this.$root);
                this.$refs.box.select();
                this.eager = false;
                try {
                    this.all = await getJson(this.$root.dataset.url);
                    this.listed = true;
                } catch (error) {
                    say(error.message, true);
                }
                if (this.eager && this.listed) this.go();
            };
            document.addEventListener('find', this.opens);
            this.clicks = (e) => {
                if (!e.target.closest('#find')) return;
                e.preventDefault();
                this.opens();
            };
            document.addEventListener('click', this.clicks);
            this.$watch('words', () => {
                this.at = 0;
                this.eager = false;
            });
        },
        destroy() {
            document.removeEventListener('find', this.opens);
            document.removeEventListener('click', this.clicks);
        },
        get hits() {
            const words = this.words.toLowerCase().split(/\s+/).filter(Boolean);
            if (!words.length) return this.all.filter((h) => h.kind === 'sheet' || h.kind === 'action').slice(0, 12);
            const found = this.all.map((h) => [score(h, words), h]).filter(([s]) => s > 0);
            return found
                .sort((a, b) => b[0] - a[0])
                .slice(0, 12)
                .map(([, h]) => h);
        },
        get nothing() {
            return this.listed && this.words !== '' && this.hits.length === 0;
        },
        go() {
            if (!this.hits[this.at]) return;
            hide(this.$root);
            visit(this.hits[this.at].to);
        },
        key(e) {
            const act = {
                Escape: () => {
                    this.eager = false;
                    hide(this.$root);
                },
                ArrowDown: () => (this.at = Math.min(this.at + 1, this.hits.length - 1)),
                ArrowUp: () => (this.at = Math.max(0, this.at - 1)),
                Enter: () => {
                    this.eager = !this.listed;
                    this.go();
                },
            }[e.key];
            if (!act) return;
            e.preventDefault();
            act();
        },
    };
}

function score({ name, about }, words) {
    let sum = 0;
    for (const word of words) {
        const here = name.toLowerCase().startsWith(word)
            ? 4
            : name.toLowerCase().includes(word)
              ? 2
              : about.toLowerCase().includes(word)
                ? 1
                : 0;
        if (!here) return 0;
        sum += here;
    }
    return sum;
}
