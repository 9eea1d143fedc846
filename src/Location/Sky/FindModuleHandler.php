<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\App\Link\LinkService;
use Ortholex\App\Link\Ports;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Position\Module\PlumbCommand;
use Ortholex\Core\Wiring\PartRole;

/** Finds the rate at which a position receiver speaks, and what it is set to. */
final readonly class FindModuleHandler implements JobHandler
{
    public function __construct(private Receiver $receiver, private LinkService $links, private Ports $ports)
    {
    }

    public function kind(): string
    {
        return 'find_module';
    }

    public function route(): string
    {
        return 'location';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $uart = $this->ports->of($craft, PartRole::Gps)[1] ?? '';
        $tried = 0;
        $found = $this->receiver->find($craft, $uart, static function (int $baud) use ($progress, &$tried): void {
            $progress->at(++$tried / (\count(PlumbCommand::BAUDS) + 1), "listening at $baud baud");
        });
        $heard = [];
        foreach ($found->heard as $baud => $scan) {
            $heard[$baud] = [$scan->whole, $scan->broken];
        }
        $is = null === $found->baud ? null : $this->receiver->tell($craft, $uart, $found->baud, PlumbCommand::ask());

        return [
            'uart' => $uart,
            'baud' => $found->baud,
            'silent' => $found->silent,
            'heard' => $heard,
            'rate' => $is?->rate,
            'sky' => $is?->sky?->value,
            'kept' => $is->kept ?? false,
        ];
    }
}
