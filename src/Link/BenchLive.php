<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;

/** What can be seen of the bench at this moment. */
final readonly class BenchLive implements LiveSource
{
    public function __construct(private Benches $benches)
    {
    }

    public function key(): string
    {
        return 'bench';
    }

    /** @return array<string, mixed> */
    public function facts(Craft $craft): array
    {
        $bench = $this->benches->of($craft);
        $s = $bench->state();
        $radio = $bench->radio();

        return [
            'cable' => $s->cable,
            'pack' => $s->pack,
            'props' => $s->props,
            'transmitter' => $s->transmitter,
            'outdoors' => $s->outdoors,
            'tilt' => $s->tilt,
            'pack_v' => null === $s->packVolts ? null : round($s->packVolts, 2),
            'props_declared_off' => $s->propsDeclaredOff,
            'faults' => $s->faults,
            'powered' => $s->powered,
            'turning' => $s->turning,
            'mishap' => $s->mishap,
            'alarm' => $s->alarm->value,
            'tones' => $s->tones,
            'teach' => $s->teach->value ?? '',
            'controls' => $radio->controls ?? [],
            'receiver' => $radio?->light->value,
            'button' => $radio->button ?? false,
            'told' => null === $radio?->told ? null : get_object_vars($radio->told),
        ];
    }
}
