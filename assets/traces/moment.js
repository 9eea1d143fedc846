// One moment of a flight, the craft drawn from above: at each place a disc whose area is the output there, with a ring for the
// rotor speed where it was logged; beside it how the craft turns about each axis, asked and flown; and the sticks in figures.
const AXES = ['roll', 'pitch', 'yaw'];
const STICKS = ['roll', 'pitch', 'yaw', 'throttle'];
const MIDDLE = { x: 96, y: 88 };
// Radius of a disc at full output.
const FULL = 23;
const REACH = 54;
// How long an arrow of the largest rotation is, and how far an arc of it goes round.
const LONGEST = 62;
const WIDEST = 70;

export const HEIGHT = 214;

// value(name): of a trace there, or null. places: { name: { x, y } } in units of the drawing. top: largest rotation and rotor speed.
export function moment(value, { outputs, places, top, title }) {
    const motors = outputs.map((place, i) => ({ place, ...(places[place] ?? around(i, outputs.length)) }));
    return [
        '<path class="centre" d="M96 14V164M20 88H172"/>',
        ...motors.map((m) => `<path class="arm" d="M${MIDDLE.x} ${MIDDLE.y}l${m.x} ${m.y}"/>`),
        '<path class="hull" d="M89 78h14v20h-14zM91 78l5-8l5 8"/>',
        ...motors.map((m) => disc(m, value(`output_${m.place}_pct`), value(`rpm_${m.place}`), top.rpm)),
        ...AXES.map((axis, i) => turning(axis, i, value(`setpoint_${axis}_dps`), flown(value, axis), top.dps)),
        ...sticks(value, title),
    ].join('');
}

// Only those that were logged.
function sticks(value, title) {
    const told = STICKS.map((s) => [s, value(`stick_${s}_us`)]).filter(([, us]) => us !== null);
    const words = told.length ? 'sticks, µs' : 'the sticks were not logged';
    return [`<text x="4" y="196" class="cap">${title}${words}</text>`, ...told.map(([s, us], i) => stick(s, i, us))];
}

const flown = (value, axis) => value(`rate_filtered_${axis}_dps`) ?? value(`rate_measured_${axis}_dps`);

// Where a motor is only known by its number, it stands on a circle, in the order of the log.
const around = (i, n) => ({ x: REACH * Math.sin((2 * Math.PI * i) / n), y: -REACH * Math.cos((2 * Math.PI * i) / n) });

function disc({ place, x, y }, pct, rpm, topRpm) {
    const [cx, cy] = [MIDDLE.x + x, MIDDLE.y + y];
    const r = FULL * Math.sqrt(Math.max(0, pct ?? 0) / 100);
    const reach = rpm === null ? null : FULL * Math.sqrt(Math.max(0, rpm) / topRpm);
    const ring = reach === null ? '' : `<circle class="ring" cx="${cx}" cy="${cy}" r="${reach}"/>`;
    const said = `${place.replaceAll('_', ' ')}: ${pct === null ? 'no output logged' : `${pct.toFixed(0)} %`}`;
    return (
        `<g><title>${said}${rpm === null ? '' : `, ${rpm.toFixed(0)} rpm`}</title>` +
        `<circle class="full" cx="${cx}" cy="${cy}" r="${FULL}"/>` +
        `<circle class="disc" cx="${cx}" cy="${cy}" r="${r}"/>${ring}` +
        `<text x="${cx}" y="${cy + 4}" class="fig mid">${pct === null ? '–' : pct.toFixed(0)}</text></g>`
    );
}

// Roll along the page's foot, pitch up its side, yaw around the craft; dashed what was asked, solid what was flown.
function turning(axis, row, asked, is, topDps) {
    const arrow = { roll: across, pitch: upward, yaw: round }[axis];
    const draw = (v, style, off) => (v === null ? '' : arrow(v / topDps, off, `turn ${style} ${axis}`));
    const y = 48 + row * 40;
    const figure = (v) => (v === null ? '–' : v.toFixed(0));
    return (
        draw(asked, 'asked', -3) +
        draw(is, 'flown', 3) +
        `<text x="206" y="${y}" class="name ${axis}">${axis}</text>` +
        `<text x="276" y="${y}" class="fig end">${figure(is)}</text>` +
        `<text x="276" y="${y + 13}" class="cap fig end">${figure(asked)} asked</text>`
    );
}

// A head no longer than its arrow.
function tip(x, y, dx, dy, long) {
    const [a, b] = [Math.min(7, long), Math.min(3.5, long / 2)];
    return `M${x} ${y}l${-a * dx - b * dy} ${-a * dy - b * dx}M${x} ${y}l${-a * dx + b * dy} ${-a * dy + b * dx}`;
}

function across(share, off, style) {
    const y = 174 + off;
    const x = MIDDLE.x + LONGEST * Math.max(-1, Math.min(1, share));
    return Math.abs(x - MIDDLE.x) < 1
        ? `<path class="${style}" d="M${MIDDLE.x} ${y - 3}v6"/>`
        : `<path class="${style}" d="M${MIDDLE.x} ${y}H${x}${tip(x, y, Math.sign(share), 0, Math.abs(x - MIDDLE.x))}"/>`;
}

function upward(share, off, style) {
    const x = 186 + off;
    const y = MIDDLE.y - LONGEST * Math.max(-1, Math.min(1, share));
    return Math.abs(y - MIDDLE.y) < 1
        ? `<path class="${style}" d="M${x - 3} ${MIDDLE.y}h6"/>`
        : `<path class="${style}" d="M${x} ${MIDDLE.y}V${y}${tip(x, y, 0, -Math.sign(share), Math.abs(y - MIDDLE.y))}"/>`;
}

function round(share, off, style) {
    const r = 80 + off;
    const angle = (Math.PI / 180) * WIDEST * Math.max(-1, Math.min(1, share));
    const [x, y] = [MIDDLE.x + r * Math.sin(angle), MIDDLE.y - r * Math.cos(angle)];
    if (Math.abs(angle) < 0.015) return `<path class="${style}" d="M${MIDDLE.x} ${MIDDLE.y - r - 3}v6"/>`;
    const way = Math.sign(angle);
    return (
        `<path class="${style}" d="M${MIDDLE.x} ${MIDDLE.y - r}A${r} ${r} 0 0 ${angle > 0 ? 1 : 0} ${x} ${y}` +
        `${tip(x, y, way * Math.cos(angle), way * Math.sin(angle), r * Math.abs(angle))}"/>`
    );
}

const stick = (name, i, us) => `<text x="${4 + i * 70}" y="210" class="cap">${name} <tspan class="fig">${us.toFixed(0)}</tspan></text>`;
