<?php

declare(strict_types=1);

namespace Ortholex\App\Storage\Backup;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\ServiceUnavailableHttpException;
use Symfony\Component\HttpKernel\KernelEvents;

/**
 * While a backup is brought back nobody reads what is half of one and half of the other. A mark in the data folder says so, with whose
 * process it is: where that is gone, the folder is left half brought back, and only another restore ends it.
 */
final readonly class Restoring
{
    private const MARK = '.restoring';
    private const AGAIN_S = 2;

    public function __construct(private string $dataFolder)
    {
    }

    /** @param string $from the backup */
    public function begin(string $from): void
    {
        file_put_contents("$this->dataFolder/".self::MARK, json_encode(['pid' => getmypid(), 'from' => $from], \JSON_THROW_ON_ERROR));
    }

    public function end(): void
    {
        @unlink("$this->dataFolder/".self::MARK);
    }

    /** Before anything of the folder is read. */
    #[AsEventListener(event: KernelEvents::REQUEST, priority: 1024)]
    public function onRequest(RequestEvent $event): void
    {
        $mark = @file_get_contents("$this->dataFolder/".self::MARK);
        if (!$event->isMainRequest() || false === $mark) {
            return;
        }
        $is = json_decode($mark, true);
        $pid = \is_array($is) && \is_int($is['pid'] ?? null) ? $is['pid'] : 0;
        $from = \is_array($is) && \is_string($is['from'] ?? null) ? $is['from'] : 'the backup';
        throw new ServiceUnavailableHttpException(
            self::AGAIN_S,
            $pid > 0 && posix_kill($pid, 0)
                ? 'A backup is just being brought back. Load this page again in a moment.'
                : "Bringing back $from was broken off, and the data folder is half of it. Run “backup restore” again, with it or with the ".
                    'newest folder before-restore-… in the data folder.',
        );
    }
}
