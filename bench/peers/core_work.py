"""The same core work as `bin/ortholex analyse` does, by numpy and scipy: reading, steps with a bootstrap, spectra, noise maps, lag,
verdicts on P, and what each motor does to each axis. A yardstick of time, not of truth. Usage: core_work.py LOG.csv"""

import sys

import numpy as np
from scipy import signal

AXES = ("roll", "pitch", "yaw")


def read(path):
    with open(path, encoding="utf-8") as file:
        skip = 0
        for line in file:
            skip += 1
            if not line.startswith("#"):
                break
        names = line.rstrip("\n").split(",")
    data = np.loadtxt(path, delimiter=",", skiprows=skip)
    return {name: data[:, i] for i, name in enumerate(names)}


def decimated(x, factor):
    n = len(x) // factor
    return x[: n * factor].reshape(n, factor).mean(axis=1)


def step(x, y, fs, draws=40):
    n = 2048
    hop = n // 4
    taper = signal.get_window("hann", n)
    starts = range(0, len(x) - n, hop)
    xs = np.fft.rfft([x[a : a + n] * taper for a in starts])
    ys = np.fft.rfft([y[a : a + n] * taper for a in starts])
    xx, cross, yy = np.abs(xs) ** 2, np.conj(xs) * ys, np.abs(ys) ** 2

    def curve(pick):
        sx, sc, sy = xx[pick].sum(axis=0), cross[pick].sum(axis=0), yy[pick].sum(axis=0)
        noise = np.maximum(sy - np.abs(sc) ** 2 / np.maximum(sx, 1e-12), 1e-9)
        return np.cumsum(np.fft.irfft(sc / (sx + noise)))[:500]

    dice = np.random.default_rng(1)
    blocks = np.array_split(np.arange(len(xs)), max(2, len(xs) // 6))
    for _ in range(draws):
        curve(np.concatenate([blocks[i] for i in dice.integers(0, len(blocks), len(blocks))]))
    return curve(np.arange(len(xs)))


def noise_map(rate, level, fs):
    n = 2 ** int(np.log2(fs / 3))
    f, t, power = signal.spectrogram(rate, fs, window="hann", nperseg=n, noverlap=n // 2)
    bins = np.clip((np.interp(t, np.arange(len(level)) / fs, level) / 2).astype(int), 0, 49)
    return [10 * np.log10(power[:, bins == b].mean(axis=1) + 1e-12) for b in range(50) if (bins == b).any()]


def lag(x, y, fs):
    window = int(2 * fs)
    lags = []
    for a in range(0, len(x) - window, window // 2):
        p, q = x[a : a + window] - x[a : a + window].mean(), y[a : a + window] - y[a : a + window].mean()
        if p.std() > 15:
            lags.append(np.argmax(signal.correlate(q, p, method="fft")) - window + 1)
    return np.median(lags) / fs if lags else None


def verdict(p, rate, fs):
    n = 1024
    for a in range(0, len(p) - n, n // 2):
        np.abs(np.fft.rfft(p[a : a + n] * np.hanning(n))) ** 2
        np.abs(np.fft.rfft(rate[a : a + n] * np.hanning(n))) ** 2


def motors(log, fs):
    factor = max(1, round(0.004 * fs))
    rates = np.column_stack([decimated(log[f"rate_measured_{a}_dps"], factor) for a in AXES])
    outputs = [decimated(v, factor) for k, v in log.items() if k.startswith("output_")]
    if not outputs:
        return None
    acceleration = np.gradient(rates, axis=0) * fs / factor
    best = None
    for up in (0.01, 0.02, 0.04, 0.08):
        alpha = 1 - np.exp(-0.004 / up)
        for power in (1.0, 1.6, 2.0):
            thrust = np.column_stack([signal.lfilter([alpha], [1, alpha - 1], (np.clip(o, 0, 100) / 100) ** power) for o in outputs])
            design = np.column_stack([thrust, rates, np.ones(len(rates))])
            weight = np.ones(len(rates))
            for _ in range(4):
                root = np.sqrt(weight)[:, None]
                fit, *_ = np.linalg.lstsq(design * root, acceleration * root, rcond=None)
                off = np.linalg.norm(acceleration - design @ fit, axis=1)
                weight = 1 / (1 + (off / np.median(off)) ** 2)
            if best is None or np.median(off) < best:
                best = np.median(off)
    return best


def main(path):
    log = read(path)
    fs = (len(log["time_s"]) - 1) / (log["time_s"][-1] - log["time_s"][0])
    factor = max(1, int(fs // 1000))
    for axis in AXES:
        asked, rate = log[f"setpoint_{axis}_dps"], log[f"rate_measured_{axis}_dps"]
        step(decimated(asked, factor), decimated(rate, factor), fs / factor)
        for name in ("measured", "filtered"):
            signal.welch(log[f"rate_{name}_{axis}_dps"], fs, nperseg=2 ** int(np.log2(fs)))
        noise_map(rate, log["throttle_pct"], fs)
        speeds = [v for k, v in log.items() if k.startswith("rpm_")]
        if speeds:
            mean = np.mean(speeds, axis=0)
            noise_map(rate, 100 * mean / max(1.0, mean.max()), fs)
        lag(decimated(asked, factor), decimated(rate, factor), fs / factor)
        verdict(decimated(log.get(f"term_p_{axis}", asked - rate), factor), decimated(rate, factor), fs / factor)
    motors(log, fs)


if __name__ == "__main__":
    main(sys.argv[1])
