<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

/** What the law of a place lets a video transmitter do: bands with their power, and where that is written. */
final readonly class PlaceLaw
{
    /** @param list<array{float, float, float}> $bands from and to in MHz, most power in mW */
    private function __construct(public string $place, public array $bands, public string $source, public string $note)
    {
    }

    /**
     * @param mixed $rows of a table of places, as YAML gives it: place => {bands: [[from, to, mW], …], source, note}
     *
     * @return array<string, self> by place
     *
     * @throws VideoError naming the row and what is wrong with it
     */
    public static function table(mixed $rows): array
    {
        if (!\is_array($rows) || [] === $rows) {
            throw VideoError::of(VideoFlaw::NoPlaces);
        }
        $laws = [];
        foreach ($rows as $place => $row) {
            $bands = [];
            foreach (\is_array($row) && \is_array($row['bands'] ?? null) ? $row['bands'] : [] as $n => $band) {
                [$from, $to, $mw] = \is_array($band) && 3 === \count($band) ? array_values($band) : [null, null, null];
                if (!is_numeric($from) || !is_numeric($to) || !is_numeric($mw) || $from >= $to || $from < 100 || $to > 10_000 || $mw <= 0) {
                    throw VideoError::of(VideoFlaw::BadBand, place: (string) $place, band: $n + 1);
                }
                $bands[] = [(float) $from, (float) $to, (float) $mw];
            }
            $text = static fn (string $name): string => \is_array($row) && \is_string($row[$name] ?? null) ? trim($row[$name]) : '';
            if ([] === $bands || '' === $text('source')) {
                throw VideoError::of(VideoFlaw::NoSource, place: (string) $place);
            }
            $laws[(string) $place] = new self((string) $place, $bands, $text('source'), $text('note'));
        }

        return $laws;
    }

    /** Most power at a frequency, mW; 0 where none is allowed. */
    public function mostMw(float $mhz): float
    {
        $most = 0.0;
        foreach ($this->bands as [$from, $to, $mw]) {
            $most = $mhz >= $from && $mhz <= $to ? max($most, $mw) : $most;
        }

        return $most;
    }

    /**
     * @param list<float> $offer MHz
     *
     * @return list<float> those that may be used at all
     */
    public function allowed(array $offer): array
    {
        return array_values(array_filter($offer, fn (float $f): bool => $this->mostMw($f) > 0));
    }
}
