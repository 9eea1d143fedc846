<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** The windows of one axis that carry enough stick movement, as spectra, and why the others do not. */
final readonly class StepWindows
{
    /**
     * @param list<array{xx: list<float>, yy: list<float>, cr: list<float>, ci: list<float>, weight: float}> $used     auto- and cross-spectra per window
     * @param array<string, int>                                                                              $rejected
     * @param list<float>                                                                                     $sizes    largest |setpoint| of each used window, deg/s
     */
    public function __construct(public int $size, public int $hop, public array $used, public array $rejected, public array $sizes)
    {
    }

    /** Flight time that the used windows cover, about. */
    public function seconds(float $fs): float
    {
        return \count($this->used) * $this->hop / $fs;
    }
}
