<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

use Ortholex\Core\Fact\Code;
use Ortholex\Core\Fact\Fact;

/** Two settings, or a setting and the hardware, do not go together. */
final readonly class Clash
{
    /**
     * @param string $setting that it is shown at
     * @param Fact   $what    of ClashCode, or of AirframeFlaw
     */
    private function __construct(public ClashWeight $weight, public string $setting, public Fact $what)
    {
    }

    /** @param float|int|bool|string|list<string>|Fact ...$figures named */
    public static function refuse(string $setting, Code $code, float|int|bool|string|array|Fact ...$figures): self
    {
        return new self(ClashWeight::Refuse, $setting, Fact::of($code, ...$figures));
    }

    /** @param float|int|bool|string|list<string>|Fact ...$figures named */
    public static function warn(string $setting, Code $code, float|int|bool|string|array|Fact ...$figures): self
    {
        return new self(ClashWeight::Warn, $setting, Fact::of($code, ...$figures));
    }

    public static function because(string $setting, Fact $what): self
    {
        return new self(ClashWeight::Refuse, $setting, $what);
    }

    public function refuses(): bool
    {
        return ClashWeight::Refuse === $this->weight;
    }
}
