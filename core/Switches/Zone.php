<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** The range of one channel that turns an action on: from its lower edge up to, and not with, its upper one; either may be open. */
final readonly class Zone
{
    private function __construct(public int $channel, public ?float $fromUs, public ?float $toUs)
    {
    }

    /** @throws ZoneError unless the channel is 1 to 16 and the lower edge below the upper */
    public static function of(int $channel, ?float $fromUs, ?float $toUs): self
    {
        if ($channel < 1 || $channel > 16) {
            throw ZoneError::noChannel($channel);
        }
        if (null !== $fromUs && null !== $toUs && $fromUs >= $toUs) {
            throw ZoneError::notRising($channel, $fromUs, $toUs);
        }

        return new self($channel, $fromUs, $toUs);
    }

    public function holds(float $us): bool
    {
        return (null === $this->fromUs || $us >= $this->fromUs) && (null === $this->toUs || $us < $this->toUs);
    }

    public function text(): string
    {
        return \sprintf('%d:%s-%s', $this->channel, self::edge($this->fromUs), self::edge($this->toUs));
    }

    private static function edge(?float $us): string
    {
        return null === $us ? '' : (string) (int) round($us);
    }
}
