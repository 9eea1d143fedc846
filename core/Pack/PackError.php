<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** A log, or a figure, that tells nothing of a pack; and what would. */
final class PackError extends \RuntimeException implements Explained
{
    private function __construct(private readonly Fact $what)
    {
        parent::__construct((string) $what->code->value);
    }

    public static function noTrace(string $name): self
    {
        return new self(Fact::of(PackCode::NoTrace, name: $name));
    }

    public static function tooShort(float $seconds): self
    {
        return new self(Fact::of(PackCode::TooShort, seconds: $seconds));
    }

    public static function steady(float $amperes): self
    {
        return new self(Fact::of(PackCode::Steady, amperes: $amperes));
    }

    /** @param float $ratio meter over reported */
    public static function tooFarOff(float $ratio, float $meter, float $reported): self
    {
        return new self(Fact::of(PackCode::TooFarOff, percent: 100 * ($ratio - 1), meter: $meter, reported: $reported));
    }

    public static function noVolts(string $which): self
    {
        return new self(Fact::of(PackCode::NoVolts, which: $which));
    }

    public static function tooNear(float $volts): self
    {
        return new self(Fact::of(PackCode::TooNear, volts: $volts));
    }

    public static function noHover(): self
    {
        return new self(Fact::of(PackCode::NoHover));
    }

    public function fact(): Fact
    {
        return $this->what;
    }
}
