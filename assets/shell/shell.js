// What every sheet has: keys, theme, link state, jobs, strip.
import { startLive, refresh } from './live.js';
import { post, say } from './http.js';

// Two digits go to a sheet, but never while a motor turns.
const turning = () => document.querySelector('[data-spinning]') !== null;
const typing = (el) => el && (/^(input|textarea|select)$/i.test(el.tagName) || el.isContentEditable);

export function startShell() {
  theme();
  keys();
  strip();
  menus();
  document.addEventListener('live', (e) => { linkState(e.detail); jobs(e.detail); });
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-post]');
    if (!button) return;
    button.disabled = true;
    try {
      const data = await post(button.dataset.post, JSON.parse(button.dataset.body ?? '{}'));
      if (data.said) sessionStorage.setItem('said', data.said);
      if (button.dataset.then === 'reload') location.reload();
      else if (button.dataset.then) location.href = button.dataset.then;
    } catch (error) { say(error.message, true); button.disabled = false; }
  });
  document.addEventListener('change', (e) => { if (e.target.matches('[data-submit]')) e.target.form.submit(); });
  document.addEventListener('click', (e) => { const away = e.target.closest('[data-unbeside]'); if (away) { const { form } = away; away.parentElement.remove(); form.submit(); } });
  document.addEventListener('job-ended', () => { if (document.querySelector('[data-waiting]')) location.reload(); });
  const said = sessionStorage.getItem('said');
  if (said) { sessionStorage.removeItem('said'); say(said); }
  startLive();
}

function theme() {
  document.getElementById('theme')?.addEventListener('click', () => {
    const next = document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark';
    document.documentElement.dataset.theme = next;
    localStorage.setItem('theme', next);
    document.dispatchEvent(new CustomEvent('theme'));
  });
}

function keys() {
  let digit = '';
  document.addEventListener('keydown', (e) => {
    if (e.ctrlKey && e.key === 'Enter') { e.preventDefault(); document.dispatchEvent(new CustomEvent('commit')); return; }
    if (e.ctrlKey && e.key.toLowerCase() === 'k') { e.preventDefault(); document.dispatchEvent(new CustomEvent('find')); return; }
    if (typing(e.target) || e.ctrlKey || e.metaKey || e.altKey || document.querySelector('dialog[open]')) return;
    if (e.key === '/') { e.preventDefault(); document.dispatchEvent(new CustomEvent('find')); }
    if (e.key === '?') document.getElementById('keys')?.showModal();
    // The tray takes the focus to its reason: without this the t would be typed there.
    if (e.key === 't') { e.preventDefault(); document.querySelector('.tray-tab:not([hidden])')?.click(); }
    if (e.key === 'b') document.getElementById('strip-away')?.click();
    if (/^\d$/.test(e.key) && document.body.dataset.craft && !turning()) {
      if (digit) { const sheet = digit + e.key; digit = ''; if (/^[1-7][1-6]$/.test(sheet)) location.href = `/craft/${document.body.dataset.craft}/${sheet}`; } else { digit = e.key; setTimeout(() => { digit = ''; }, 900); }
    } else digit = '';
  });
}

function strip() {
  const button = document.getElementById('strip-away');
  const set = (away) => {
    document.body.classList.toggle('strip-gone', away);
    if (button) { button.textContent = away ? 'bench ▴' : 'strip away ▾'; button.setAttribute('aria-expanded', String(!away)); }
  };
  if (button) set(localStorage.getItem('strip') === 'away');
  button?.addEventListener('click', () => { const away = !document.body.classList.contains('strip-gone'); localStorage.setItem('strip', away ? 'away' : ''); set(away); window.dispatchEvent(new Event('resize')); });
}

function menus() {
  document.addEventListener('click', (e) => { for (const d of document.querySelectorAll('details.craft-menu[open], details.faults[open]')) if (!d.contains(e.target)) d.open = false; });
  document.addEventListener('keydown', (e) => { if (e.key === 'Escape') for (const d of document.querySelectorAll('details.craft-menu[open], details.faults[open]')) { d.open = false; d.querySelector('summary').focus(); } });
}

