<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\Aids\ChipClient;
use Ortholex\Core\Link\Aids\ChipIdentity;
use Ortholex\Core\Link\Aids\DrawnPicture;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Overlay\Source\SourceCheck;
use Ortholex\Core\Overlay\Source\SourceVerdict;

/** The picture as the chip of a craft draws it now, and the voltage that it showed lately beside the pack's own. */
final readonly class Watched
{
    /** So many looks are kept. */
    private const MOST = 40;

    public function __construct(
        private Benches $benches,
        private LinkService $links,
        private Jobs $jobs,
        private EntityManagerInterface $entities,
    ) {
    }

    /** Null when it is not linked, or no chip can be spoken to. */
    public function now(Craft $craft): ?DrawnPicture
    {
        if (!$this->mayAsk($craft)) {
            return null;
        }
        try {
            $picture = (new AidsClient($this->benches->client($craft)))->picture();
        } catch (LinkError) {
            return null;
        }
        if ([] === $picture->rows) {
            return null;
        }
        $looks = \array_slice([...self::looks($craft), [round($picture->shownV, 2), round($picture->packV, 2)]], -self::MOST);
        // What stands still is not written again and again.
        if ($looks !== self::looks($craft) && !self::isSame($looks)) {
            $craft->video = ['voltage' => $looks, 'voltage_from' => self::source($craft)] + $craft->video;
            $this->entities->flush();
        }

        return $picture;
    }

    public function chip(Craft $craft): ?ChipIdentity
    {
        if (!$this->mayAsk($craft)) {
            return null;
        }
        try {
            return (new ChipClient($this->benches->client($craft)))->identity();
        } catch (LinkError) {
            return null;
        }
    }

    public function verdict(Craft $craft): SourceVerdict
    {
        return SourceCheck::of(self::looks($craft));
    }

    private function mayAsk(Craft $craft): bool
    {
        return $this->links->isLinked($craft) && !$craft->inBootloader && !$this->jobs->holdsLink($craft);
    }

    /** @return list<array{float, float}> shown, and what it should be */
    private static function looks(Craft $craft): array
    {
        $looks = [];
        // What was shown from another source tells nothing of this one.
        if (($craft->video['voltage_from'] ?? '') !== self::source($craft)) {
            return [];
        }
        foreach (\is_array($craft->video['voltage'] ?? null) ? $craft->video['voltage'] : [] as $look) {
            if (\is_array($look) && is_numeric($look[0] ?? null) && is_numeric($look[1] ?? null)) {
                $looks[] = [(float) $look[0], (float) $look[1]];
            }
        }

        return $looks;
    }

    private static function source(Craft $craft): string
    {
        return $craft->settings->text('overlay.voltage_from');
    }

    /** @param list<array{float, float}> $looks whether the last four are all the same */
    private static function isSame(array $looks): bool
    {
        $last = \array_slice($looks, -4);

        return 4 === \count($last) && 1 === \count(array_unique(array_map(static fn (array $l): string => "$l[0] $l[1]", $last)));
    }
}
