// The only way scripts talk to the server; a refusal becomes an Error with the server's own words and field.
export async function getJson(url) {
    return answer(await fetch(url, { headers: { Accept: 'application/json' } }));
}

export async function post(url, body = {}) {
    return answer(
        await fetch(url, {
            method: 'POST',
            headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
            body: JSON.stringify(body),
        }),
    );
}

async function answer(response) {
    const data = await response.json().catch(() => ({ error: `The server answered with ${response.status}.` }));
    if (!response.ok) throw Object.assign(new Error(data.error ?? 'Refused.'), { field: data.field, status: response.status });
    return data;
}

export async function upload(file, progress) {
    const { upload: id, piece } = await post('/uploads', { bytes: file.size });
    for (let at = 0; at < file.size; at += piece) {
        const response = await fetch(`/uploads/${id}?offset=${at}`, {
            method: 'PUT',
            headers: { Accept: 'application/json' },
            body: file.slice(at, at + piece),
        });
        await answer(response);
        progress(Math.min(1, (at + piece) / file.size));
    }
    return id;
}

// Traces as they are stored: a head that tells what follows, then numbers.
export async function getTraces(url) {
    const response = await fetch(url);
    if (!response.ok) return null;
    const bytes = await response.arrayBuffer();
    const head = new DataView(bytes).getUint32(0, true);
    const about = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, head)));
    const per = about.count * (about.pairs ? 2 : 1);
    about.data = Object.fromEntries(about.traces.map((name, i) => [name, new Float32Array(bytes, 4 + head + i * per * 4, per)]));
    return about;
}