function linkState({ now, before }) {
  const el = document.getElementById('link-state');
  if (!el) return;
  el.dataset.linked = now.link.linked ? '1' : '0';
  el.querySelector('b').textContent = now.link.linked ? (now.link.flashing ? 'writing' : 'linked') : 'not linked';
  // What a sheet shows depends on these; a change means the page must be drawn anew, unless someone is typing.
  const sheet = document.body.dataset.sheet;
  const interlocks = ['12', '15', '16'].includes(sheet) && before && ['pack', 'props', 'props_declared_off'].some((k) => before.bench[k] !== now.bench[k]);
  const rails = ['11', '13'].includes(sheet) && before && before.bench.pack !== now.bench.pack;
  if (interlocks || rails) { location.reload(); return; }
  escs(now, sheet);
  if (before && (before.link.linked !== now.link.linked || before.bench.cable !== now.bench.cable || before.link.bootloader !== now.link.bootloader) && ['11', '12', '13', '14', '15', '16', '51', '72'].includes(sheet) && !typing(document.activeElement)) location.reload();
}

// ESCs answer once the pack is on while the board is linked: they are read by themselves the moment it comes.
let asked = false;
async function escs(now, sheet) {
  if (!now.link.linked || !now.bench.pack || now.link.escs || now.link.bootloader || now.link.flashing) { asked = false; return; }
  if (asked || !['11', '12', '15', '16'].includes(sheet) || typing(document.activeElement)) return;
  asked = true;
  try { await post(`/craft/${document.body.dataset.craft}/escs/read`); location.reload(); } catch (error) { say(error.message, true); }
}

function jobs({ now, before }) {
  const box = document.getElementById('jobs');
  if (!box) return;
  const inline = (j) => document.querySelector(`[data-job-inline="${j.id}"]`);
  const shown = now.jobs.filter((j) => !inline(j) && (j.open || ['failed', 'interrupted'].includes(j.state)));
  for (const j of shown) {
    let el = box.querySelector(`[data-job="${j.id}"]`);
    if (!el) {
      el = document.createElement('section');
      el.className = 'job';
      el.dataset.job = j.id;
      el.innerHTML = '<b></b><span class="doing"></span><progress max="1"></progress><span class="do"><a class="btn" hidden>See its traces</a><button type="button" class="btn" data-act="cancel">Cancel</button><button type="button" class="btn" data-act="again">Start again</button><button type="button" class="btn" data-act="seen">Put aside</button></span>';
      el.addEventListener('click', async (e) => {
        const act = e.target.dataset?.act;
        if (!act) return;
        try { await post(`/jobs/${j.id}/${act}`); refresh(); } catch (error) { say(error.message, true); }
      });
      box.append(el);
    }
    el.querySelector('b').textContent = j.open ? j.title : `${j.title}: ${j.state}`;
    el.querySelector('.doing').textContent = j.open ? j.doing : j.message;
    // A log that came in can be looked at while the rest goes on.
    const early = el.querySelector('a');
    early.hidden = !(j.open && j.result.log);
    early.href = `/craft/${document.body.dataset.craft}/52?log=${j.result.log}`;
    el.querySelector('progress').value = j.progress;
    el.querySelector('progress').hidden = !j.open;
    for (const b of el.querySelectorAll('[data-act]')) b.hidden = (b.dataset.act === 'cancel') !== j.open || (b.dataset.act === 'again' && j.kind.startsWith('flash'));
  }
  for (const el of [...box.children]) if (!shown.some((j) => String(j.id) === el.dataset.job)) el.remove();
  const ended = before?.jobs.filter((j) => j.open && !now.jobs.some((k) => k.id === j.id && k.open)) ?? [];
  if (ended.length) {
    const after = now.jobs.find((k) => k.id === ended[0].id);
    document.dispatchEvent(new CustomEvent('job-ended', { detail: after ?? ended[0] }));
  }
}
