<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Live;

use Doctrine\DBAL\Connection;
use Ortholex\App\Storage\DiskTrouble;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** For whoever watches a server: whether the book can be read, and its disk written to. 200 or 503. */
#[AsController]
final readonly class HealthController
{
    public function __construct(private Connection $db, private string $dataFolder)
    {
    }

    #[Route('/health', name: 'health', methods: ['GET'])]
    public function health(): JsonResponse
    {
        try {
            $craft = $this->db->fetchOne('SELECT COUNT(*) FROM craft');
            $book = is_numeric($craft) ? 'readable' : 'unreadable';
        } catch (\Throwable) {
            $book = 'unreadable';
        }
        $disk = null === DiskTrouble::in($this->dataFolder) ? 'writable' : 'not writable';
        $sound = 'readable' === $book && 'writable' === $disk;

        return new JsonResponse(
            ['sound' => $sound, 'book' => $book, 'disk' => $disk, 'free_mb' => (int) (((float) @disk_free_space($this->dataFolder)) / 1e6)],
            $sound ? 200 : 503,
        );
    }
}
