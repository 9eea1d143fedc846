<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Fact\Fact;

/** What the spin check has shown so far, and what follows from it. */
final readonly class SpinView
{
    /**
     * @param array<int, ShownSpin> $shown      by pad; direction 0 where none was said yet
     * @param array<int, string>    $set        pad => place, as staged or set; its keys are the pads that motors hang on
     * @param bool                  $canReverse whether every ESC that turns the wrong way has answered
     * @param array<string, string> $toTurn     directions that are still to be staged
     * @param array<int, string>    $onCraft    pad => place, as the craft has it
     */
    public function __construct(
        public Airframe $frame,
        public array $shown,
        public array $set,
        public SpinCheck $check,
        public bool $canReverse,
        public array $toTurn,
        public array $onCraft,
    ) {
    }

    public function drawing(): SpinDrawing
    {
        return SpinDrawing::of($this);
    }

    /** A motor whose wire is drawn and whose direction is not; '' when there is none. */
    public function turning(): string
    {
        foreach ($this->shown as $spin) {
            if (0 === $spin->direction) {
                return $spin->place;
            }
        }

        return '';
    }

    /** How many outputs were shown with direction and all. */
    public function whole(): int
    {
        return \count(array_filter($this->shown, static fn (ShownSpin $s): bool => 0 !== $s->direction));
    }

    /** What was said of the motor at a place: +1 clockwise from above, −1 counter-clockwise, 0 not yet. */
    public function direction(string $place): int
    {
        $pad = $this->padOf($place);

        return null === $pad ? 0 : $this->shown[$pad]->direction;
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

    /** Whether all that follows is staged, and nothing of it on the craft yet. */
    public function isStaged(): bool
    {
        return $this->check->isComplete()
            && !$this->mapDiffers()
            && [] === $this->toTurn
            && ([] !== $this->check->reverse || $this->check->drives != array_intersect_key($this->onCraft, $this->check->drives));
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
