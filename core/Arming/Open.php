<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Proof\Proved;

/** One open condition of the chain. */
final readonly class Open
{
    /**
     * @param Bar|null    $bar     of the board; null for one of ours
     * @param Fact|null   $own     of OwnBar
     * @param Proved|null $proof   that is wanting
     * @param bool        $forbids else it only warns
     */
    private function __construct(
        public ChainPlace $place,
        public ?Bar $bar,
        public ?Fact $own,
        public ?Proved $proof,
        public bool $forbids,
    ) {
    }

    public static function ofBoard(Bar $bar, bool $forbids): self
    {
        return new self(ChainPlace::of($bar), $bar, null, null, $forbids);
    }

    public static function ours(Fact $what, ?Proved $proof = null): self
    {
        return new self(ChainPlace::Proofs, null, $what, $proof, false);
    }

    public function isOurs(): bool
    {
        return null === $this->bar;
    }
}
