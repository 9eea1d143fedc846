<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Drive\CalibrationStep;
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

    public function isNeeded(): bool
    {
        return CalibrationStep::NotNeeded !== $this->at->step;
    }

    /** Whether the outputs are to be held at full next. */
    public function mayBegin(): bool
    {
        return CalibrationStep::Full === $this->at->step || CalibrationStep::PackOff === $this->at->step;
    }

    public function holdsFull(): bool
    {
        return TeachStep::Full === $this->held;
    }

    /** @return array<string, array{tone: Tone, count: int}> what was heard, each once */
    public function heard(): array
    {
        $heard = [];
        foreach ($this->tones as $tone) {
            $heard[$tone->value] = ['tone' => $tone, 'count' => ($heard[$tone->value]['count'] ?? 0) + 1];
        }

        return $heard;
    }
}
