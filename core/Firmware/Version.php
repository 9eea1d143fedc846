<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Firmware\Exception\NoVersion;

/**
 * A release number: year and month, as Loam counts (26.06), or three figures, as ESC firmware does (1.4.0); after
 * either a mark may stand that makes it a pre-release, as in 26.10-pre1.
 */
final readonly class Version
{
    private function __construct(public int $major, public int $minor, public int $patch, public string $mark, private bool $byMonth)
    {
    }

    /** @throws NoVersion when the text is no version */
    public static function parse(string $text): self
    {
        if (1 !== preg_match('~^(\d{1,3})\.(\d{1,3})(?:\.(\d{1,3}))?(?:-([a-z0-9]{1,12}))?$~', trim($text), $m)) {
            throw NoVersion::of($text);
        }
        $byMonth = 2 === \strlen($m[1]) && 2 === \strlen($m[2]) && (int) $m[2] >= 1 && (int) $m[2] <= 12;

        return new self((int) $m[1], (int) $m[2], (int) ($m[3] ?? 0), $m[4] ?? '', $byMonth);
    }

    public function isPreRelease(): bool
    {
        return '' !== $this->mark;
    }

    /** Negative, zero or positive as this is older than, the same as or newer than $other; a pre-release precedes its release. */
    public function compare(self $other): int
    {
        return [$this->major, $this->minor, $this->patch, '' === $this->mark ? 1 : 0, $this->mark] <=> [
            $other->major,
            $other->minor,
            $other->patch,
            '' === $other->mark ? 1 : 0,
            $other->mark,
        ];
    }

    /** Whether the settings of this release are at least those of $since; pre-releases already have their release's settings. */
    public function hasReached(self $since): bool
    {
        return [$this->major, $this->minor, $this->patch] >= [$since->major, $since->minor, $since->patch];
    }

    /** The same against a number as the catalogue writes it, such as 26.01; asked hundreds of times a page, so not parsed. */
    public function hasReachedNumber(string $since): bool
    {
        return version_compare("$this->major.$this->minor.$this->patch", $since, '>=');
    }

    /** By year and month in two figures each, and a third only where it was mended later; else in three figures. */
    public function toString(): string
    {
        $number = $this->byMonth
            ? \sprintf('%02d.%02d', $this->major, $this->minor).(0 === $this->patch ? '' : ".$this->patch")
            : "$this->major.$this->minor.$this->patch";

        return $number.('' === $this->mark ? '' : "-$this->mark");
    }
}
