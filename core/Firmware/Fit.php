<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Fact\Code;
use Ortholex\Core\Fact\Fact;

/** The verdict of an image against the hardware it would be written to, with its reasons. */
final readonly class Fit
{
    /** @param list<Fact> $reasons */
    private function __construct(public FitVerdict $verdict, public array $reasons)
    {
    }

    /**
     * @param list<Fact> $against what forbids writing it
     * @param list<Fact> $but     what does not forbid it, and is to be known
     * @param Fact       $well    what is said where there is neither
     */
    public static function of(array $against, array $but, Fact $well): self
    {
        return match (true) {
            [] !== $against => new self(FitVerdict::DoesNotFit, $against),
            [] !== $but => new self(FitVerdict::FitsBut, $but),
            default => new self(FitVerdict::Fits, [$well]),
        };
    }

    /**
     * @param list<string> $needs what this craft uses and a build may leave out, such as "gps"
     */
    public static function judge(HexImage $image, ?Manifest $manifest, ?BoardIdentity $board, array $needs): self
    {
        if (null === $board) {
            return self::unknown(FitReason::NoBoardRead);
        }
        $against = [];
        if ($image->lowest() < $board->flashFrom || $image->end() > $board->flashEnd) {
            $against[] = Fact::of(
                FitReason::OutsideFlash,
                from: $image->lowest(),
                to: $image->end() - 1,
                board: $board->board,
                flash_from: $board->flashFrom,
                flash_to: $board->flashEnd - 1,
            );
        }
        if (null === $manifest) {
            return [] !== $against
                ? new self(FitVerdict::DoesNotFit, $against)
                : self::unknown(FitReason::NoManifest, FitReason::TypeTheName);
        }
        if ($manifest->sha256 !== $image->sha256()) {
            $against[] = Fact::of(FitReason::OtherBytes);
        }

        return self::compare($manifest, $board, $needs, $against);
    }

    /**
     * The verdict as far as the manifest alone goes, for lists; judge() is asked before anything is written.
     *
     * @param list<string> $needs
     */
    public static function byManifest(Manifest $manifest, ?BoardIdentity $board, array $needs): self
    {
        return null === $board ? self::unknown(FitReason::NoBoardRead) : self::compare($manifest, $board, $needs, []);
    }

    public function mayBeWritten(): bool
    {
        return FitVerdict::DoesNotFit !== $this->verdict;
    }

    public function needsTypedName(): bool
    {
        return FitVerdict::CannotTell === $this->verdict;
    }

    private static function unknown(Code ...$why): self
    {
        return new self(FitVerdict::CannotTell, array_map(static fn (Code $c): Fact => Fact::of($c), array_values($why)));
    }

    /**
     * @param list<string> $needs
     * @param list<Fact>   $against what already speaks against it
     */
    private static function compare(Manifest $manifest, BoardIdentity $board, array $needs, array $against): self
    {
        if (!\in_array($board->hardwareId, $manifest->hardware, true)) {
            $against[] = Fact::of(
                FitReason::OtherBoard,
                wanted: $manifest->board,
                wanted_ids: $manifest->hardware,
                board: $board->board,
                id: $board->hardwareId,
            );
        }
        if ($manifest->processor !== $board->processor) {
            $against[] = Fact::of(FitReason::OtherProcessor, wanted: $manifest->processor, processor: $board->processor);
        }
        $but = [];
        foreach (array_intersect($needs, $manifest->leftOut) as $lost) {
            $but[] = Fact::of(FitReason::LeavesOut, option: $lost);
        }
        if ($manifest->version->isPreRelease()) {
            $but[] = Fact::of(FitReason::PreRelease);
        }
        if (null !== $board->version && $board->firmware === $manifest->product && $manifest->version->compare($board->version) < 0) {
            $but[] = Fact::of(FitReason::Older, version: $board->version->toString());
        }

        return self::of($against, $but, Fact::of(FitReason::MadeForIt, id: $board->hardwareId, processor: $board->processor));
    }
}
