<?php

declare(strict_types=1);

namespace Ortholex\App\Live;

use Doctrine\DBAL\Connection;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\Bench\Power\Mode;

/** The moment: what is on the bench, whether the board answers, what work is under way. */
final readonly class LiveState
{
    public function __construct(private Worlds $worlds, private LinkService $links, private Jobs $jobs, private Connection $db)
    {
    }

    /** @return array<string, mixed> */
    public function of(Craft $craft): array
    {
        $world = $this->worlds->of($craft);
        $s = $world->store->peek();
        $linked = $this->links->isLinked($craft);
        $jobs = $this->jobs->of($craft);
        $flashing = false;
        foreach ($jobs as $job) {
            $flashing = $flashing || (\in_array($job->kind, ['flash', 'flash-escs'], true) && $job->isOpen());
        }
        // While a flash holds the link, others keep off it.
        $state = $linked && !$flashing ? $this->links->state($craft) : null;
        $volts = $s->pack ? $world->physics->restVoltage($s->chargeUsed) : null;

        return [
            'bench' => [
                'cable' => $s->cable,
                'pack' => $s->pack,
                'props' => $s->props,
                'transmitter' => $s->transmitter,
                'outdoors' => $s->outdoors,
                'tilt' => $s->tilt,
                'pack_v' => null === $volts ? null : round($volts, 2),
                'props_declared_off' => $s->propsDeclaredOff,
                'faults' => $s->faults,
                'powered' => Mode::Off !== $s->mode,
                'turning' => $world->drive->turning($s),
                'mishap' => $s->mishap,
                'tones' => $s->tones,
                'teach' => $s->teach->value ?? '',
            ],
            'link' => [
                'escs' => $s->pack && $linked && null !== $craft->escsSince && $craft->escsSince === $s->powerMoves,
                'linked' => $linked,
                'cable' => $s->cable,
                'bootloader' => $craft->inBootloader,
                'answers' => null !== $state,
                'flashing' => $flashing,
                'board' => $craft->board,
                'firmware' => $craft->firmware,
                'version' => $craft->version,
                'uptime_s' => null === $state ? null : round($state->uptimeS, 1),
                'attitude' => null === $state ? null : [round($state->rollDeg, 1), round($state->pitchDeg, 1), round($state->yawDeg, 1)],
                'battery_v' => null === $state ? null : round($state->batteryV, 2),
                'load_pct' => null === $state ? null : round($state->loadPct, 1),
            ],
            'staged' => (int) self::scalar($this->db->fetchOne('SELECT COUNT(*) FROM staged_change WHERE craft_id = ?', [$craft->id])),
            'jobs' => array_map(
                static fn (Job $j): array => [
                    'id' => $j->id,
                    'kind' => $j->kind,
                    'title' => $j->title,
                    'state' => $j->state->value,
                    'progress' => round($j->progress, 3),
                    'doing' => self::doing($j),
                    'step' => (object) $j->step,
                    'message' => $j->message,
                    'open' => $j->isOpen(),
                    'result' => array_intersect_key($j->result, ['log' => 1, 'code' => 1, 'version' => 1]),
                ],
                $jobs,
            ),
        ];
    }

    private static function doing(Job $job): string
    {
        $left = self::left($job);

        return $job->doing.(null === $left ? '' : ", about $left s left");
    }

    /** Seconds that open work will still take: as it says itself, else by how far it is; null while that says nothing. */
    private static function left(Job $job): ?int
    {
        $said = $job->step['left_s'] ?? null;
        if ($job->isOpen() && is_numeric($said)) {
            return (int) ceil((float) $said);
        }

        return !$job->isOpen() || null === $job->startedAt || $job->progress < 0.05
            ? null
            : (int) ceil(((microtime(true) - $job->startedAt) * (1 - $job->progress)) / $job->progress);
    }

    private static function scalar(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '0';
    }
}
