<?php

declare(strict_types=1);

namespace Ortholex\Bench\Position;

/** What a Plumb G2 works with, what it keeps through loss of power, and since when it has power and sees the sky. */
final class PlumbState
{
    public const FACTORY = ['baud' => 38400, 'rate' => 5, 'sky' => 'BOTH'];

    public int $baud = self::FACTORY['baud'];

    /** Moments a second. */
    public int $rate = self::FACTORY['rate'];

    /** GPS, GALILEO or BOTH */
    public string $sky = self::FACTORY['sky'];

    /** @var array{baud: int, rate: int, sky: string} */
    public array $kept = self::FACTORY;

    /** Far in the future: it has none. */
    public float $poweredAt = \PHP_FLOAT_MAX;

    public float $outdoorsAt = 0.0;

    /** @param array<mixed> $data as toArray() gave it */
    public static function fromArray(array $data): self
    {
        $state = new self();
        $kept = \is_array($data['kept'] ?? null) ? $data['kept'] : [];
        $state->kept = ['baud' => self::whole($kept, 'baud'), 'rate' => self::whole($kept, 'rate'), 'sky' => self::sky($kept)];
        $state->baud = self::whole($data, 'baud');
        $state->rate = self::whole($data, 'rate');
        $state->sky = self::sky($data);
        foreach (['poweredAt', 'outdoorsAt'] as $when) {
            $state->{$when} = is_numeric($data[$when] ?? null) ? (float) $data[$when] : $state->{$when};
        }

        return $state;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'baud' => $this->baud,
            'rate' => $this->rate,
            'sky' => $this->sky,
            'kept' => $this->kept,
            'poweredAt' => $this->poweredAt,
            'outdoorsAt' => $this->outdoorsAt,
        ];
    }

    public function power(bool $on, float $now): void
    {
        if (!$on) {
            $this->poweredAt = \PHP_FLOAT_MAX;
        } elseif ($this->poweredAt > $now) {
            $this->poweredAt = $now;
            [$this->baud, $this->rate, $this->sky] = [$this->kept['baud'], $this->kept['rate'], $this->kept['sky']];
        }
    }

    public function keep(): void
    {
        $this->kept = ['baud' => $this->baud, 'rate' => $this->rate, 'sky' => $this->sky];
    }

    /** @param array<mixed> $data */
    private static function whole(array $data, string $name): int
    {
        return \is_int($data[$name] ?? null) && $data[$name] > 0 ? $data[$name] : (int) self::FACTORY[$name];
    }

    /** @param array<mixed> $data */
    private static function sky(array $data): string
    {
        return \is_string($data['sky'] ?? null) ? $data['sky'] : self::FACTORY['sky'];
    }
}
