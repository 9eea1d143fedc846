<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;

/** A recording, read: the log of its whole pages, and where the others stood. Memory stays bounded by one page. */
final readonly class Recording
{
    /**
     * @param int       $pages   whole ones
     * @param list<int> $missing numbers of pages that are not whole, between the first and the last that are
     */
    private function __construct(public FlightLog $log, public int $pages, public array $missing)
    {
    }

    /** Whether a file begins as one. */
    public static function isOne(string $beginning): bool
    {
        return str_contains(substr($beginning, 0, 65_536), RecordPage::MARK);
    }

    /** @throws RecordingError where nothing of it can be read */
    public static function read(string $bytes): self
    {
        [$places, $head] = self::pages($bytes);
        if (null === $head) {
            throw RecordingError::noHead();
        }
        if ([] === $places) {
            throw RecordingError::noPage();
        }
        $names = $head['traces'];
        $columns = array_map(static fn (): Column => Column::spool(4), array_flip($names));
        $segments = $gaps = [];
        $samples = 0;
        $period = 1 / $head['rate_hz'];
        $last = null;
        foreach ($places as $at) {
            $page = RecordPage::decode($bytes, $at);
            if (null === $page) {
                continue;
            }
            foreach (self::columns($page) as $i => $values) {
                $columns[$names[$i]]->append(FlightLog::packFloats($values));
            }
            if (null !== $last && abs($page->startS - $last->endS($head['rate_hz']) - $period) < 0.5 * $period) {
                array_pop($segments);
                $segments[] = $last = new Segment($last->first, $last->count + $page->samples, $last->startS);
            } else {
                if (null !== $last && $page->startS > $last->endS($head['rate_hz'])) {
                    $gaps[] = self::gap($last->endS($head['rate_hz']), $page->startS, $samples);
                }
                $segments[] = $last = new Segment($samples, $page->samples, $page->startS);
            }
            $samples += $page->samples;
        }
        $numbers = array_keys($places);
        $between = range(min($numbers), max($numbers));
        $log = new FlightLog(SampleClock::known($head['rate_hz'], $segments, $gaps), $columns, $head['settings'], new BadRows(0, []));

        return new self($log, \count($places), array_values(array_diff($between, $numbers)));
    }

    private static function gap(float $fromS, float $toS, int $row): TimeFault
    {
        return new TimeFault(TimeFaultKind::Gap, $fromS, $toS - $fromS, $row);
    }

    /**
     * Wherever a mark stands, whether whole pages come before it or not.
     *
     * @return array{array<int, int>, array{rate_hz: float, traces: list<string>, settings: string}|null} places of whole pages by number
     */
    private static function pages(string $bytes): array
    {
        $places = [];
        $head = null;
        for ($at = strpos($bytes, RecordPage::MARK); false !== $at; $at = strpos($bytes, RecordPage::MARK, $at + $skip)) {
            $page = RecordPage::decode($bytes, $at);
            $skip = $page->bytes ?? 1;
            if (RecordPage::HEAD === $page?->kind) {
                $head ??= self::head($page->payload);
            } elseif (null !== $page && self::isWhole($page)) {
                $places[$page->number] ??= $at;
            }
        }
        $traces = \count($head['traces'] ?? []);
        $places = array_filter($places, static fn (int $at): bool => RecordPage::decode($bytes, $at)?->traces === $traces);
        ksort($places);

        return [$places, $head];
    }

    /** @return array{rate_hz: float, traces: list<string>, settings: string}|null */
    private static function head(string $json): ?array
    {
        $data = json_decode($json, true);
        $rate = \is_array($data) && is_numeric($data['rate_hz'] ?? null) ? (float) $data['rate_hz'] : 0.0;
        $traces = \is_array($data) && \is_array($data['traces'] ?? null) ? array_values(array_filter($data['traces'], 'is_string')) : [];
        if ($rate < 1.0 || $rate > 1e6 || [] === $traces || \count($traces) !== \count(array_unique($traces))) {
            return null;
        }

        return [
            'rate_hz' => $rate,
            'traces' => $traces,
            'settings' => \is_array($data) && \is_string($data['settings'] ?? null) ? $data['settings'] : '',
        ];
    }

    private static function isWhole(RecordPage $page): bool
    {
        return RecordPage::DATA === $page->kind
            && $page->samples > 0
            && \strlen($page->payload) === $page->traces * (16 + 2 * $page->samples);
    }

    /** @return iterable<int, list<float>> */
    private static function columns(RecordPage $page): iterable
    {
        $long = 16 + 2 * $page->samples;
        for ($i = 0; $i < $page->traces; ++$i) {
            /** @var array<int, float>|false $two */
            $two = unpack('e2', $page->payload, $i * $long);
            /** @var array<int, int>|false $steps */
            $steps = unpack('v'.$page->samples, $page->payload, $i * $long + 16);
            [$offset, $step] = false === $two ? [0.0, 0.0] : [$two[1], $two[2]];
            $values = [];
            foreach (false === $steps ? [] : $steps as $n) {
                $v = $offset + $n * $step;
                $values[] = is_finite($v) ? $v : 0.0;
            }
            yield $i => $values;
        }
    }
}
