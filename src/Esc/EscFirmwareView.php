<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Work\Job;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Esc\EscIdentity;

/** What sheet 12 shows of the ESCs. */
final readonly class EscFirmwareView
{
    /**
     * @param array<string, EscIdentity|null> $escs   by place
     * @param array<string, int>              $pads   by place
     * @param list<EscImage>                  $images
     */
    public function __construct(
        public Airframe $frame,
        public array $escs,
        public array $pads,
        public array $images,
        public ?EscImage $chosen,
        public bool $preReleases,
        public ?Job $flash,
        public bool $linked,
        public bool $pack,
        public bool $declared,
        public bool $read,
        public string $problem,
        public int $nowKhz,
    ) {
    }

    /** @return list<string> places whose last write failed */
    public function failed(): array
    {
        $failed = $this->flash->result['failed'] ?? [];

        return \is_array($failed) ? array_map('strval', array_keys($failed)) : [];
    }
}
