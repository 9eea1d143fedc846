// The only way scripts talk to the server; a refusal becomes an Error with the server's own words and field.
export async function getJson(url) {
  return answer(await fetch(url, { headers: { Accept: 'application/json' } }));
}

export async function post(url, body = {}) {
  return answer(await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/json', Accept: 'application/json' }, body: JSON.stringify(body) }));
}

async function answer(response) {
  const data = await response.json().catch(() => ({ error: `The server answered with ${response.status}.` }));
  if (!response.ok) throw Object.assign(new Error(data.error ?? 'Refused.'), { field: data.field, status: response.status });
  return data;
}

export async function upload(file, progress) {
  const { upload: id, piece } = await post('/uploads', { bytes: file.size });
  for (let at = 0; at < file.size; at += piece) {
    const response = await fetch(`/uploads/${id}?offset=${at}`, { method: 'PUT', body: file.slice(at, at + piece) });
    await answer(response);
    progress(Math.min(1, (at + piece) / file.size));
  }
  return id;
}

let timer;
export function say(words, bad = false) {
  const box = document.getElementById('said');
  box.textContent = words;
  box.classList.toggle('bad', bad);
  box.hidden = false;
  clearTimeout(timer);
  timer = setTimeout(() => { box.hidden = true; }, bad ? 9000 : 5000);
}

export const slug = () => document.body.dataset.craft;
export const at = () => `/craft/${slug()}`;
