<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Rehearsal;
use Ortholex\Core\LinkLoss\RehearsalLook;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\OnIn;

/** Switches the transmitter off and watches what the board hears and does, until its plan is over or ten seconds have passed. */
final readonly class RehearsalHandler implements JobHandler
{
    private const WATCH_S = 10.0;
    private const EVERY_US = 40_000;

    public function __construct(private Benches $benches, private LinkService $links, private Proofs $proofs)
    {
    }

    public function kind(): string
    {
        return 'rehearse';
    }

    public function route(): string
    {
        return 'link_loss';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $client = $this->benches->client($craft);
        $first = $client->radio(0);
        if (Heard::Frames !== $first->heard) {
            throw LinkError::refused('this', 'the receiver is not heard, so its loss cannot be tried; put it right on 21 Radio');
        }
        $before = $first->channels();
        $bench = $this->benches->of($craft);
        $bench->move('transmitter', '0');
        $began = hrtime(true) / 1e9;
        $looks = [];
        try {
            while (($at = hrtime(true) / 1e9 - $began) < self::WATCH_S) {
                $progress->at($at / self::WATCH_S, \sprintf('the transmitter is off: watching, %.0f of %.0f s', $at, self::WATCH_S));
                $now = $client->radio(0);
                $looks[] = self::look(hrtime(true) / 1e9 - $began, $now);
                usleep(self::EVERY_US);
            }
        } finally {
            $bench->move('transmitter', '1');
        }
        $after = [] === $looks ? [] : $looks[\count($looks) - 1]->channels;
        $zones = $craft->settings->text(Action::Arm->setting());
        $us = [];
        foreach ($after as $i => $value) {
            $us[$i + 1] = $value;
        }
        $arms = '' !== $zones && OnIn::parse($zones)->holds($us);
        // Where the lever of arming was off before, presets cannot be said to turn it off: what they would do is what they say now.
        $seen = Rehearsal::of($before, $looks, LossPlan::in($craft->settings), $arms);
        $found = $seen->toArray() + ['aside' => [] !== array_filter($before, Rehearsal::isAside(...))];
        if (null !== $seen->manner) {
            $this->proofs->prove($craft, Proved::Rehearsal, $craft->settings, $found);
        }

        return $found;
    }

    private static function look(float $at, RadioReading $now): RehearsalLook
    {
        return new RehearsalLook(
            $at,
            Heard::Frames === $now->heard,
            Heard::Failsafe === $now->heard,
            $now->channels(),
            $now->guard->stage,
            $now->guard->sinceS,
        );
    }
}
