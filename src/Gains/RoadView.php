<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\RoadMap\TuneAsks;
use Ortholex\Core\RoadMap\TuneStep;

/** Where a tune stands, in words. */
final readonly class RoadView
{
    /** @param array<string, float|int|bool|string> $stage what it proposes, by names of the craft's own firmware */
    public function __construct(public TuneStep $at, public string $why, public array $stage, public ?Card $card)
    {
    }

    public function asks(TuneStep $step): TuneAsks
    {
        return TuneAsks::at($step);
    }

    public function isPassed(TuneStep $step): bool
    {
        $order = TuneStep::cases();

        return array_search($step, $order, true) < array_search($this->at, $order, true);
    }
}
