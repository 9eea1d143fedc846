<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Settings\Setting;

/** One row of sheet 16: what each ESC has of one thing. */
final readonly class EscRow
{
    /**
     * @param array<string, float|int|bool|string> $values by place, where it can be honoured
     * @param array<string, float|int|bool|string> $staged by place
     * @param array<string, string>                $unable why not, by place
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $unit,
        public string $help,
        public ?Setting $setting,
        public array $values,
        public array $staged,
        public array $unable,
    ) {
    }

    public function differs(): OddOnes
    {
        return 'direction' === $this->key ? OddOnes::of([]) : OddOnes::of(array_merge($this->values, $this->staged));
    }
}
