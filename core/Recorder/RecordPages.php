<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

/** The pages of one recording, made one after the other as their samples come; see docs/recorder-format.md. */
final class RecordPages
{
    private const PAGE_S = 0.5;
    private const MOST_SAMPLES = 16_384;

    /** The head stands at the beginning and again after so many pages: none of its copies is the only one. */
    private const HEAD_EVERY = 16;

    private const STEPS = 65_535;
    private const MOST_DIGITS = 6;
    private const ROUNDS = 4;

    /** float32 keeps so much of a figure. */
    private const KEPT = 6.0e-8;

    private readonly string $head;
    private readonly int $traces;
    private int $number = 0;

    /** @param list<string> $names of the traces */
    public function __construct(float $rateHz, array $names, string $settings)
    {
        $this->traces = \count($names);
        $this->head = json_encode(
            ['rate_hz' => $rateHz, 'traces' => $names, 'settings' => $settings],
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION,
        );
    }

    /** So many samples stand in a page. */
    public static function samples(float $rateHz): int
    {
        return max(1, min(self::MOST_SAMPLES, (int) round(self::PAGE_S * $rateHz)));
    }

    /**
     * @param float             $startS  time of the first sample
     * @param list<list<float>> $columns of each trace, in order, all as long
     *
     * @return string the page, with a head ahead of it where one is due
     */
    public function next(float $startS, array $columns): string
    {
        $head = 0 === $this->number % self::HEAD_EVERY
            ? RecordPage::encode(RecordPage::HEAD, $this->number, 0.0, 0, $this->traces, $this->head)
            : '';
        $payload = implode('', array_map(self::column(...), $columns));

        return $head.RecordPage::encode(RecordPage::DATA, $this->number++, $startS, \count($columns[0] ?? []), $this->traces, $payload);
    }

    /**
     * Offset and step, float64; then a count of steps for each sample, 16 bits, little-endian.
     *
     * @param list<float> $values
     */
    private static function column(array $values): string
    {
        [$offset, $step, $digits, $exact] = self::grid($values);
        // Until what would be read back is written the same: then a recording that was read and written again has the same bytes.
        for ($round = 1;; ++$round) {
            $steps = self::steps($values, $offset, $step);
            if ($exact || $round >= self::ROUNDS) {
                break;
            }
            $values = self::back($steps, $offset, $step, $digits);
            $again = self::grid($values);
            if ([$offset, $step, $digits] === [$again[0], $again[1], $again[2]]) {
                break;
            }
            [$offset, $step, $digits, $exact] = $again;
        }

        return pack('ee', $offset, $step).pack('v*', ...$steps);
    }

    /**
     * @param list<float> $values
     *
     * @return list<int> counts of steps
     */
    private static function steps(array $values, float $offset, float $step): array
    {
        $steps = [];
        foreach ($values as $v) {
            // None is below the offset, so that cutting off rounds.
            $n = (int) (($v - $offset) / $step + 0.5);
            $steps[] = $n > self::STEPS ? self::STEPS : ($n < 0 ? 0 : $n);
        }

        return $steps;
    }

    /**
     * @param list<int> $steps
     *
     * @return list<float> as they would be read
     */
    private static function back(array $steps, float $offset, float $step, int $digits): array
    {
        $back = [];
        $scale = 10.0 ** $digits;
        foreach ($steps as $n) {
            $back[] = $digits > 0 ? floor(($offset + $n * $step) * $scale + 0.5) / $scale : round($offset + $n * $step, $digits);
        }

        return $back;
    }

    /**
     * The decimal step that holds every value exactly, where 16 bits suffice for it; else the least 1, 2 or 5 of a decimal that does.
     *
     * @param list<float> $values
     *
     * @return array{float, float, int, bool} offset, step, the digits of both, and whether it holds them exactly
     */
    private static function grid(array $values): array
    {
        $low = [] === $values ? 0.0 : min($values);
        $high = [] === $values ? 0.0 : max($values);
        [$step, $digits, $exact] = self::step($values, $low, $high);

        return [round(floor($low / $step + 1e-6) * $step, $digits), $step, $digits, $exact];
    }

    /**
     * @param list<float> $values
     *
     * @return array{float, int, bool} its digits, and whether it holds them exactly
     */
    private static function step(array $values, float $low, float $high): array
    {
        for ($digits = 0; $digits <= self::MOST_DIGITS && ($high - $low) * 10.0 ** $digits < self::STEPS - 1; ++$digits) {
            if (self::holds($values, 10.0 ** $digits)) {
                return [10.0 ** -$digits, $digits, true];
            }
        }
        for ($digits = self::MOST_DIGITS; $digits > -self::MOST_DIGITS; --$digits) {
            foreach ([1.0, 2.0, 5.0] as $times) {
                if ($high - $low < (self::STEPS - 1) * $times * 10.0 ** -$digits) {
                    return [$times * 10.0 ** -$digits, $digits, false];
                }
            }
        }

        return [max(1.0, ($high - $low) / (self::STEPS - 1)), 0, false];
    }

    /** @param list<float> $values */
    private static function holds(array $values, float $scale): bool
    {
        foreach ($values as $v) {
            $x = $v * $scale;
            if (abs($x - floor($x + 0.5)) > self::KEPT * abs($x) + 1e-12 * $scale) {
                return false;
            }
        }

        return true;
    }
}
