// Hands on the bench: each thing is switched by its button, and shows what it is.
import { at, post, say } from './http.js';
import { give, live } from './live.js';

const move = async (thing, to) => { try { give(await post(`${at()}/bench`, { thing, to })); return true; } catch (error) { say(error.message, true); return false; } };
const WORDS = { cable: ['unplugged', 'plugged'], props: ['off', 'fitted'], transmitter: ['off', 'on'], outdoors: ['no sky view', 'open sky'] };

export function bench() {
  return {
    mishap: '',
    init() {
      const root = this.$root;
      root.addEventListener('click', (e) => {
        if (e.target.closest('[data-swap-motors]')) { move('swap_motors', `${root.querySelector('[data-swap-a]').value},${root.querySelector('[data-swap-b]').value}`).then((done) => done && say('Swapped on the desk.')); return; }
        const button = e.target.closest('[data-thing]');
        if (!button) return;
        const thing = button.dataset.thing;
        move(thing, thing === 'bootloader_button' || thing.startsWith('mishap:') || live?.bench[thing] !== true ? '1' : '0');
      });
      root.addEventListener('change', (e) => {
        if (e.target.matches('[data-tilt]')) move('tilt', e.target.value);
        if (e.target.matches('[data-fault]')) move(`fault:${e.target.dataset.fault}`, e.target.checked ? '1' : '0');
      });
      document.addEventListener('click', async (e) => {
        const button = e.target.closest('[data-bench]');
        if (button && (await move(button.dataset.bench, button.dataset.to)) && button.dataset.then === 'reload') location.reload();
        if (e.target.closest('[data-ready]')) {
          for (const [thing, to] of [['props', '1'], ['outdoors', '1'], ['transmitter', '1'], ['pack', '1']]) if (!(await move(thing, to))) return;
          location.reload();
        }
      });
      document.addEventListener('live', (e) => this.show(e.detail.now.bench));
    },
    show(b) {
      for (const button of this.$root.querySelectorAll('button.thing')) {
        const thing = button.dataset.thing;
        button.setAttribute('aria-pressed', String(b[thing]));
        button.querySelector('[data-says]').textContent = thing === 'pack' ? (b.pack ? `${b.pack_v.toFixed(1)} V` : 'off') : WORDS[thing][Number(b[thing])];
        const name = button.querySelector('[data-name]');
        if (name) name.firstChild.textContent = b.outdoors ? 'Outdoors' : 'Indoors';
      }
      const tilt = this.$root.querySelector('[data-tilt]');
      if (document.activeElement !== tilt) tilt.value = b.tilt;
      tilt.closest('.thing').dataset.on = b.tilt === 'level' ? '0' : '1';
      const t = b.turning;
      for (const m of this.$root.querySelectorAll('[data-motor]')) m.classList.toggle('turns', t.some((one) => one.place === m.dataset.motor));
      this.$root.querySelector('[data-turning]').textContent = t.length > 1 ? `${t.length} motors turn` : t.length ? `${t[0].place.replace('_', ' ')} turns ${t[0].direction > 0 ? '↻' : '↺'}` : 'motors still';
      this.$root.querySelector('.craft-there').dataset.on = t.length ? '1' : '0';
      if (b.mishap && b.mishap !== this.mishap) say(b.mishap, true);
      this.mishap = b.mishap;
      const meter = this.$root.querySelector('[data-meter]');
      meter.textContent = `${(b.pack_v ?? 0).toFixed(2)} V`;
      meter.closest('.thing').dataset.on = b.pack ? '1' : '0';
      this.$root.querySelector('[data-fault-count]').textContent = b.faults.length;
      for (const box of this.$root.querySelectorAll('[data-fault]')) box.checked = b.faults.includes(box.dataset.fault);
    },
  };
}
