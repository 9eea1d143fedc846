<?php

declare(strict_types=1);

namespace Ortholex\App\Proof;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;
use Psr\Clock\ClockInterface;

/** What was proved on each craft, kept until what it rested on changes or a part is replaced. */
final readonly class Proofs
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    /** @return array<string, Proof> by Proved */
    public function of(Craft $craft): array
    {
        $proofs = [];
        foreach (Proved::cases() as $what) {
            if (isset($craft->proofs[$what->value])) {
                $proofs[$what->value] = Proof::fromArray($what, $craft->proofs[$what->value]);
            }
        }

        return $proofs;
    }

    /** Whether it was proved, and still stands. */
    public function hold(Craft $craft, Proved $what): bool
    {
        return isset($craft->proofs[$what->value]) && Proof::fromArray($what, $craft->proofs[$what->value])->holds($craft->settings);
    }

    /**
     * @param SettingSet           $settings with which it was proved; where those are only staged it holds once they are on the craft
     * @param array<string, mixed> $found
     */
    public function prove(Craft $craft, Proved $what, SettingSet $settings, array $found = []): void
    {
        $at = (float) $this->clock->now()->format('U.u');
        $craft->proofs = [$what->value => Proof::now($what, $settings, $at, $found)->toArray()] + $craft->proofs;
        $this->entities->flush();
    }

    /** @return list<Proved> what is to be proved again, now that a part was replaced */
    public function undo(Craft $craft, ReplacedPart $part): array
    {
        $proofs = $craft->proofs;
        foreach ($part->opens() as $what) {
            $proof = Proof::fromArray($what, $proofs[$what->value] ?? []);
            $proofs[$what->value] = $proof->undoneBy($part)->toArray();
        }
        $craft->proofs = $proofs;
        $this->entities->flush();

        return $part->opens();
    }
}
