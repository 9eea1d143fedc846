<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

/** The verdict of an image against the hardware it would be written to, with its reasons. */
final readonly class Fit
{
    public const FITS = 'fits';
    public const FITS_BUT = 'fits, but…';
    public const DOES_NOT_FIT = 'does not fit';
    public const CANNOT_TELL = 'cannot tell';

    /**
     * @param self::*      $verdict
     * @param list<string> $reasons
     */
    private function __construct(public string $verdict, public array $reasons)
    {
    }

    /**
     * @param self::*      $verdict
     * @param list<string> $reasons
     */
    public static function of(string $verdict, array $reasons): self
    {
        return new self($verdict, $reasons);
    }

    /**
     * @param list<string> $needs what this craft uses and a build may leave out, such as "gps"
     */
    public static function judge(HexImage $image, ?Manifest $manifest, ?BoardIdentity $board, array $needs): self
    {
        if (null === $board) {
            return new self(self::CANNOT_TELL, ['No board has been read yet. Link it on sheet 11.']);
        }
        $against = [];
        if ($image->lowest() < $board->flashFrom || $image->end() > $board->flashEnd) {
            $against[] = \sprintf(
                'It fills 0x%08X to 0x%08X, but the flash of %s is 0x%08X to 0x%08X.',
                $image->lowest(),
                $image->end() - 1,
                $board->board,
                $board->flashFrom,
                $board->flashEnd - 1,
            );
        }
        if (null === $manifest) {
            return [] !== $against
                ? new self(self::DOES_NOT_FIT, $against)
                : new self(self::CANNOT_TELL, [
                    'The file has no manifest, so nothing says which board it is for.',
                    'If you are sure, type the name of the board to write it.',
                ]);
        }
        if ($manifest->sha256 !== $image->sha256()) {
            $against[] = 'Its bytes are not those the manifest vouches for. Fetch it again.';
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
        return null === $board
            ? new self(self::CANNOT_TELL, ['No board has been read yet. Link it on sheet 11.'])
            : self::compare($manifest, $board, $needs, []);
    }

    /**
     * @param list<string> $needs
     * @param list<string> $against what already speaks against it
     */
    private static function compare(Manifest $manifest, BoardIdentity $board, array $needs, array $against): self
    {
        $but = [];
        if (!\in_array($board->hardwareId, $manifest->hardware, true)) {
            $against[] = \sprintf(
                'It is for %s (%s); this board is %s (%s).',
                $manifest->board,
                implode(', ', $manifest->hardware),
                $board->board,
                $board->hardwareId,
            );
        }
        if ($manifest->processor !== $board->processor) {
            $against[] = "It is for a processor $manifest->processor; this board has $board->processor.";
        }
        if ([] !== $against) {
            return new self(self::DOES_NOT_FIT, $against);
        }
        foreach (array_intersect($needs, $manifest->leftOut) as $lost) {
            $but[] = "This build leaves out $lost, which this craft uses.";
        }
        if ($manifest->version->isPreRelease()) {
            $but[] = 'It is a pre-release: flown by few, and not yet by the cautious.';
        }
        if (null !== $board->version && $board->firmware === $manifest->product && $manifest->version->compare($board->version) < 0) {
            $but[] = 'It is older than '.$board->version->toString().', which the board runs now; newer settings will be dropped.';
        }

        return [] === $but
            ? new self(self::FITS, ["Hardware {$board->hardwareId} and processor $board->processor are the ones it is made for."])
            : new self(self::FITS_BUT, $but);
    }

    public function mayBeWritten(): bool
    {
        return self::DOES_NOT_FIT !== $this->verdict;
    }

    public function needsTypedName(): bool
    {
        return self::CANNOT_TELL === $this->verdict;
    }
}
