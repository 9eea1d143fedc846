<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Fact\StoredDataUnreadable;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;

/** What a book has of a log beside its samples. */
final readonly class KeptLog
{
    private const CODE = '~^[A-Z0-9]-\d{4,6}$~';

    /**
     * @param list<array{part: string, place: string, with: string}> $parts
     * @param array<string, list<float>>                             $struck
     */
    private function __construct(
        public string $code,
        public string $title,
        public \DateTimeImmutable $flownAt,
        private string $note,
        private string $tags,
        private array $parts,
        private array $struck,
        private string $recording,
        private ?\DateTimeImmutable $putAwayAt,
        private SettingSet $settings,
    ) {
    }

    /** @return array<string, mixed> to keep; see of */
    public static function write(Log $log, bool $names): array
    {
        return [
            'code' => $log->code,
            'title' => $names ? $log->title : $log->code,
            'flown' => $log->flownAt->format(\DATE_ATOM),
            'note' => $names ? $log->note : '',
            'tags' => $names ? $log->tags : '',
            'parts' => $log->parts,
            'struck' => $log->struck,
            'recording' => $log->recording,
            'put_away' => $log->putAwayAt?->format(\DATE_ATOM),
        ];
    }

    /** @throws StoredDataUnreadable|\ValueError when it is none */
    public static function of(Stored $is): self
    {
        $code = $is->text('code');
        $parts = $struck = [];
        foreach ($is->rows('parts') as $part) {
            $parts[] = ['part' => $part->text('part'), 'place' => $part->text('place'), 'with' => $part->text('with')];
        }
        foreach (Axis::cases() as $axis) {
            if (isset($is->map('struck')[$axis->value])) {
                $struck[$axis->value] = $is->part('struck')->numbers($axis->value);
            }
        }

        return new self(
            1 === preg_match(self::CODE, $code) ? $code : throw new \ValueError('no log has such a code'),
            mb_substr($is->text('title'), 0, 120),
            $is->time('flown'),
            mb_substr($is->text('note'), 0, 4000),
            mb_substr($is->text('tags'), 0, 200),
            $parts,
            $struck,
            1 === preg_match('~^[\d:/. -]{0,30}$~', $is->text('recording')) ? $is->text('recording') : '',
            $is->optionalTime('put_away'),
            self::flownWith($is->map('settings')),
        );
    }

    public function giveTo(Log $log): void
    {
        [$log->note, $log->tags, $log->parts, $log->struck] = [$this->note, $this->tags, $this->parts, $this->struck];
        [$log->recording, $log->putAwayAt] = [$this->recording, $this->putAwayAt];
        // What was said of it by hand stands over its head.
        $log->settings = $log->settings->with($this->settings);
    }

    /** @param array<mixed> $given */
    private static function flownWith(array $given): SettingSet
    {
        $known = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        $values = [];
        foreach ($given as $name => $value) {
            $is = match (true) {
                \is_string($value) => \strlen($value) <= 200,
                \is_float($value) => is_finite($value),
                default => \is_bool($value) || \is_int($value),
            };
            $there = $known[(string) $name] ?? null;
            if ($is && \is_scalar($value) && \gettype($there) === \gettype($value)) {
                $values[(string) $name] = $value;
            }
        }

        return SettingSet::of($values);
    }
}
