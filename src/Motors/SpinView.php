<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Fact\Fact;

/** What the spin check has shown so far, and what follows from it. */
final readonly class SpinView
{
    /**
     * @param array<int, ShownSpin> $shown      by pad
     * @param array<int, string>    $set        pad => place, as staged or set; its keys are the pads that motors hang on
     * @param bool                  $canReverse whether every ESC that turns the wrong way has answered
     */
    public function __construct(public array $shown, public array $set, public SpinCheck $check, public bool $canReverse)
    {
    }

    /** @return list<int> */
    public function pads(): array
    {
        return array_keys($this->set);
    }

    /** The output to be spun next; null when all have been. */
    public function next(): ?int
    {
        return array_values(array_diff($this->pads(), array_keys($this->shown)))[0] ?? null;
    }

    public function says(): Fact
    {
        return $this->check->fact($this->set);
    }

    public function mapDiffers(): bool
    {
        return $this->check->isComplete() && $this->check->drives !== array_intersect_key($this->set, $this->check->drives);
    }

    public function padOf(string $place): ?int
    {
        foreach ($this->shown as $pad => $spin) {
            if ($spin->place === $place) {
                return $pad;
            }
        }

        return null;
    }
}
