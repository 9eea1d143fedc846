<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** A judgement on a log: what, with which number and interval, where it can be seen, the setting behind it, and what to try. */
final readonly class Finding
{
    public const GOOD = 'good';
    public const MIND = 'mind';
    public const WRONG = 'wrong';

    /**
     * @param self::GOOD|self::MIND|self::WRONG $weight
     * @param array{float, float}|null          $interval of the number
     * @param string                            $sheet    two digits
     * @param array{float, float}|null          $passage  from and to, s
     * @param string|null                       $setting  name of the setting behind it
     */
    public function __construct(
        public string $key,
        public string $weight,
        public string $what,
        public ?float $number,
        public string $unit,
        public ?array $interval,
        public string $confidence,
        public string $sheet,
        public ?string $axis,
        public ?array $passage,
        public ?string $setting,
        public string $try,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'key' => $this->key, 'weight' => $this->weight, 'what' => $this->what, 'number' => $this->number, 'unit' => $this->unit, 'interval' => $this->interval, 'confidence' => $this->confidence,
            'evidence' => ['sheet' => $this->sheet, 'axis' => $this->axis, 'passage' => $this->passage], 'setting' => $this->setting, 'try' => $this->try,
        ];
    }
}
