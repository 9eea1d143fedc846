<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\LinkLoss\Stage;

/** What a board tells of its arming and of its link-loss plan, as it goes over the link. */
final readonly class GuardReading
{
    public const BYTES = 15;

    /** Longer ago than this is told as this, s. */
    public const LONG_S = 1.0e6;

    /**
     * @param int          $bars    what forbids arming, as a mask of Bar
     * @param int          $unmet   the same with what only warns
     * @param float        $sinceS  since the last frame that counts
     * @param Stopped|null $stopped why it stopped by itself last
     */
    public function __construct(
        public bool $armed,
        public int $bars,
        public int $unmet,
        public Stage $stage,
        public float $sinceS,
        public ?Stopped $stopped,
    ) {
    }

    public function pack(): string
    {
        $stopped = null === $this->stopped ? 0 : 1 + (int) array_search($this->stopped, Stopped::cases(), true);

        return pack('CVVCgC', $this->armed ? 1 : 0, $this->bars, $this->unmet, $this->stage->code(), $this->sinceS, $stopped);
    }

    /** @param string $bytes BYTES of them */
    public static function unpack(string $bytes): self
    {
        /** @var array{armed: int, bars: int, unmet: int, stage: int, since: float, stopped: int} $v */
        $v = unpack('Carmed/Vbars/Vunmet/Cstage/gsince/Cstopped', $bytes);

        return new self(
            1 === $v['armed'],
            $v['bars'],
            $v['unmet'],
            Stage::ofCode($v['stage']),
            $v['since'],
            0 === $v['stopped'] ? null : Stopped::cases()[$v['stopped'] - 1] ?? null,
        );
    }
}
