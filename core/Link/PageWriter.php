<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

use Ortholex\Core\Firmware\Exception\FlashError;
use Ortholex\Core\Firmware\HexImage;

/** Writes an image page by page to a bootloader and verifies it by reading back. */
final readonly class PageWriter
{
    private const TRIES = 4;

    public function __construct(private PageTarget $client)
    {
    }

    /**
     * The image cut to whole pages, gaps and ends filled with 0xFF.
     *
     * @return array<int, string> page address => page bytes
     */
    public static function pages(HexImage $image, int $flashFrom, int $pageBytes): array
    {
        $first = $image->lowest() - (($image->lowest() - $flashFrom) % $pageBytes);
        $flat = str_repeat("\xFF", $image->lowest() - $first).$image->flat();
        $pages = [];
        foreach (str_split($flat, max(1, $pageBytes)) as $i => $bytes) {
            $pages[$first + $i * $pageBytes] = str_pad($bytes, $pageBytes, "\xFF");
        }

        return $pages;
    }

    /**
     * Number of leading pages that already hold what they should, as after an interrupted write.
     *
     * @param array<int, string> $pages
     */
    public function alreadyWritten(array $pages): int
    {
        $count = 0;
        foreach ($pages as $address => $bytes) {
            if ($this->client->readFlash($address, \strlen($bytes)) !== $bytes) {
                break;
            }
            ++$count;
        }

        return $count;
    }

    /**
     * @param array<int, string>               $pages
     * @param \Closure(int $done, int $of): void $progress called after each acknowledged page
     *
     * @throws FlashError when a page is refused three times over
     * @throws LinkError     when the link goes
     */
    public function write(array $pages, int $skip, \Closure $progress): void
    {
        $done = 0;
        foreach ($pages as $address => $bytes) {
            if ($done++ < $skip) {
                continue;
            }
            for ($try = 1;; ++$try) {
                try {
                    $this->client->writePage($address, $bytes);
                    break;
                } catch (LinkError $e) {
                    if (!$e->refused) {
                        throw $e;
                    }
                    if ($try >= self::TRIES) {
                        throw FlashError::pageRefused($address, self::TRIES, $e->getMessage());
                    }
                }
            }
            $progress($done, \count($pages));
        }
    }

    /**
     * @param array<int, string>               $pages
     * @param \Closure(int $done, int $of): void $progress
     *
     * @throws FlashError naming the first page that reads back otherwise
     */
    public function verify(array $pages, \Closure $progress): void
    {
        $done = 0;
        foreach ($pages as $address => $bytes) {
            if ($this->client->readFlash($address, \strlen($bytes)) !== $bytes) {
                throw FlashError::readsOtherwise($address);
            }
            $progress(++$done, \count($pages));
        }
    }
}
