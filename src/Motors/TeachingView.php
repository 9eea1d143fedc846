<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;

/** How far the teaching of end points is, and what the ESCs let be heard. */
final readonly class TeachingView
{
    /**
     * @param list<Tone>     $tones heard since the pack came on
     * @param TeachStep|null $held  what the outputs are held at
     */
    public function __construct(public EscCalibration $at, public array $tones, public ?TeachStep $held)
    {
    }
}
